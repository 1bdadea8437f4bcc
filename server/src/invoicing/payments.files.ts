import { Injectable } from '@nestjs/common';
import { cell, fault, has, type ImportRow, listTable, Lists, repeated, type Shape, Shapes, textOf, windows } from '../exchange/index.js';
import { marks, rows, type Tx } from '../platform/index.js';
import { closedThrough } from '../books/index.js';
import { InvoicesQueries } from './invoices.queries.js';
import { PaymentsService } from './payments.service.js';

/** Those of a batch that were noted before, by the bank's own number. */
async function notedIn(tx: Pick<Tx, 'query'>, batch: readonly ImportRow[]): Promise<Map<string, { amount: string }>> {
  const found = await rows<{ ref: string; amount: string }>(
    tx,
    `SELECT bank_ref AS ref, amount FROM payment WHERE bank_ref IN (${marks(batch)})`,
    batch.map((r) => textOf(r, 'bankRef')),
  );
  return new Map(found.map((f) => [f.ref, f]));
}

/** A bank's list of payments, taken in: each is noted once by the bank's own number, and given to the invoices that it names. */
const paymentsShape = (payments: PaymentsService): Shape => ({
  kind: 'payments',
  says: 'Payments',
  right: 'invoices',
  tables: {},
  columns: () => [
    { key: 'paidOn', label: 'Paid on', also: ['date', 'booking date', 'value date'], required: true, read: cell.date },
    { key: 'amount', label: 'Amount', also: ['credit', 'paid in', 'sum'], required: true, read: cell.decimal },
    { key: 'says', label: 'Purpose', also: ['reference', 'description', 'details', 'remittance information'], read: cell.text(300) },
    {
      key: 'bankRef',
      label: 'Bank reference',
      also: ['transaction id', 'entry reference', 'transaction'],
      required: true,
      read: cell.text(60),
    },
  ],
  async check(tx, batch, memory) {
    const faults = repeated(batch, memory, 'bankRef', (r) => textOf(r, 'bankRef'));
    const noted = await notedIn(tx, batch);
    const closed = await closedThrough(tx);
    for (const r of batch) {
      if (closed && textOf(r, 'paidOn') <= closed)
        faults.push(
          fault(r, 'paidOn', textOf(r, 'paidOn'), `The books are closed to the end of ${closed}. Leave out what was paid before`),
        );
      const [ref, amount] = [textOf(r, 'bankRef'), textOf(r, 'amount')];
      const before = noted.get(ref);
      if (before && Number(before.amount) !== Number(amount))
        faults.push(fault(r, 'bankRef', ref, `This payment was noted before, over ${before.amount}. Take it back first if that was wrong`));
      if (!/^\d{1,12}(\.\d{1,2})?$/.test(amount) || Number(amount) === 0)
        faults.push(
          fault(r, 'amount', amount, 'What was paid in is above nought, with up to 2 decimal places. Leave out what was paid out'),
        );
    }
    return faults;
  },
  async takeBack(tx, act, what) {
    for (const id of what as number[]) await payments.takenBack(tx, act, id);
  },
  async write(tx, act, batch, log) {
    // What the bank lists again is noted once.
    const noted = await notedIn(tx, batch);
    const ids: number[] = [];
    for (const r of batch) {
      if (noted.has(textOf(r, 'bankRef'))) continue;
      const { id } = await payments.noted(tx, act, {
        paidOn: textOf(r, 'paidOn'),
        amount: textOf(r, 'amount'),
        says: has(r, 'says') ? textOf(r, 'says') : '',
        bankRef: textOf(r, 'bankRef'),
      });
      ids.push(id);
    }
    log.made += ids.length;
    if (ids.length > 0) await log.note('payments', ids);
  },
  async *read(tx) {
    const found = await rows<{ paidOn: string; amount: string; says: string; bankRef: string }>(
      tx,
      'SELECT paid_on AS paidOn, amount, says, bank_ref AS bankRef FROM payment WHERE bank_ref IS NOT NULL AND taken_back_at IS NULL ORDER BY id',
    );
    for (const p of found) yield { ...p };
  },
});

/** Files of invoices and payments. */
@Injectable()
export class PaymentsFiles {
  constructor(shapes: Shapes, lists: Lists, payments: PaymentsService, invoices: InvoicesQueries) {
    shapes.register(paymentsShape(payments));
    lists.register(
      'invoices',
      (person, query) =>
        listTable(
          'invoices',
          windows((from, limit) =>
            invoices.list(
              person.siteIds,
              query['show'] === 'overdue' ? 'overdue' : query['show'] === 'open' ? 'open' : 'all',
              query['search'] ?? '',
              { from, limit },
            ),
          ),
          [
            ['Document', (v) => v.code],
            ['Kind', (v) => v.kind],
            ['Customer', (v) => v.name],
            ['Of', (v) => v.issuedOn],
            ['Due', (v) => v.dueOn],
            ['Amount', (v) => Number(v.gross)],
            ['Open', (v) => Number(v.open)],
            ['Currency', (v) => v.currency],
            ['Overdue', (v) => (v.overdue ? 'yes' : 'no')],
          ],
        ),
      'invoices',
    );
  }
}
