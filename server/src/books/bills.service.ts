import { Injectable, type OnModuleInit } from '@nestjs/common';
import { type Account, atRate, lateShares, type LateLine } from '@vectrum/core/costing';
import { decimalText, dividedBy, fractionOf, fractionText, micro, scaled, times, whole, type Micro } from '@vectrum/core/money';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  insert,
  Mailer,
  mustBeAt,
  mustMatch,
  NEXT,
  nextCode,
  notFound,
  NOW,
  num,
  one,
  rows,
  Outbox,
  type Row,
  theRow,
  type Tx,
  update,
} from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { enterValue, rateOf, ValueService } from '../stock/index.js';
import { billLines, type BillLineRow, findingOf, fits, putOnFor, type ReceivedLayer, receivedLayers } from './bill-lines.js';
import type { EnterBillDto, SettleBillDto } from './bills.dto.js';
import { mustBeOpen } from './periods.service.js';

interface BillRow {
  id: number;
  code: string;
  supplierId: number;
  ref: string;
  state: 'differs' | 'queried' | 'posted';
  rate: string;
  version: number;
}

/**
 * Takes in suppliers' bills: what fits order and arrival is posted at once, what differs waits for somebody. A bill may come
 * long after the goods: its difference goes to those still there and to the cost of those that have gone.
 */
@Injectable()
export class BillsService implements OnModuleInit {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly settings: SettingsService,
    private readonly value: ValueService,
    private readonly outbox: Outbox,
    private readonly mailer: Mailer,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('mail.bill-query', async ({ payload, id }) => {
      await this.mailer.send({
        id: `bill-query-${id}`,
        to: String(payload['to']),
        subject: `Your bill ${String(payload['ref'])}`,
        text: `Dear ${String(payload['supplier'])},\n\nwe have a question about your bill ${String(payload['ref'])}.\n\n${String(payload['note'])}\n`,
        attachments: [],
      });
    });
  }

  enter(act: Act, input: EnterBillDto): Promise<{ code: string }> {
    return this.commands.run(act, 'bill.enter', input, async (tx) => {
      if (input.goods.length + input.charges.length === 0) throw badForm({ goods: 'Write at least one line' });
      // Bills of one supplier are taken one after another, so that two of them never both fit the same goods.
      const supplier = await find(tx, 'supplier', { code: input.supplier.toUpperCase() }, 'lock');
      if (!supplier) throw badForm({ supplier: `There is no supplier ${input.supplier}` });
      await mustBeOpen(tx, input.billedOn, 'billedOn');
      const ref = input.ref.trim();
      const before = await one<{ code: string }>(tx, 'SELECT code FROM bill WHERE supplier_id = ? AND ref = ?', [supplier.id, ref]);
      if (before) throw badForm({ ref: `Bill ${ref} of ${supplier.name} was entered before, as ${before.code}` });
      const code = await nextCode(tx, 'B');
      const made = await insert(tx, 'bill', {
        code,
        supplier_id: supplier.id,
        ref,
        billed_on: input.billedOn,
        due_on: input.dueOn ?? null,
        currency: supplier.currency,
        rate: await rateOf(tx, supplier.currency),
        note: input.note,
        entered_by: act.person.id,
      });
      await this.write(tx, made, supplier, input);
      const siteId = await mustBeAtOrders(tx, act, made);
      const bill = await this.locked(tx, code);
      const tolerance = await this.tolerance(tx);
      const differing = (await billLines(tx, bill.id)).filter((l) => !fits(findingOf(l, tolerance)));
      if (differing.length === 0) await this.post(tx, act, bill, supplier);
      await this.activity.record(tx, act, {
        kind: 'bill',
        glyph: differing.length === 0 ? 'full' : 'held',
        title: `${code}: bill ${ref} of ${supplier.name}`,
        detail:
          differing.length === 0
            ? 'fits order and arrival, posted'
            : `${differing.length === 1 ? '1 line differs' : `${differing.length} lines differ`}`,
        document: code,
        siteId,
      });
      return { code };
    });
  }

  /** Decides about a bill that differs: post it as it is, or ask the supplier. */
  settle(act: Act, code: string, version: number, input: SettleBillDto): Promise<{ code: string }> {
    return this.commands.run(act, 'bill.settle', { code, version, input }, async (tx) => {
      const bill = await this.locked(tx, code);
      const siteId = await mustBeAtOrders(tx, act, bill.id);
      mustMatch(bill.version, version);
      if (bill.state === 'posted') throw badState(`${code} is posted already`);
      const supplier = await theRow(tx, 'supplier', { id: bill.supplierId });
      if (input.says === 'accept') await this.post(tx, act, bill, supplier);
      else await this.query(tx, bill, supplier, input.note.trim());
      await this.activity.record(tx, act, {
        kind: 'bill',
        glyph: input.says === 'accept' ? 'full' : 'held',
        title: input.says === 'accept' ? `${code} posted as billed` : `${code} queried with ${supplier.name}`,
        detail: input.note.trim(),
        document: code,
        siteId,
      });
      return { code };
    });
  }

  private async query(tx: Tx, bill: BillRow, supplier: Row<'supplier'>, note: string): Promise<void> {
    if (note === '') throw badForm({ note: 'Say what is wrong with the bill' });
    if (!supplier.email) throw badForm({ note: `${supplier.name} has no mail address. Ring ${supplier.phone || 'them'}` });
    await this.outbox.send(
      tx,
      `mail:${supplier.email}`,
      'mail.bill-query',
      { to: supplier.email, supplier: supplier.name, ref: bill.ref, note },
      { document: bill.code },
    );
    await update(tx, 'bill', { id: bill.id }, { state: 'queried', note, version: NEXT });
  }

  private async write(tx: Tx, billId: number, supplier: Row<'supplier'>, input: EnterBillDto): Promise<void> {
    let n = 0;
    for (const g of input.goods) {
      const line = await one<{ id: number; supplierId: number }>(
        tx,
        `SELECT l.id, o.supplier_id AS supplierId FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.code = ? AND l.line = ? AND o.state <> 'draft'`,
        [g.order.toUpperCase(), g.line],
      );
      if (!line) throw badForm({ goods: `${g.order} has no line ${g.line}` });
      if (line.supplierId !== supplier.id) throw badForm({ goods: `${g.order} is not an order with ${supplier.name}` });
      await insert(tx, 'bill_line', { bill_id: billId, line: ++n, order_line_id: line.id, units: g.units, amount: g.amount });
    }
    for (const c of input.charges) {
      const order = await one<{ id: number }>(tx, `SELECT id FROM purchase_order WHERE code = ? AND state <> 'draft'`, [
        c.order.toUpperCase(),
      ]);
      if (!order) throw badForm({ charges: `There is no order ${c.order}` });
      await insert(tx, 'bill_line', {
        bill_id: billId,
        line: ++n,
        order_id: order.id,
        says: c.says.trim(),
        amount: c.amount,
        shared_by: c.by,
      });
    }
  }

  private async tolerance(tx: Tx) {
    return { percent: await this.settings.get(tx, 'billPercent'), amount: await this.settings.get(tx, 'billAmount') };
  }

  private async locked(tx: Tx, code: string): Promise<BillRow> {
    const bill = await one<BillRow>(
      tx,
      'SELECT id, code, supplier_id AS supplierId, ref, state, rate, version FROM bill WHERE code = ? FOR UPDATE',
      [code],
    );
    if (!bill) throw notFound(`Bill ${code}`);
    return bill;
  }

  private async post(tx: Tx, act: Act, bill: BillRow, supplier: Row<'supplier'>): Promise<void> {
    for (const line of await billLines(tx, bill.id)) {
      const layers = await receivedLayers(tx, line.orderId, line.orderLineId);
      if (layers.length === 0)
        throw badState(
          `Nothing of ${line.order}${line.orderLine ? `, line ${line.orderLine},` : ''} has come yet. Post the bill when it has`,
        );
      await this.postLine(tx, bill, supplier, line, layers);
    }
    await update(tx, 'bill', { id: bill.id }, { state: 'posted', posted_by: act.person.id, posted_at: NOW, version: NEXT });
  }

  /**
   * Clears what was put onto the goods when they came, and gives the difference to the goods still there and to the cost of
   * those that have gone. The difference is taken to the penny; what is less stays with what was cleared.
   */
  private async postLine(
    tx: Tx,
    bill: BillRow,
    supplier: Row<'supplier'>,
    line: BillLineRow,
    layers: readonly ReceivedLayer[],
  ): Promise<void> {
    const billed = micro(fractionText(atRate(fractionOf(line.amount), bill.rate), 2));
    const put = await this.putOn(tx, bill, line, layers);
    const difference = micro(fractionText({ num: billed - put, den: 1_000_000n }, 2));
    await this.entry(tx, bill, null, 'not billed yet', 'bills to pay', billed - difference);
    if (difference === 0n) return;
    const by = line.sharedBy ?? 'units';
    const late = layers.map(lateLine);
    const amount = fractionOf(decimalText(difference));
    const shares = lateShares(amount, by, late) ?? lateShares(amount, 'value', late) ?? lateShares(amount, 'units', late) ?? [];
    const says = `${line.orderLineId === null ? line.says : 'Price, by the bill'}, ${supplier.name} ${bill.ref}`;
    for (const [i, share] of shares.entries()) {
      const layer = layers[i];
      if (!layer || micro(share.share) === 0n) continue;
      await this.value.late(tx, layer, micro(share.share), micro(share.toStock), { says, document: bill.code });
      await this.entry(tx, bill, layer, 'stock', 'bills to pay', micro(share.toStock));
      await this.entry(tx, bill, layer, 'cost of goods', 'bills to pay', micro(share.toGone));
    }
  }

  /**
   * What the line's goods, or its charge, were taken in at; of goods so much as is billed. While goods of the order are still to
   * come, they will bring their part of a charge that the order promised, so that all of it counts as taken in.
   */
  private async putOn(tx: Tx, bill: BillRow, line: BillLineRow, layers: readonly ReceivedLayer[]): Promise<Micro> {
    if (line.orderLineId === null) {
      if (line.promised === null || micro(line.promised) <= 0n) return 0n;
      const home = (amount: string) => micro(fractionText(atRate(fractionOf(amount), bill.rate)));
      if (num(line.openUnits) > 0) return home(line.promised);
      const rest = micro(await putOnFor(tx, line.order, line.says)) - home(line.broughtBefore ?? '0');
      return rest > 0n ? rest : 0n;
    }
    const units = layers.reduce((sum, l) => sum + l.units, 0);
    const priced = layers.reduce((sum, l) => sum + micro(l.priced), 0n);
    return dividedBy(times(priced, Math.min(line.units ?? 0, units)), units);
  }

  private entry(tx: Tx, bill: BillRow, layer: ReceivedLayer | null, debit: Account, credit: Account, amount: Micro): Promise<void> {
    const about = { item_id: layer?.itemId ?? null, layer_id: layer?.id ?? null, bill_id: bill.id, document: bill.code };
    return enterValue(tx, about, debit, credit, amount);
  }
}

const lateLine = (l: ReceivedLayer): LateLine => ({
  units: l.units,
  left: l.left,
  value: fractionOf(l.priced),
  ...(l.unitG === null ? {} : { weight: whole(l.unitG * l.units) }),
  ...(l.unitMl === null ? {} : { volume: scaled(fractionOf(l.unitMl), l.units) }),
});

/** A bill is entered and settled by somebody who is at every site whose orders it is for. */
async function mustBeAtOrders(tx: Tx, act: Act, billId: number): Promise<number | null> {
  const sites = await rows<{ id: number }>(
    tx,
    `SELECT DISTINCT o.site_id AS id FROM bill_line b LEFT JOIN purchase_order_line l ON l.id = b.order_line_id JOIN purchase_order o ON o.id = COALESCE(l.order_id, b.order_id) WHERE b.bill_id = ?`,
    [billId],
  );
  for (const site of sites) mustBeAt(act.person, site.id);
  return sites[0]?.id ?? null;
}
