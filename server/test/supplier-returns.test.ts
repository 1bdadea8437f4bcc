import { actAs } from '../src/demo/morning.js';
import { inTransaction } from '../src/platform/database/tx.js';
import { LedgerService } from '../src/stock/ledger.service.js';
import { type Caller, House, receipt } from './house.js';

interface Aside {
  itemId: number;
  sku: string;
  lotId: number;
  condition: string;
  placeId: number;
  units: number;
  supplierCode: string | null;
}

describe('goods that go back to their supplier', () => {
  let house: House;
  let buyer: Caller;
  let dock: Caller;
  let books: Caller;
  let apartId: number;
  let dockId: number;

  beforeAll(async () => {
    house = await House.open();
    [buyer, dock, books] = await Promise.all([house.as('Piet'), house.as('Ruben'), house.as('Beth')]);
    [apartId, dockId] = await Promise.all([house.placeId('QUARANTINE-1'), house.placeId('DOCK-1')]);
  });
  afterAll(() => house.close());

  async function came(sku: string, units: number, more: object): Promise<string> {
    const line = { sku, packs: 1, factor: 48, price: '20.16' };
    const made = await buyer.post('purchase-orders', { supplier: 'QUILLON', siteId: 1, note: '', lines: [line] }).expect(201);
    const { code } = made.body as { code: string };
    await buyer.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    const task = await dock.task<{ lines: { lineId: number; itemId: number }[] }>('receive', code);
    const goods = { lineId: task.lines[0]!.lineId, itemId: task.lines[0]!.itemId, units, toPlaceId: apartId, how: 'scanned', ...more };
    await dock.floor(receipt(code, goods)).expect(200);
    return code;
  }
  const aside = async () => (await buyer.get('supplier-returns/aside').expect(200)).body as Aside[];
  const lineOf = ({ itemId, lotId, condition, placeId, units }: Aside) => ({ itemId, lotId, condition, placeId, units });
  const send = (lines: object[], more: object = {}) =>
    buyer.post('supplier-returns', { supplier: 'QUILLON', siteId: 1, reason: 'broken on arrival', lines, ...more });
  const sheet = async (code: string, who = buyer) =>
    (await who.get(`supplier-returns/${code}`).expect(200)).body as { state: string; version: number; expected?: string };
  const entries = (code: string): Promise<{ debit: string; credit: string; amount: string }[]> =>
    house.source.query('SELECT debit, credit, amount FROM value_entry WHERE document = ? ORDER BY id', [code]);

  it('stand apart until then, with what is known of how they came', async () => {
    const code = await came('JAR-454-RD', 12, { condition: 'damaged' });
    await came('JAR-340-HX', 5, { lineId: null, itemId: await house.itemId('SMK-LGE'), as: 'apart', reason: 'wrong goods' });
    expect(await aside()).toMatchObject([
      { sku: 'JAR-454-RD', condition: 'damaged', units: 12, words: '12 jars', supplierCode: 'QUILLON', order: code, place: 'QUARANTINE-1' },
      { sku: 'SMK-LGE', condition: 'apart', units: 5, supplierCode: 'QUILLON', order: null, reason: 'wrong goods' },
    ]);
  });

  it('are not what a picker missed in a bin: that waits to be counted', async () => {
    const act = await actAs(house.source, 'Maren');
    const ledger = house.app.get(LedgerService);
    const [itemId, toPlaceId] = [await house.itemId('TOOL-JH'), await house.placeId('A-05-1')];
    await inTransaction(house.source, async (tx) => {
      const missed = {
        itemId,
        lotId: 0,
        condition: 'held' as const,
        fromPlaceId: await ledger.outside(tx, 'count-difference'),
        toPlaceId,
        units: 2,
      };
      await ledger.post(tx, act, [missed], { task: 'pick', document: null });
    });
    expect((await aside()).some((g) => g.sku === 'TOOL-JH')).toBe(false);
  });

  it('leave stock at once, with a note by mail and the credit that is expected', async () => {
    const all = await aside();
    const { code } = (await send(all.map(lineOf)).expect(201)).body as { code: string };
    expect(await sheet(code)).toMatchObject({
      state: 'sent',
      expected: '5.04',
      goods: [{ words: '12 jars', expected: '5.040000' }, { expected: '0.000000' }],
    });
    expect(await aside()).toEqual([]);
    expect(await house.figures('JAR-454-RD')).toEqual({ onHand: 0, held: 0, reserved: 0 });
    expect((await house.outbox('mail.supplier-return')).at(-1)).toMatchObject({ code });
    expect((await buyer.bytes(`supplier-returns/${code}/pdf`).expect(200)).body).toBeInstanceOf(Buffer);
    expect((await sheet(code, dock)).expected).toBeUndefined();
  });

  it('can be taken back until the credit has come', async () => {
    await came('JAR-227-RD', 4, { condition: 'damaged' });
    const { code } = (await send((await aside()).map(lineOf)).expect(201)).body as { code: string };
    const tape = ((await buyer.get('tape?limit=3')).body as { entries: { id: number; title: string }[] }).entries;
    await buyer.post(`tape/${tape.find((e) => e.title.startsWith(code))!.id}/undo`).expect(201);
    expect(await sheet(code)).toMatchObject({ state: 'taken back' });
    expect(await aside()).toMatchObject([{ sku: 'JAR-227-RD', units: 4 }]);
    expect(
      await house.source.query<object[]>('SELECT value FROM cost_pool p JOIN item i ON i.id = p.item_id WHERE i.sku = ?', ['JAR-227-RD']),
    ).toEqual([{ value: '1.680000' }]);
  });

  it('are credited: what the note gives beyond their worth is a gain, what it lacks a loss', async () => {
    const { code } = (await send((await aside()).map(lineOf)).expect(201)).body as { code: string };
    const { version } = await sheet(code);
    await buyer.post(`supplier-returns/${code}/credit`, { ref: 'CN-1', amount: '1.50' }, { 'if-match': `"${version}"` }).expect(403);
    await books.post(`supplier-returns/${code}/credit`, { ref: 'CN-1', amount: 'much' }, { 'if-match': `"${version}"` }).expect(400);
    await books.post(`supplier-returns/${code}/credit`, { ref: 'CN-1', amount: '1.50' }, { 'if-match': `"${version}"` }).expect(200);
    expect(await sheet(code)).toMatchObject({ state: 'credited', creditRef: 'CN-1', credited: '1.50' });
    expect(await entries(code)).toEqual([
      { debit: 'not billed yet', credit: 'stock', amount: '1.680000' },
      { debit: 'bills to pay', credit: 'not billed yet', amount: '1.680000' },
      { debit: 'cost of goods', credit: 'bills to pay', amount: '0.180000' },
    ]);
    await books.post(`supplier-returns/${code}/credit`, { ref: 'CN-2', amount: '1' }, { 'if-match': `"${version + 1}"` }).expect(409);
    const tape = ((await buyer.get('tape?limit=9')).body as { entries: { id: number; title: string }[] }).entries;
    const line = tape.find((e) => e.title.startsWith(`${code}: goods`))!;
    expect((await buyer.post(`tape/${line.id}/undo`).expect(409)).body).toMatchObject({
      detail: expect.stringContaining('credited') as string,
    });
  });

  it('are refused where they do not stand, and nothing leaves', async () => {
    await house.stock('LID-63-GD', 'DOCK-1', 10);
    const lids = { itemId: await house.itemId('LID-63-GD'), lotId: 0, condition: 'good', placeId: dockId, units: 11 };
    expect((await send([lids]).expect(409)).body).toMatchObject({ code: 'stock' });
    await send([{ ...lids, units: 1, placeId: await house.placeId('QUAY-DOCK') }]).expect(400);
    await send([], {}).expect(400);
    await send([lids], { reason: '' }).expect(400);
    await send([lids], { supplier: 'NOBODY' }).expect(400);
    expect(await house.balance('LID-63-GD', 'DOCK-1')).toBe(10);
    await dock.post('supplier-returns', { supplier: 'QUILLON', siteId: 1, reason: 'x', lines: [lids] }).expect(403);
  });

  it('may be good stock too: those who wait for it lose their promise', async () => {
    const order = await house.order([['LID-63-GD', 8]]);
    const lids = { itemId: await house.itemId('LID-63-GD'), lotId: 0, condition: 'good', placeId: dockId, units: 6 };
    await send([lids]).expect(201);
    const reserved = ((await buyer.get(`orders/${order}`)).body as { lines: { reserved: number }[] }).lines[0]!.reserved;
    expect(reserved).toBe(4);
  });

  it('can be chosen from all that an arrival brought, from the shelves too, and no more than came with it', async () => {
    const shelf = await house.placeId('A-01-1');
    await house.stock('JAR-042-MI', 'A-01-1', 500);
    const code = await came('JAR-227-RD', 30, { toPlaceId: shelf });
    const { arrivals } = (await buyer.get(`purchase-orders/${code}`).expect(200)).body as { arrivals: string[] };
    const goods = (await buyer.get(`supplier-returns/of-arrival/${arrivals[0]!}`).expect(200)).body as Aside[];
    expect(goods).toMatchObject([
      { sku: 'JAR-227-RD', condition: 'good', units: 30, place: 'A-01-1', order: code, supplierCode: 'QUILLON' },
    ]);
    await house.stock('JAR-227-RD', 'A-01-1', 70);
    const broken = await came('JAR-227-RD', 4, { condition: 'damaged' });
    const of = ((await buyer.get(`purchase-orders/${broken}`)).body as { arrivals: string[] }).arrivals[0]!;
    expect((await buyer.get(`supplier-returns/of-arrival/${of}`)).body).toMatchObject([
      { condition: 'damaged', units: 4, place: 'QUARANTINE-1' },
    ]);
    expect(((await buyer.get(`supplier-returns/of-arrival/${arrivals[0]!}`)).body as Aside[])[0]?.units).toBe(30);
    const before = await house.figures('JAR-227-RD');
    const sent = (await send(goods.map(lineOf)).expect(201)).body as { code: string };
    expect(await sheet(sent.code)).toMatchObject({ state: 'sent', expected: '12.60' });
    expect((await house.figures('JAR-227-RD')).onHand).toBe(before.onHand - 30);
    await buyer.get('supplier-returns/of-arrival/A-9999').expect(404);
  });
});
