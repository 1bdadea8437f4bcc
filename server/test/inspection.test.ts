import { type Caller, House, receipt } from './house.js';

interface Task {
  goods: { inspection: string; itemId: number; lotId: number; placeId: number; units: number; why: string; checks: { no: number }[] }[];
}
interface Sheet {
  code: string;
  passed: boolean | null;
  closedAt: string | null;
  waiting: { units: number; place: string }[];
  verdicts: { verdict: string; returnCode: string | null; undone: boolean }[];
}

describe('inspection', () => {
  let house: House;
  let dock: Caller;
  let buyer: Caller;
  let owner: Caller;
  let place: Record<'dock' | 'inspect' | 'apart' | 'shelf', number>;

  beforeAll(async () => {
    house = await House.open();
    [dock, buyer, owner] = await Promise.all([house.as('Ruben'), house.as('Piet'), house.as('Maren')]);
    const ids = await Promise.all(['DOCK-1', 'INSPECT-1', 'QUARANTINE-1', 'A-01-1'].map((code) => house.placeId(code)));
    place = { dock: ids[0]!, inspect: ids[1]!, apart: ids[2]!, shelf: ids[3]! };
  });
  afterAll(() => house.close());

  const rule = (body: object) => buyer.post('inspection-rules', { n: 1, kind: 'always', ...body });
  async function placed(sku: string, packs: number, factor: number, supplier = 'QUILLON'): Promise<string> {
    const body = { supplier, siteId: 1, note: '', lines: [{ sku, packs, factor, price: '10' }] };
    const { code } = (await buyer.post('purchase-orders', body).expect(201)).body as { code: string };
    await buyer.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    return code;
  }
  const opened = async (code: string) =>
    await dock.task<{
      lines: { lineId: number; itemId: number }[];
      inspect: Record<string, string>;
      inspection: { code: string };
    }>('receive', code);
  const take = async (code: string, units: number, more: object = {}) => {
    const line = (await opened(code)).lines[0];
    return dock.floor(
      receipt(code, {
        lineId: line?.lineId,
        itemId: line?.itemId,
        units,
        toPlaceId: place.inspect,
        how: 'scanned',
        ...more,
      }),
    );
  };
  /** A delivery of its own: ordered, taken in, closed. */
  async function delivery(sku: string, packs: number, factor: number, units = packs * factor): Promise<void> {
    const code = await placed(sku, packs, factor);
    const looked = Object.keys((await opened(code)).inspect).length > 0;
    expect((await take(code, units, { toPlaceId: looked ? place.inspect : place.dock })).status).toBe(200);
    await dock.floor({ kind: 'close-arrival', document: code, paper: '' }).expect(200);
  }
  const waiting = async (sku: string) => {
    const itemId = await house.itemId(sku);
    return (await dock.task<Task>('inspect', 1)).goods.filter((g) => g.itemId === itemId);
  };
  const judge = async (sku: string, units: number, verdict: string, reason = '') => {
    const goods = (await waiting(sku))[0]!;
    return dock.floor({
      kind: 'judge',
      inspection: goods.inspection,
      lotId: goods.lotId,
      placeId: goods.placeId,
      units,
      verdict,
      reason,
      how: 'scanned',
    });
  };
  const sheet = async (code: string) => (await dock.get(`inspections/${code}`).expect(200)).body as Sheet;
  const undo = (answer: { body: unknown }) => dock.post(`tape/${(answer.body as { activityId: number }).activityId}/undo`);

  it('holds goods until they have passed, and keeps them off the shelves', async () => {
    await rule({ sku: 'JAR-454-RD' }).expect(201);
    const code = await placed('JAR-454-RD', 2, 48);
    expect(Object.values((await opened(code)).inspect)).toEqual(['every delivery is looked at']);
    expect((await take(code, 48, { toPlaceId: place.shelf })).body).toMatchObject({ title: 'To be looked at first' });
    await take(code, 48);
    expect(await house.figures('JAR-454-RD')).toEqual({ onHand: 48, held: 48, reserved: 0 });
    expect(await waiting('JAR-454-RD')).toMatchObject([{ units: 48, why: 'every delivery is looked at', placeId: place.inspect }]);
    await take(code, 48);
    expect(await waiting('JAR-454-RD')).toMatchObject([{ units: 96 }]);
    expect((await judge('JAR-454-RD', 97, 'pass')).body).toMatchObject({ band: 'too-many', title: 'Only 2 trays wait here' });
    await judge('JAR-454-RD', 96, 'pass');
    expect(await house.figures('JAR-454-RD')).toEqual({ onHand: 96, held: 0, reserved: 0 });
    const away = await dock.task<{ goods: { fromCode: string; units: number }[] }>('store', 1);
    expect(away.goods).toContainEqual(expect.objectContaining({ fromCode: 'INSPECT-1', units: 96 }));
  });

  it('passes a part, sets a part aside and sends the rest back, and takes each of it back', async () => {
    await rule({ sku: 'JAR-340-HX' }).expect(201);
    await delivery('JAR-340-HX', 2, 48);
    const { inspection } = (await waiting('JAR-340-HX'))[0]!;
    await judge('JAR-340-HX', 50, 'pass').then((a) => expect(a.status).toBe(200));
    expect((await judge('JAR-340-HX', 40, 'quarantine')).body).toMatchObject({ title: 'Say why' });
    const aside = await judge('JAR-340-HX', 40, 'quarantine', 'scratched');
    const back = await judge('JAR-340-HX', 6, 'back', 'cracked');
    expect(await house.figures('JAR-340-HX')).toEqual({ onHand: 90, held: 40, reserved: 0 });
    expect(await sheet(inspection)).toMatchObject({
      passed: false,
      waiting: [],
      verdicts: [{ verdict: 'pass' }, { verdict: 'quarantine' }, { verdict: 'back' }],
    });
    const apart = (await buyer.get('supplier-returns/aside')).body as { sku: string; reason: string; order: string }[];
    expect(apart.find((a) => a.sku === 'JAR-340-HX')).toMatchObject({
      condition: 'held',
      units: 40,
      reason: 'scratched',
      supplierCode: 'QUILLON',
    });
    expect(JSON.stringify((await owner.get('now').expect(200)).body)).not.toContain('QUARANTINE-1');
    const card = (await buyer.get('suppliers/QUILLON').expect(200)).body as { scorecard: { unharmed: { good: number; of: number } } };
    expect(card.scorecard.unharmed.of - card.scorecard.unharmed.good).toBe(46);
    expect((await owner.get(`find?q=${inspection}`).expect(200)).body).toMatchObject({ opens: `/inbound/inspection/${inspection}` });
    await undo(back).expect(201);
    expect(await sheet(inspection)).toMatchObject({ passed: null, closedAt: null, waiting: [{ units: 6, place: 'INSPECT-1' }] });
    await undo(aside).expect(201);
    expect(await house.figures('JAR-340-HX')).toEqual({ onHand: 96, held: 46, reserved: 0 });
    expect((await undo(aside)).status).toBe(409);
  });

  it('does not pass before its checklist is answered', async () => {
    const checks = [
      { says: 'Threads clean', kind: 'yes', unit: '' },
      { says: 'Outer width', kind: 'measure', unit: 'mm', low: '62.5', high: '63.5' },
    ];
    const { id } = (await buyer.post('checklists', { name: 'Lids', checks }).expect(201)).body as { id: number };
    await rule({ sku: 'LID-63-GD', checklistId: id }).expect(201);
    await buyer.delete(`checklists/${id}`).expect(409);
    await delivery('LID-63-GD', 1, 1000);
    const { inspection } = (await waiting('LID-63-GD'))[0]!;
    expect((await judge('LID-63-GD', 1000, 'pass')).body).toMatchObject({ title: '2 of 2 checks open' });
    await dock.floor({ kind: 'check', inspection: inspection, no: 1, value: 'yes' }).expect(200);
    expect((await dock.floor({ kind: 'check', inspection: inspection, no: 2, value: 'wide' })).body).toMatchObject({
      detail: 'Type a number in mm',
    });
    await dock.floor({ kind: 'check', inspection: inspection, no: 2, value: '64' }).expect(200);
    expect((await judge('LID-63-GD', 1000, 'pass')).body).toMatchObject({ title: 'A check was not fulfilled' });
    await dock.floor({ kind: 'check', inspection: inspection, no: 2, value: '63.1' }).expect(200);
    // The list may change; what waits keeps the list it came with.
    await buyer
      .put(`checklists/${id}`, { name: 'Lids', checks: [{ says: 'New', kind: 'yes', unit: '' }] }, { 'if-match': '"1"' })
      .expect(200);
    await judge('LID-63-GD', 1000, 'pass').then((a) => expect(a.status).toBe(200));
    expect((await sheet(inspection)).passed).toBe(true);
  });

  it('looks at the first, then at every second delivery, and at the one after a failure', async () => {
    await rule({ sku: 'JAR-227-RD', kind: 'every', n: 2 }).expect(201);
    await delivery('JAR-227-RD', 1, 48);
    await judge('JAR-227-RD', 48, 'pass');
    await delivery('JAR-227-RD', 1, 48);
    expect(await waiting('JAR-227-RD')).toEqual([]);
    await delivery('JAR-227-RD', 1, 48);
    expect((await waiting('JAR-227-RD'))[0]?.why).toBe('every 2nd delivery is looked at');
    await judge('JAR-227-RD', 48, 'quarantine', 'chipped');
    await delivery('JAR-227-RD', 1, 48);
    expect((await waiting('JAR-227-RD'))[0]?.why).toBe('the last one looked at did not pass');
  });

  it('stops once the goods are proven', async () => {
    await rule({ sku: 'JAR-042-MI', supplier: 'QUILLON', kind: 'until-proven', n: 1 }).expect(201);
    await delivery('JAR-042-MI', 1, 72);
    await judge('JAR-042-MI', 72, 'pass');
    await delivery('JAR-042-MI', 1, 72);
    expect(await waiting('JAR-042-MI')).toEqual([]);
    expect(await house.figures('JAR-042-MI')).toMatchObject({ onHand: 144, held: 0 });
  });

  it('leaves damaged goods damaged and lets two judge at once without judging twice', async () => {
    await delivery('JAR-454-RD', 1, 48);
    const answers = await Promise.all([judge('JAR-454-RD', 48, 'pass'), judge('JAR-454-RD', 48, 'pass')]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
    const code = await placed('JAR-454-RD', 1, 48);
    await take(code, 2, { condition: 'damaged', toPlaceId: place.apart });
    expect(await waiting('JAR-454-RD')).toEqual([]);
  });

  it('keeps one rule for the same goods, and says what is wrong with one', async () => {
    expect((await rule({ sku: 'JAR-454-RD' })).body).toMatchObject({
      fields: { sku: 'There is a rule for these already. Change that one' },
    });
    expect((await rule({})).body).toMatchObject({ fields: { sku: 'Name an item, a supplier, or both' } });
    expect((await rule({ sku: 'NOPE' })).body).toMatchObject({ fields: { sku: 'There is no item NOPE' } });
    const bounds = { name: 'X', checks: [{ says: 'Wall', kind: 'measure', unit: 'mm', low: '2', high: '1' }] };
    expect((await buyer.post('checklists', bounds)).status).toBe(400);
    await dock.post('inspection-rules', { sku: 'JAR-454-RD', kind: 'always', n: 1 }).expect(403);
    const [first] = (await buyer.get('inspection-rules')).body as { id: number; version: number; sku: string }[];
    await buyer.put(`inspection-rules/${first!.id}`, { sku: first!.sku, kind: 'every', n: 4 }, { 'if-match': '"9"' }).expect(412);
    await buyer
      .put(`inspection-rules/${first!.id}`, { sku: first!.sku, kind: 'every', n: 4 }, { 'if-match': `"${first!.version}"` })
      .expect(200);
    await buyer.delete(`inspection-rules/${first!.id}`).expect(200);
  });

  it('takes goods that stood apart into stock by decision, at what such goods are worth', async () => {
    const code = await placed('JAR-454-RD', 1, 48);
    const apart = { lineId: null, itemId: await house.itemId('SMK-LGE'), as: 'apart', reason: 'wrong goods', toPlaceId: place.apart };
    await take(code, 3, apart);
    const pool = async () =>
      (
        await house.source.query<{ units: number; value: string }[]>(
          `SELECT c.units, c.value FROM cost_pool c JOIN item i ON i.id = c.item_id WHERE i.sku = 'SMK-LGE'`,
        )
      )[0];
    expect(await pool()).toBeUndefined();
    const goods = { itemId: apart.itemId, lotId: 0, condition: 'apart', placeId: place.apart, units: 2, reason: 'we keep them' };
    await dock.post('supplier-returns/aside/take-in', goods).expect(403);
    const taken = await owner.post('supplier-returns/aside/take-in', goods).expect(200);
    expect(await house.figures('SMK-LGE')).toMatchObject({ onHand: 3, held: 1 });
    expect((await pool())?.units).toBe(2);
    await owner.post(`tape/${(taken.body as { activityId: number }).activityId}/undo`).expect(201);
    expect(await house.figures('SMK-LGE')).toMatchObject({ onHand: 3, held: 3 });
    expect((await pool())?.units).toBe(0);
    await owner.post('supplier-returns/aside/take-in', { ...goods, units: 4 }).expect(409);
  });
});
