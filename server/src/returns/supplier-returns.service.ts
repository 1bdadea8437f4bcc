import { Injectable, type OnModuleInit } from '@nestjs/common';
import { type Account, atRate, goodsWorth } from '@vectrum/core/costing';
import { decimalText, fractionOf, fractionText, micro, type Micro } from '@vectrum/core/money';
import { ActivityService, UndoService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  mustBeAt,
  mustMatch,
  NEXT,
  nextCode,
  notFound,
  NOW,
  num,
  one,
  Outbox,
  Problem,
  type Row,
  type Tx,
  update,
} from '../platform/index.js';
import { enterValue, LedgerService, rateOf } from '../stock/index.js';
import { notOfCustomers } from './of-customers.js';
import type { CreditDto, SendBackDto, SendBackLineDto } from './returns.dto.js';

interface Source {
  orderLineId: number;
  price: string;
  factor: number;
}

/** Sends goods back to their supplier, says what credit is expected, and holds the credit note against it. */
@Injectable()
export class SupplierReturns implements OnModuleInit {
  constructor(
    private readonly commands: CommandLog,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly activity: ActivityService,
    private readonly undo: UndoService,
    private readonly outbox: Outbox,
  ) {}

  onModuleInit(): void {
    this.undo.register('send-back', 'buy', (tx, act, payload) => this.takeBack(tx, act, Number(payload['returnId'])));
  }

  send(act: Act, input: SendBackDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    if (input.lines.some((l) => l.condition === 'to-inspect'))
      throw badForm({ lines: 'Some of these wait to be looked at. Reject them there, and they go back' });
    return this.commands.run(act, 'supplier-return', input, async (tx) => {
      const sent = await this.post(tx, act, input);
      await this.activity.record(tx, act, {
        kind: 'send-back',
        glyph: 'go',
        title: `${sent.code}: goods go back to ${sent.supplier}`,
        detail: input.reason,
        document: sent.code,
        siteId: input.siteId,
        undo: { returnId: sent.id },
      });
      return { code: sent.code };
    });
  }

  /** Goods leave their places for the supplier at once; the note goes with them by mail. For callers with a transaction and a tape line of their own. */
  async post(tx: Tx, act: Act, input: SendBackDto): Promise<{ id: number; code: string; supplier: string }> {
    const supplier = await find(tx, 'supplier', { code: input.supplier.toUpperCase() });
    if (!supplier) throw badForm({ supplier: `There is no supplier ${input.supplier}` });
    const code = await nextCode(tx, 'Z');
    for (const line of input.lines) await this.mustStandAt(tx, input.siteId, line);
    const to = await this.ledger.outside(tx, 'supplier');
    const { ids, changes } = await this.ledger.post(
      tx,
      act,
      input.lines.map((l) => ({
        itemId: l.itemId,
        lotId: l.lotId,
        condition: l.condition,
        fromPlaceId: l.placeId,
        toPlaceId: to,
        units: l.units,
      })),
      { task: 'send-back', document: code, reason: input.reason.slice(0, 120) },
    );
    const { id } = await this.write(tx, act, code, supplier, input, ids);
    await this.allocation.settle(tx, changes);
    if (supplier.email)
      await this.outbox.send(
        tx,
        `mail:${supplier.email}`,
        'mail.supplier-return',
        { code, to: supplier.email },
        { siteId: input.siteId, document: code },
      );
    return { id, code, supplier: supplier.name };
  }

  /** Holds a credit note against what is expected. What differs is a gain or a loss on the goods. */
  credit(act: Act, code: string, version: number, input: CreditDto): Promise<{ code: string }> {
    return this.commands.run(act, 'supplier-return.credit', { code, version, input }, async (tx) => {
      const found = await one<{ id: number; state: string; siteId: number; currency: string; version: number }>(
        tx,
        'SELECT id, state, site_id AS siteId, currency, version FROM supplier_return WHERE code = ? FOR UPDATE',
        [code],
      );
      if (!found) throw notFound(`Return ${code}`);
      mustBeAt(act.person, found.siteId);
      mustMatch(found.version, version);
      if (found.state !== 'sent') throw badState(`${code} is ${found.state} already`);
      await this.enter(tx, found.id, code, micro(fractionText(atRate(fractionOf(input.amount), await rateOf(tx, found.currency)), 2)));
      await update(
        tx,
        'supplier_return',
        { id: found.id },
        {
          state: 'credited',
          credit_ref: input.ref.trim(),
          credited: input.amount,
          credited_by: act.person.id,
          credited_at: NOW,
          version: NEXT,
        },
      );
      await this.activity.record(tx, act, {
        kind: 'bill',
        glyph: 'full',
        title: `${code}: credit ${input.ref.trim()} of ${input.amount}`,
        document: code,
        siteId: found.siteId,
      });
      return { code };
    });
  }

  private async mustStandAt(tx: Tx, siteId: number, line: SendBackLineDto): Promise<void> {
    const place = await one<{ siteId: number | null }>(tx, 'SELECT site_id AS siteId FROM place WHERE id = ?', [line.placeId]);
    if (place?.siteId !== siteId) throw badForm({ lines: 'These goods stand at another site. Each site sends back its own' });
    if (line.condition === 'apart' && line.units > (await notOfCustomers(tx, line)))
      throw badForm({ lines: 'Some of these are a customer’s, and here to be repaired. Send back fewer' });
  }

  /** The newest receipt of such goods from the supplier: what they were ordered with, and at what price. */
  private source(tx: Tx, supplierId: number, line: SendBackLineDto): Promise<Source | undefined> {
    return one<Source>(
      tx,
      `SELECT l.id AS orderLineId, l.price, l.factor FROM receipt r JOIN arrival a ON a.id = r.arrival_id JOIN purchase_order_line l ON l.id = r.order_line_id
       WHERE a.supplier_id = ? AND r.item_id = ? AND r.lot_id = ? AND r.undone_at IS NULL ORDER BY r.stock_condition = ? DESC, r.id DESC LIMIT 1`,
      [supplierId, line.itemId, line.lotId, line.condition],
    );
  }

  private async write(
    tx: Tx,
    act: Act,
    code: string,
    supplier: Row<'supplier'>,
    input: SendBackDto,
    movements: readonly number[],
  ): Promise<{ id: number }> {
    const lines: { line: SendBackLineDto; source: Source | undefined; expected: Micro }[] = [];
    for (const line of input.lines) {
      // Goods set apart at the door are on no bill, so that no credit comes for them.
      const source = line.condition === 'apart' ? undefined : await this.source(tx, supplier.id, line);
      lines.push({ line, source, expected: source ? micro(fractionText(goodsWorth(source.price, line.units, source.factor))) : 0n });
    }
    const total = fractionText({ num: lines.reduce((sum, l) => sum + l.expected, 0n), den: 1_000_000n }, 2);
    const made = await insert(tx, 'supplier_return', {
      code,
      supplier_id: supplier.id,
      site_id: input.siteId,
      reason: input.reason,
      currency: supplier.currency,
      expected: total,
      sent_by: act.person.id,
    });
    for (const [i, { line, source, expected }] of lines.entries())
      await insert(tx, 'supplier_return_line', {
        return_id: made,
        line: i + 1,
        item_id: line.itemId,
        lot_id: line.lotId,
        stock_condition: line.condition,
        units: line.units,
        order_line_id: source?.orderLineId ?? null,
        expected: decimalText(expected),
        movement_id: movements[i] ?? 0,
      });
    return { id: made };
  }

  /** The credit settles what the goods were worth when they went; the rest is a gain, or a loss. */
  private async enter(tx: Tx, returnId: number, code: string, credited: Micro): Promise<void> {
    const went = await one<{ value: string | null }>(
      tx,
      `SELECT SUM(e.amount) AS value FROM value_entry e JOIN supplier_return_line l ON l.movement_id = e.movement_id WHERE l.return_id = ? AND e.credit = 'stock'`,
      [returnId],
    );
    const worth = micro(went?.value ?? '0');
    const post = (debit: Account, credit: Account, amount: Micro) => enterValue(tx, { document: code }, debit, credit, amount);
    await post('bills to pay', 'not billed yet', worth);
    if (credited >= worth) await post('bills to pay', 'cost of goods', credited - worth);
    else await post('cost of goods', 'bills to pay', worth - credited);
  }

  /** Takes a return back whose credit has not come yet. */
  async takeBack(tx: Tx, act: Act, returnId: number): Promise<void> {
    const found = await one<{ code: string; state: string }>(tx, 'SELECT code, state FROM supplier_return WHERE id = ? FOR UPDATE', [
      returnId,
    ]);
    if (found?.state !== 'sent')
      throw new Problem(409, 'undo', `${found?.code ?? 'This return'} is ${found?.state ?? 'gone'}. It stays as it is`);
    const lines: { id: string }[] = await tx.query('SELECT movement_id AS id FROM supplier_return_line WHERE return_id = ? ORDER BY line', [
      returnId,
    ]);
    const changes = await this.ledger.reverse(
      tx,
      act,
      lines.map((l) => num(l.id)),
      found.code,
    );
    await update(tx, 'supplier_return', { id: returnId }, { state: 'taken back', version: NEXT });
    await this.allocation.settle(tx, changes);
  }
}
