import { seeded } from '@vectrum/core/random';
import { checkReturns } from '../src/customer-returns/return-check.js';
import { checkInvoices } from '../src/invoicing/invoice-check.js';
import { actAs } from '../src/demo/morning.js';
import { inTransaction } from '../src/platform/database/tx.js';
import { checkLedger } from '../src/stock/ledger-check.js';
import { LedgerService } from '../src/stock/ledger.service.js';
import { type Caller, House, receipt } from './house.js';

const ACTS = 300;
const LOOKS_EVERY = 15;
const SKUS = ['SMK-LGE', 'BOK-LOG', 'VEIL-RND'] as const;
const SUPPLIERS = [['SMK-LGE', 'BRINDLEMOOR'], ['VEIL-RND', 'TINDRA']] as const; // prettier-ignore
const FATES = [['as-new', 'shelf'], ['opened', 'quarantine'], ['faulty', 'supplier'], ['damaged', 'scrap'], ['faulty', 'repair']] as const; // prettier-ignore

/** Whatever happens, in whatever order: the books agree with the goods, and nothing is invoiced twice or never. */
describe('the books at random', () => {
  let house: House;
  let maren: Caller;
  let next: () => number;
  const seed = 1;
  const orders: { code: string; lines: { id: number; itemId: number; line: number; left: number; units: number }[] }[] = [];
  const bought: { code: string; supplier: string; units: number; billed: number }[] = [];
  const counts: Record<string, number> = {};
  const today = new Date().toISOString().slice(0, 10);
  let bills = 0;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    next = seeded(seed);
    await house.source.query(
      `INSERT INTO currency (code, rate, as_of) VALUES ('EUR', 0.8437, '2026-01-01') ON DUPLICATE KEY UPDATE rate = 0.8437`,
    );
    await house.source.query(`INSERT INTO customer (code, name, currency) VALUES ('RATES', 'Rates & Co', 'EUR')`);
    await house.source.query(`UPDATE item SET tax_code = IF(sku = 'BOK-LOG', NULL, 'STD') WHERE sku IN (?)`, [SKUS]);
  });
  afterAll(() => house.close());

  const upTo = (n: number) => Math.floor(next() * n);
  const pick = <T>(list: readonly T[]): T | undefined => list[upTo(list.length)];
  const get = async <T>(path: string) => (await maren.get(path).expect(200)).body as T;

  /** What somebody may do next; each says whether there was anything to do it to. What the house refuses is refused whole. */
  const acts: Readonly<Record<string, () => Promise<unknown>>> = {
    async buy() {
      const sku = pick(SKUS)!;
      await house.source.query('UPDATE item SET cost = ? WHERE sku = ?', [(1 + upTo(900) / 97).toFixed(6), sku]);
      await house.stock(sku, 'A-01-1', 3 + upTo(30));
    },
    async receive() {
      const [sku, supplier] = pick(SUPPLIERS)!;
      const units = 2 + upTo(20);
      const lines = [{ sku, packs: units, factor: 1, price: (1 + upTo(900) / 97).toFixed(4) }];
      const charges = next() < 0.5 ? [{ says: 'Freight', amount: (upTo(3_000) / 100).toFixed(2), by: 'value' }] : [];
      const order = { supplier, siteId: 1, note: '', charges, lines };
      const { code } = (await maren.post('purchase-orders', order).expect(201)).body as { code: string };
      await maren.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
      const { lines: due } = await maren.task<{ lines: { lineId: number; itemId: number }[] }>('receive', code);
      const goods = { ...due[0], units: 1 + upTo(units), toPlaceId: await house.placeId('DOCK-1') };
      await maren.floor(receipt(code, { lineId: goods.lineId, itemId: goods.itemId, units: goods.units, toPlaceId: goods.toPlaceId })).expect(200); // prettier-ignore
      bought.push({ code, supplier, units: goods.units, billed: 0 });
    },
    async bill() {
      const order = pick(bought);
      if (!order) return;
      const amount = (0.01 + upTo(5_000) / 100).toFixed(2);
      const left = order.units - order.billed;
      const units = next() < 0.5 ? Math.min(left, 1 + upTo(left)) : 0;
      const made = await maren.post('bills', {
        supplier: order.supplier,
        ref: `R-${++bills}`,
        billedOn: today,
        note: '',
        goods: units > 0 ? [{ order: order.code, line: 1, units, amount }] : [],
        charges: units > 0 ? [] : [{ order: order.code, says: 'Late freight', amount, by: 'value' }],
      });
      // Refused where the goods' arrival has been taken back meanwhile.
      if (made.status === 409) return;
      expect(made.status).toBe(201);
      order.billed += units;
      const { code } = made.body as { code: string };
      const { state, version } = await get<{ state: string; version: number }>(`bills/${code}`);
      if (state !== 'differs' || next() < 0.3) return;
      const { status } = await maren.post(`bills/${code}/settle`, { says: 'accept', note: '' }, { 'if-match': `"${version}"` });
      expect([200, 409]).toContain(status);
    },
    async countDifference() {
      const sku = pick(SKUS)!;
      const [dock, itemId, act] = [await house.placeId('DOCK-1'), await house.itemId(sku), await actAs(house.source, 'Maren')];
      const [good] = await house.source.query<{ units: number }[]>(
        `SELECT units FROM balance WHERE item_id = ? AND place_id = ? AND stock_condition = 'good'`,
        [itemId, dock],
      );
      const there = Number(good?.units ?? 0);
      const isLess = there > 0 && next() < 0.5;
      const ledger = house.app.get(LedgerService);
      await inTransaction(house.source, async (tx) => {
        const other = await ledger.outside(tx, 'count-difference');
        const [fromPlaceId, toPlaceId] = isLess ? [dock, other] : [other, dock];
        const units = 1 + upTo(isLess ? there : 5);
        const movement = { itemId, lotId: 0, condition: 'good' as const, fromPlaceId, toPlaceId, units };
        await ledger.post(tx, act, [movement], { task: 'count', document: 'COUNTED' });
      });
    },
    async order() {
      const wanted = SKUS.filter(() => next() < 0.6).map((sku) => [sku, 1 + upTo(6)] as [string, number]);
      if (wanted.length === 0) return;
      for (const [sku, units] of wanted) await house.stock(sku, 'A-01-1', units);
      const code = await house.order(
        wanted,
        next() < 0.4 ? { account: 'RATES' } : { customer: pick(['One', 'Two', 'Three'])!, email: 'x@mail.example' },
      );
      await house.source.query('UPDATE sales_order_line l JOIN sales_order o ON o.id = l.order_id SET l.price = ? WHERE o.code = ?', [
        (upTo(9_000) / 37).toFixed(4),
        code,
      ]);
      const lines: { id: number; itemId: number; line: number; units: number }[] = await house.source.query(
        'SELECT l.id, l.item_id AS itemId, l.line, l.units FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE o.code = ? ORDER BY l.line',
        [code],
      );
      orders.push({ code, lines: lines.map((l) => ({ ...l, left: l.units })) });
    },
    async ship() {
      const order = pick(orders.filter((o) => o.lines.some((l) => l.left > 0)));
      const line = order && pick(order.lines.filter((l) => l.left > 0));
      if (!order || !line) return;
      const units = 1 + upTo(line.left);
      await house.shipped(order.code, line.line, units);
      line.left -= units;
    },
    async invoice() {
      const { rows } = await get<{ rows: { code: string; customer: string }[] }>('invoices/open?limit=500');
      const one = pick(rows);
      if (!one) return;
      const together = rows.filter((r) => r.customer === one.customer && (r.code === one.code || next() < 0.4)).map((r) => r.code);
      await maren
        .post('invoices', { orders: together, freight: (upTo(900) / 100).toFixed(2), discountPercent: String(upTo(12)) })
        .expect(201);
    },
    async credit() {
      const { rows } = await get<{ rows: { code: string; kind: string }[] }>('invoices?limit=500');
      const invoice = pick(rows.filter((r) => r.kind === 'invoice'));
      if (!invoice) return;
      const { lines } = await get<{ lines: { line: number; units: number; credited: number }[] }>(`invoices/${invoice.code}`);
      const line = pick(lines.filter((l) => l.units > l.credited));
      if (line)
        await maren
          .post(`invoices/${invoice.code}/credit`, {
            reason: 'At random',
            again: next() < 0.5,
            lines: [{ line: line.line, units: 1 + upTo(line.units - line.credited) }],
          })
          .expect(201);
    },
    async pay() {
      const { rows } = await get<{ rows: { code: string; kind: string }[] }>('invoices?limit=500&show=open');
      const says = [pick(rows), pick(rows)].map((r) => r?.code ?? 'on account').join(' and ');
      await maren.post('payments', { paidOn: today, amount: (0.01 + upTo(20_000) / 100).toFixed(2), says }).expect(201);
    },
    async payBack() {
      const { rows } = await get<{ rows: { id: number; takenBack?: boolean }[] }>('payments?limit=500');
      const payment = pick(rows);
      if (payment) await maren.post(`payments/${payment.id}/take-back`).expect(204);
    },
    async exchange() {
      const { rows } = await get<{ rows: { id: number; free: string; foreign: boolean; invoices: string[] }[] }>('payments?limit=500');
      const payment = pick(rows.filter((p) => p.foreign));
      if (!payment) return;
      if (Number(payment.free) > 0) await maren.post(`payments/${payment.id}/gain`).expect(200);
      // Refused where nothing of it is open any more.
      else await maren.post(`invoices/${payment.invoices[0]}/exchange-difference`);
    },
    async comeBack() {
      const order = pick(orders.filter((o) => o.lines.some((l) => l.left < l.units)));
      if (!order) return;
      const { code } = (await maren.post('customer-returns/open', { siteId: 1, order: order.code })).body as { code?: string };
      const { goods } = await maren.task<{ goods: { orderLineId: number; itemId: number; left: number }[] }>('come-back', code ?? '');
      const line = pick(goods.filter((g) => g.left > 0));
      const [cameAs, fate] = pick(FATES)!;
      if (!line) return;
      await maren
        .floor({
          kind: 'come-back',
          code,
          orderLineId: line.orderLineId,
          itemId: line.itemId,
          units: 1 + upTo(line.left),
          lot: null,
          number: null,
          cameAs,
          fate,
          note: '',
          how: 'scanned',
        })
        .expect(200);
    },
    async settle() {
      const { rows } = await get<{ rows: { code: string; state: string }[] }>('customer-returns?limit=500');
      const open = pick(rows.filter((r) => r.state === 'here'));
      if (!open) return;
      const { version, proposed, goodsBack } = await get<{
        version: number;
        proposed: { settlement: string } | null;
        goodsBack: { pieces: { id: number; fate: string; undone: boolean; givenBack: boolean }[] }[];
      }>(`customer-returns/${open.code}`);
      const repair = goodsBack.flatMap((l) => l.pieces).find((p) => p.fate === 'repair' && !p.undone && !p.givenBack);
      const headers = { 'if-match': `"${version}"` };
      if (repair && next() < 0.5)
        await maren.post(`customer-returns/${open.code}/pieces/${repair.id}/keep`, { fate: 'scrap' }, headers).expect(200);
      else if (proposed)
        await maren
          .post(`customer-returns/${open.code}/settle`, { settlement: proposed.settlement, why: 'At random', wentWith: 'fetched' }, headers)
          .expect(200);
    },
    async undo() {
      const { entries } = await get<{ entries: { id: number; undoable?: boolean; canUndo?: boolean }[] }>('tape?limit=10');
      const act = pick(entries);
      if (act) await maren.post(`tape/${act.id}/undo`);
    },
  };

  it(`agree with the goods after each of ${ACTS} acts, whatever they were`, async () => {
    const names = Object.keys(acts);
    const weighted = [...names, 'order', 'ship', 'ship', 'ship', 'invoice', 'comeBack', 'comeBack', 'settle', 'pay'];
    for (let i = 1; i <= ACTS; i++) {
      const name = pick(weighted)!;
      counts[name] = (counts[name] ?? 0) + 1;
      await acts[name]!();
      if (i % LOOKS_EVERY !== 0) continue;
      const findings = [
        ...(await checkLedger(house.source)),
        ...(await checkInvoices(house.source)),
        ...(await checkReturns(house.source)),
      ];
      expect({ after: i, name, findings }).toEqual({ after: i, name, findings: [] });
      const { stockWorth, stockAccount } = await get<{ stockWorth: string; stockAccount: string }>('journal/accounts');
      expect(stockWorth).toBe(stockAccount);
    }
    // Each kind of act was tried, or the seed shows nothing.
    expect(names.filter((n) => !counts[n])).toEqual([]);
  }, 120_000);

  it('leave nothing that was delivered and kept uninvoiced once all is invoiced', async () => {
    for (;;) {
      const { rows } = await get<{ rows: { code: string }[] }>('invoices/open?limit=500');
      if (rows.length === 0) break;
      for (const { code } of rows) await maren.post('invoices', { orders: [code] }).expect(201);
    }
    const [never] = await house.source.query<{ n: string }[]>(
      `SELECT COUNT(*) AS n FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id LEFT JOIN customer_return x ON x.exchange_order_id = o.id WHERE x.id IS NULL AND l.shipped_units >
         COALESCE((SELECT SUM(f.unbilled) FROM return_refund f WHERE f.order_line_id = l.id), 0)
         + COALESCE((SELECT SUM(IF(v.kind = 'invoice', CAST(i.units AS SIGNED), IF(v.reopens = 1, -CAST(i.units AS SIGNED), 0))) FROM invoice_line i JOIN invoice v ON v.id = i.invoice_id WHERE i.order_line_id = l.id), 0)`,
    );
    expect(Number(never?.n)).toBe(0);
  });
});
