import { Injectable } from '@nestjs/common';
import { matchPayment, microOf, type Pence } from '@vectrum/core/invoicing';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  mustBeAt,
  notFound,
  one,
  NOW,
  pageOf,
  remove,
  update,
  type Row,
  rows,
  type Tx,
  type Window,
} from '../platform/index.js';
import { mustBeOpen } from '../books/index.js';
import { enterValue } from '../stock/index.js';
import type { NotedPaymentDto, NotePaymentDto, PaymentPageDto, PaymentRowDto } from './invoicing.dto.js';
import { penceIn, text } from './reckoning.js';

/** What customers pay: noted once, given to the invoices that it names, the rest by hand. */
@Injectable()
export class PaymentsService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  note(act: Act, input: NotePaymentDto): Promise<NotedPaymentDto> {
    return this.commands.run(act, 'payment.note', input, (tx) => this.noted(tx, act, input));
  }

  /** The same within a transaction that is open already, such as that of a file. */
  async noted(tx: Tx, act: Act, input: NotePaymentDto): Promise<NotedPaymentDto> {
    const amount = penceIn(input.amount);
    if (amount <= 0n) throw badForm({ amount: 'What was paid is more than nought' });
    await mustBeOpen(tx, input.paidOn, 'paidOn');
    const bankRef = input.bankRef?.trim() || null;
    const known = bankRef && (await one<{ paidOn: string }>(tx, 'SELECT paid_on AS paidOn FROM payment WHERE bank_ref = ?', [bankRef]));
    if (known) throw badForm({ bankRef: `The bank’s ${bankRef} was noted before, as paid on ${known.paidOn}` });
    const says = input.says.trim();
    const id = await insert(tx, 'payment', {
      paid_on: input.paidOn,
      amount: text(amount),
      says,
      bank_ref: bankRef,
      noted_by: act.person.id,
    });
    await enterValue(tx, { payment_id: id, document: `Payment ${id}` }, 'bank', 'trade debtors', microOf(amount));
    // Held in the order of their numbers, so that two payments never wait for each other.
    const codes = [...new Set(says.toUpperCase().match(/[A-Z]-\d{1,12}/g) ?? [])];
    const open = await rows<Row<'invoice'>>(
      tx,
      `SELECT * FROM invoice WHERE code IN (?) AND kind = 'invoice' AND open_amount > 0 AND site_id IN (?) ORDER BY id FOR UPDATE`,
      [
        ['', ...codes],
        [0, ...act.person.siteIds],
      ],
    );
    const shares = matchPayment(
      amount,
      says,
      open.map((i) => ({ code: i.code, open: penceIn(i.gross) - penceIn(i.paid) })),
    );
    for (const share of shares) {
      const invoice = open.find((i) => i.code === share.code);
      if (invoice) await this.give(tx, id, invoice.id, share.amount);
    }
    const free = amount - shares.reduce((sum, s) => sum + s.amount, 0n);
    await this.activity.record(tx, act, {
      kind: 'payment',
      glyph: free === 0n ? 'full' : 'half',
      title: `${text(amount)} paid${shares.length > 0 ? `: ${shares.map((s) => s.code).join(', ')}` : ''}`,
      detail: free === 0n ? says : `${text(free)} of it is for no invoice yet. ${says}`.slice(0, 290),
      document: shares[0]?.code ?? null,
    });
    return { id, invoices: shares.map((s) => s.code), free: text(free) };
  }

  /** Says that a payment never came: its invoices are open again, and the journal has the opposite entry. */
  takeBack(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'payment.take-back', { id }, (tx) => this.takenBack(tx, act, id));
  }

  /** The same within a transaction that is open already. */
  async takenBack(tx: Tx, act: Act, id: number): Promise<void> {
    // The payment is held before its invoices, here as elsewhere, so that none can be given a share of it meanwhile.
    const payment = await find(tx, 'payment', { id }, 'lock');
    if (!payment) throw notFound('That payment');
    if (payment.taken_back_at) throw badState('That payment was taken back already');
    const shares = await rows<{ invoiceId: number; amount: string }>(
      tx,
      'SELECT s.invoice_id AS invoiceId, s.amount FROM payment_share s JOIN invoice v ON v.id = s.invoice_id WHERE s.payment_id = ? ORDER BY s.invoice_id FOR UPDATE',
      [id],
    );
    for (const s of shares) await tx.query('UPDATE invoice SET paid = paid - ? WHERE id = ?', [s.amount, s.invoiceId]);
    for (const s of shares) await this.setOff(tx, s.invoiceId);
    await remove(tx, 'payment_share', { payment_id: id });
    // The bank's number is free again, for the payment as it really came.
    await enterValue(
      tx,
      { payment_id: id, document: `Payment ${id}` },
      'exchange difference',
      'trade debtors',
      microOf(penceIn(payment.gained)),
    );
    await update(tx, 'payment', { id }, { taken_back_at: NOW, used: payment.amount, gained: '0', bank_ref: null });
    await enterValue(tx, { payment_id: id, document: `Payment ${id}` }, 'trade debtors', 'bank', microOf(penceIn(payment.amount)));
    await this.activity.record(tx, act, {
      kind: 'payment',
      glyph: 'undo',
      title: `Payment of ${payment.amount} taken back`,
      detail: payment.says,
    });
  }

  /** Gives what is left of a payment to an invoice, as far as that is open. */
  use(act: Act, id: number, code: string): Promise<NotedPaymentDto> {
    return this.commands.run(act, 'payment.use', { id, code }, async (tx) => {
      const payment = await find(tx, 'payment', { id }, 'lock');
      if (!payment) throw notFound('That payment');
      const invoice = await find(tx, 'invoice', { code: code.trim().toUpperCase() }, 'lock');
      if (!invoice || invoice.kind !== 'invoice') throw badForm({ invoice: `There is no invoice ${code}` });
      mustBeAt(act.person, invoice.site_id);
      const [left, open] = [penceIn(payment.amount) - penceIn(payment.used), penceIn(invoice.gross) - penceIn(invoice.paid)];
      if (left <= 0n) throw badState('All of that payment is used');
      if (open <= 0n) throw badForm({ invoice: `${invoice.code} is paid` });
      const share = left < open ? left : open;
      await this.give(tx, id, invoice.id, share);
      await this.activity.record(tx, act, {
        kind: 'payment',
        glyph: 'full',
        title: `${text(share)} of a payment is for ${invoice.code}`,
        document: invoice.code,
        siteId: invoice.site_id,
      });
      return { id, invoices: [invoice.code], free: text(left - share) };
    });
  }

  /** Pays back what a credit note still holds for the customer. */
  payBack(act: Act, code: string): Promise<{ code: string }> {
    return this.commands.run(act, 'payment.back', { code }, async (tx) => {
      const credit = await find(tx, 'invoice', { code: code.toUpperCase() }, 'lock');
      if (!credit) throw notFound(`Credit note ${code}`);
      mustBeAt(act.person, credit.site_id);
      const owed = penceIn(credit.paid) - penceIn(credit.gross);
      if (credit.kind !== 'credit' || owed <= 0n) throw badState(`Nothing of ${credit.code} is to be paid back`);
      await tx.query('UPDATE invoice SET paid = gross WHERE id = ?', [credit.id]);
      await enterValue(tx, { invoice_id: credit.id, document: credit.code }, 'trade debtors', 'bank', microOf(owed));
      await this.activity.record(tx, act, {
        kind: 'payment',
        glyph: 'undo',
        title: `${text(owed)} paid back for ${credit.code}`,
        document: credit.code,
        siteId: credit.site_id,
      });
      return { code: credit.code };
    });
  }

  /**
   * What is left of an invoice in another currency, once its customer has paid what it says, is what the rate has done since: a loss, and
   * the invoice is settled.
   */
  differ(act: Act, code: string): Promise<{ code: string }> {
    return this.commands.run(act, 'invoice.exchange', { code }, async (tx) => {
      const invoice = await find(tx, 'invoice', { code: code.toUpperCase() }, 'lock');
      if (!invoice) throw notFound(`Invoice ${code}`);
      mustBeAt(act.person, invoice.site_id);
      if (!invoice.shown_currency) throw badState(`${invoice.code} is in the house’s own money. What is left of it is owed`);
      const open = penceIn(invoice.gross) - penceIn(invoice.paid);
      if (invoice.kind !== 'invoice' || open <= 0n) throw badState(`Nothing of ${invoice.code} is open`);
      if (penceIn(invoice.paid) === 0n) throw badState(`Nothing of ${invoice.code} is paid yet`);
      await tx.query('UPDATE invoice SET paid = gross WHERE id = ?', [invoice.id]);
      await enterValue(tx, { invoice_id: invoice.id, document: invoice.code }, 'exchange difference', 'trade debtors', microOf(open));
      await this.activity.record(tx, act, {
        kind: 'payment',
        glyph: 'full',
        title: `${text(open)} of ${invoice.code} is an exchange difference`,
        document: invoice.code,
        siteId: invoice.site_id,
      });
      return { code: invoice.code };
    });
  }

  /** What is left of a payment for an invoice in another currency is what the rate has done since: a gain. */
  gain(act: Act, id: number): Promise<{ id: number }> {
    return this.commands.run(act, 'payment.exchange', { id }, async (tx) => {
      const payment = await find(tx, 'payment', { id }, 'lock');
      if (!payment) throw notFound('That payment');
      const free = penceIn(payment.amount) - penceIn(payment.used);
      if (payment.taken_back_at || free <= 0n) throw badState('All of that payment is used');
      const foreign = await one(
        tx,
        'SELECT v.id FROM payment_share s JOIN invoice v ON v.id = s.invoice_id AND v.shown_currency IS NOT NULL WHERE s.payment_id = ? LIMIT 1',
        [id],
      );
      if (!foreign) throw badState('It is for no invoice in another currency. Give the rest to an invoice, or pay it back');
      await update(tx, 'payment', { id }, { used: payment.amount, gained: text(free) });
      await enterValue(tx, { payment_id: id, document: `Payment ${id}` }, 'trade debtors', 'exchange difference', microOf(free));
      await this.activity.record(tx, act, {
        kind: 'payment',
        glyph: 'full',
        title: `${text(free)} of a payment is an exchange difference`,
      });
      return { id };
    });
  }

  /** What is for no invoice yet first, then the newest. */
  async list(window: Window): Promise<PaymentPageDto> {
    const { rows: found, total } = await pageOf<Omit<PaymentRowDto, 'invoices' | 'foreign'> & { invoices: string | null; foreign: number }>(
      this.source,
      {
        select: `p.id, p.paid_on AS paidOn, p.amount, p.free_amount AS free, p.says, n.name AS notedBy,
          (SELECT GROUP_CONCAT(v.code ORDER BY v.id) FROM payment_share s JOIN invoice v ON v.id = s.invoice_id WHERE s.payment_id = p.id) AS invoices,
          EXISTS (SELECT 1 FROM payment_share s JOIN invoice v ON v.id = s.invoice_id AND v.shown_currency IS NOT NULL WHERE s.payment_id = p.id) AS \`foreign\``,
        from: 'FROM payment p JOIN person n ON n.id = p.noted_by WHERE p.taken_back_at IS NULL',
        params: [],
        order: 'p.free_amount = 0, p.id DESC',
      },
      window,
    );
    return {
      rows: found.map(({ invoices, foreign, ...p }) => ({
        ...p,
        foreign: Number(foreign) === 1,
        invoices: invoices ? invoices.split(',') : [],
      })),
      total,
    };
  }

  /** What credit notes of an invoice still hold goes to that invoice first, once it is open again. */
  private async setOff(tx: Tx, invoiceId: number): Promise<void> {
    const invoice = await find(tx, 'invoice', { id: invoiceId }, 'lock');
    let open = invoice ? penceIn(invoice.gross) - penceIn(invoice.paid) : 0n;
    const credits = await rows<Row<'invoice'>>(tx, 'SELECT * FROM invoice WHERE credits_id = ? AND paid > gross ORDER BY id FOR UPDATE', [
      invoiceId,
    ]);
    for (const credit of credits) {
      const held = penceIn(credit.paid) - penceIn(credit.gross);
      const used = held < open ? held : open;
      if (used <= 0n) return;
      await tx.query('UPDATE invoice SET paid = paid + ? WHERE id = ?', [text(used), invoiceId]);
      await tx.query('UPDATE invoice SET paid = paid - ? WHERE id = ?', [text(used), credit.id]);
      open -= used;
    }
  }

  private async give(tx: Tx, paymentId: number, invoiceId: number, share: Pence): Promise<void> {
    await tx.query(
      'INSERT INTO payment_share (payment_id, invoice_id, amount) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE amount = amount + VALUES(amount)',
      [paymentId, invoiceId, text(share)],
    );
    await tx.query('UPDATE invoice SET paid = paid + ? WHERE id = ?', [text(share), invoiceId]);
    await tx.query('UPDATE payment SET used = used + ? WHERE id = ?', [text(share), paymentId]);
  }
}
