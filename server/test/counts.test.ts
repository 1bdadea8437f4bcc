import type { TallyTask } from '@vectrum/core/scan';
import { type Caller, House } from './house.js';

interface Line {
  id: number;
  place: string;
  sku: string;
  state: string;
  counted: number | null;
  expected: number | null;
  cameIn: number;
  wentOut: number;
  isWithin: boolean;
  says: string;
  causes: { kind: string; says: string; canMove: boolean }[];
  earlier: { by: string; units: number }[];
}
interface Review {
  rows: Line[];
  lines: number;
  off: number;
  beyond: number;
  undecided: number;
  accuracy: number | null;
}
interface Count {
  code: string;
  state: string;
  version: number;
  bins: number;
  binsDone: number;
  binRows: { placeId: number; code: string; person: string | null; begunBy: string | null; state: string }[];
  codes: { id: number; code: string; units: number }[];
}

let house: House;
let maren: Caller;
let joss: Caller;
let ines: Caller;
beforeAll(async () => {
  house = await House.open();
  maren = await house.as('Maren');
  joss = await house.as('Joss');
  ines = await house.as('Ines');
});
afterAll(() => house.close());

const draw = (more: object) => ({ siteId: 1, by: 'bins', words: [], most: 100, title: '', blind: true, scanEach: false, ...more });
const one = async (code: string) => (await maren.get(`counts/${code}`).expect(200)).body as Count;
const review = async (code: string, shows = 'all') => (await maren.get(`counts/${code}/review?shows=${shows}`).expect(200)).body as Review;
const act = async (code: string, what: string, body: object = {}, who = maren) =>
  who.post(`counts/${code}/${what}`, body, { 'if-match': `"${(await one(code)).version}"` });
/** A count of bins, open to phones. */
const opened = async (words: string[], more: object = {}) => {
  const { code } = (await maren.post('counts', draw({ words, ...more })).expect(201)).body as { code: string };
  await ok(act(code, 'open'), 200);
  return code;
};
/** The answer, once its status is as it should be. */
async function ok(asked: Promise<{ status: number; body: unknown }>, status = 200) {
  const answer = await asked;
  expect([answer.status, status === answer.status ? '' : answer.body]).toEqual([status, '']);
  return answer;
}
const said = (answer: { body: unknown }) => (answer.body as { detail: string }).detail;

async function tally(
  code: string,
  place: string,
  sku: string,
  units: number,
  more: object = {},
  who = joss,
  sent: object = {},
  headers = {},
) {
  const [placeId, itemId] = [await house.placeId(place), await house.itemId(sku)];
  const command = {
    kind: 'tally',
    document: code,
    placeId,
    itemId,
    lot: null,
    expires: null,
    isDamaged: false,
    units,
    isLast: false,
    agoMs: 0,
    how: 'scanned',
    ...more,
  };
  return who.floor(command, sent, headers);
}
const done = async (code: string, place: string, who = joss) =>
  who.floor({ kind: 'tally-bin', document: code, placeId: await house.placeId(place), how: 'scanned' });
const store = async (sku: string, from: string, to: string, units: number, sent: object = {}, headers = {}) =>
  ines.floor(
    {
      kind: 'store',
      itemId: await house.itemId(sku),
      lotId: 0,
      units,
      fromPlaceId: await house.placeId(from),
      toPlaceId: await house.placeId(to),
      how: 'scanned',
    },
    sent,
    headers,
  );

describe('a count', () => {
  it('is drawn up, shared, counted blind, reviewed and booked, with undo', async () => {
    await house.stock('TOOL-JH', 'A-02-1', 40);
    await house.stock('TOOL-JH', 'A-02-2', 6);
    const shown = (await maren.post('counts/preview', draw({ words: ['A-02-1', 'A-02-2'] })).expect(200)).body as {
      bins: number;
      elsewhere: object[];
    };
    expect(shown).toMatchObject({ bins: 2, elsewhere: [] });
    const { code } = (await maren.post('counts', draw({ words: ['A-02-1', 'A-02-2'] })).expect(201)).body as { code: string };
    expect(said(await ok(tally(code, 'A-02-1', 'TOOL-JH', 3), 409))).toContain('not open yet');
    expect(said(await maren.post('counts', draw({ words: ['A-02-1'] })).expect(400))).toBeTruthy();
    await ok(act(code, 'share', { personIds: [joss.personId] }), 200);
    await ok(act(code, 'open'), 200);
    const task = await joss.task<TallyTask>('tally', code);
    const listed = task.bins.find((b) => b.code === 'A-02-1')!;
    expect(listed).toMatchObject({ isMine: true, state: 'open' });
    expect(listed.lines.every((l) => l.booked === null && l.counted === null)).toBe(true);
    expect((await ines.task<TallyTask>('tally', code)).bins.every((b) => !b.isMine)).toBe(true);
    await ok(tally(code, 'A-02-1', 'TOOL-JH', 35, {}, ines), 409);
    await ok(tally(code, 'A-02-1', 'TOOL-JH', 35), 200);
    await ok(tally(code, 'A-02-1', 'TOOL-JH', 37), 200);
    expect((await one(code)).binRows.find((b) => b.code === 'A-02-1')).toMatchObject({
      state: 'begun',
      begunBy: expect.stringContaining('Joss'),
    });
    await ok(done(code, 'A-02-1'), 200);
    await ok(tally(code, 'A-02-2', 'TOOL-JH', 6, { isLast: true }), 200);
    expect(await one(code)).toMatchObject({ state: 'open', binsDone: 2 });
    await ok(act(code, 'close', { leaveOut: false }), 200);
    const found = await review(code, 'off');
    expect(found.rows.filter((l) => l.sku === 'TOOL-JH')).toMatchObject([
      { place: 'A-02-1', counted: 37, expected: 40, isWithin: false, state: 'counted' },
    ]);
    // The line that is as the books say is settled by itself.
    expect((await review(code)).rows.find((l) => l.place === 'A-02-2' && l.sku === 'TOOL-JH')).toMatchObject({ state: 'accepted' });
    for (const l of found.rows.filter((x) => x.sku !== 'TOOL-JH'))
      await ok(act(code, 'discard', { lineIds: [l.id], reason: 'not of this test' }), 200);
    await ok(act(code, 'accept', { lineIds: [found.rows.find((l) => l.sku === 'TOOL-JH')!.id] }), 200);
    expect(await house.balance('TOOL-JH', 'A-02-1')).toBe(37);
    expect((await one(code)).state).toBe('closed');
    const [entry] = await house.source.query<{ id: number }[]>(`SELECT id FROM activity WHERE kind = 'count-lines' AND document = ?`, [
      code,
    ]);
    await maren.post(`tape/${entry!.id}/undo`).expect(201);
    expect(await house.balance('TOOL-JH', 'A-02-1')).toBe(40);
    expect((await one(code)).state).toBe('review');
    await ok(act(code, 'drop', { reason: 'only tried' }), 200);
  });

  it('follows what moves while it is counted and until it is booked', async () => {
    await house.stock('SMK-LGE', 'B-01-1', 20);
    await house.stock('SMK-LGE', 'DOCK-1', 10);
    const code = await opened(['B-01-1']);
    // Counted 18 of 20: two are missing. Then five more come in, before anybody decides.
    await ok(tally(code, 'B-01-1', 'SMK-LGE', 18, { isLast: true }), 200);
    await ok(store('SMK-LGE', 'DOCK-1', 'B-01-1', 5), 200);
    await ok(act(code, 'close', { leaveOut: false }), 200);
    const line = (await review(code)).rows.find((l) => l.sku === 'SMK-LGE')!;
    expect(line).toMatchObject({ counted: 18, expected: 20, cameIn: 5, wentOut: 0 });
    await ok(act(code, 'accept', { lineIds: [line.id] }), 200);
    expect(await house.balance('SMK-LGE', 'B-01-1')).toBe(23);
  });

  it('reckons with what a phone without a network tells later, before and after the count is booked', async () => {
    await house.stock('HIV-EKE', 'B-01-2', 30);
    await house.stock('HIV-EKE', 'DOCK-1', 8);
    const before = new Date(Date.now() - 60_000).toISOString();
    const clock = () => ({ 'device-time': new Date().toISOString() });
    const code = await opened(['B-01-2']);
    // Three were brought a minute ago, and four more; only the first is told before the count is booked.
    await ok(tally(code, 'B-01-2', 'HIV-EKE', 37, { isLast: true }), 200);
    await ok(store('HIV-EKE', 'DOCK-1', 'B-01-2', 3, { madeAt: before, late: true }, clock()), 200);
    await ok(act(code, 'close', { leaveOut: false }), 200);
    const line = (await review(code)).rows.find((l) => l.sku === 'HIV-EKE')!;
    expect(line).toMatchObject({ counted: 37, expected: 33, cameIn: 0 });
    await ok(act(code, 'accept', { lineIds: [line.id] }), 200);
    expect(await house.balance('HIV-EKE', 'B-01-2')).toBe(37);
    await ok(store('HIV-EKE', 'DOCK-1', 'B-01-2', 4, { madeAt: before, late: true }, clock()), 200);
    expect(await house.balance('HIV-EKE', 'B-01-2')).toBe(37);
    expect(await house.balance('HIV-EKE', 'DOCK-1')).toBe(1);
  });

  it('proposes the neighbour that has as many more, and books the move that puts both right', async () => {
    await house.stock('JAR-454-RD', 'B-02-1', 48);
    const code = await opened(['B-02-1', 'B-02-2']);
    await ok(tally(code, 'B-02-1', 'JAR-454-RD', 36, { isLast: true }), 200);
    await ok(tally(code, 'B-02-2', 'JAR-454-RD', 12, { isLast: true }), 200);
    await ok(act(code, 'close', { leaveOut: false }), 200);
    const under = (await review(code, 'off')).rows.find((l) => l.place === 'B-02-1' && l.sku === 'JAR-454-RD')!;
    expect(under.causes[0]).toMatchObject({ kind: 'neighbour', canMove: true });
    await ok(act(code, `lines/${under.id}/move`), 200);
    expect([await house.balance('JAR-454-RD', 'B-02-1'), await house.balance('JAR-454-RD', 'B-02-2')]).toEqual([36, 12]);
    expect((await review(code, 'off')).rows.filter((l) => l.sku === 'JAR-454-RD')).toEqual([]);
  });

  it('is counted again by somebody else, and not decided on by who counted it', async () => {
    await house.stock('SUIT-M', 'B-03-1', 10);
    const code = await opened(['B-03-1']);
    await ok(tally(code, 'B-03-1', 'SUIT-M', 4, { isLast: true }, maren), 200);
    await ok(act(code, 'close', { leaveOut: false }), 200);
    const line = (await review(code, 'off')).rows.find((l) => l.sku === 'SUIT-M')!;
    const refused = await ok(act(code, 'accept', { lineIds: [line.id] }), 403);
    expect(said(refused)).toContain('You counted B-03-1 yourself');
    await ok(act(code, 'again', { lineIds: [line.id] }), 200);
    expect((await tally(code, 'B-03-1', 'SUIT-M', 4, { isLast: true }, maren)).status).toBe(409);
    await ok(tally(code, 'B-03-1', 'SUIT-M', 10, { isLast: true }), 200);
    expect((await review(code)).rows.find((l) => l.id === line.id)).toMatchObject({ counted: 10, expected: 10, earlier: [{ units: 4 }] });
    await ok(act(code, 'accept', { lineIds: [line.id] }), 200);
    expect((await one(code)).state).toBe('closed');
  });

  it('finds for whoever waits other goods than those that are not there', async () => {
    await house.stock('VEIL-RND', 'B-04-1', 5);
    await house.stock('VEIL-RND', 'B-04-2', 5);
    const order = await house.order([['VEIL-RND', 5]]);
    const round = await house.release(order);
    const stops = async () => (await ines.task<{ stops: { placeCode: string; units: number; short: number }[] }>('pick', round)).stops;
    const bin = (await stops())[0]!.placeCode;
    const code = await opened([bin]);
    await ok(done(code, bin), 200);
    await ok(act(code, 'close', { leaveOut: false }), 200);
    const line = (await review(code, 'off')).rows.find((l) => l.sku === 'VEIL-RND')!;
    await ok(act(code, 'accept', { lineIds: [line.id] }), 200);
    expect(await house.balance('VEIL-RND', bin)).toBe(0);
    expect((await stops()).filter((s) => s.placeCode !== bin && s.units > s.short).reduce((n, s) => n + s.units, 0)).toBe(5);
  });

  it('takes in lots and numbers that nobody knew, damaged goods apart, and codes for the office', async () => {
    await house.stock('SYR-05', 'B-05-1', 12, { code: 'L1', expires: '2027-06-01' });
    const code = await opened(['B-05-1']);
    expect((await tally(code, 'B-05-1', 'SYR-05', 3)).status).toBe(409);
    await ok(tally(code, 'B-05-1', 'SYR-05', 10, { lot: 'L1' }), 200);
    await ok(tally(code, 'B-05-1', 'SYR-05', 2, { lot: 'L2', expires: '2027-09-01' }), 200);
    await ok(tally(code, 'B-05-1', 'SYR-05', 1, { lot: 'L1', isDamaged: true }), 200);
    await joss
      .floor({
        kind: 'tally-code',
        document: code,
        placeId: await house.placeId('B-05-1'),
        code: '4099999999999',
        units: 2,
        how: 'scanned',
      })
      .expect(200);
    await ok(done(code, 'B-05-1'), 200);
    await ok(act(code, 'close', { leaveOut: false }), 200);
    const rows = (await review(code)).rows.filter((l) => l.sku === 'SYR-05');
    await ok(act(code, 'accept', { lineIds: rows.filter((l) => l.state === 'counted').map((l) => l.id) }), 200);
    expect((await one(code)).state).toBe('review');
    const unknown = (await one(code)).codes[0]!;
    expect(unknown).toMatchObject({ units: 2 });
    await ok(act(code, `codes/${unknown.id}`, { sku: 'TOOL-JH', factor: 3 }), 200);
    const tube = (await review(code, 'undecided')).rows.find((l) => l.sku === 'TOOL-JH')!;
    expect(tube).toMatchObject({ counted: 6, expected: 0 });
    await ok(act(code, 'discard', { lineIds: [tube.id], reason: 'a sample' }), 200);
    for (const l of (await review(code, 'undecided')).rows)
      await ok(act(code, 'discard', { lineIds: [l.id], reason: 'not of this test' }), 200);
    const goods = await house.source.query<{ lot: string; is: string; units: number }[]>(
      `SELECT t.code AS lot, b.stock_condition AS \`is\`, b.units FROM balance b JOIN lot t ON t.id = b.lot_id JOIN place p ON p.id = b.place_id WHERE p.code = 'B-05-1' AND b.units > 0 ORDER BY t.code, b.stock_condition`,
    );
    expect(goods).toEqual([
      { lot: 'L1', is: 'damaged', units: 1 },
      { lot: 'L1', is: 'good', units: 10 },
      { lot: 'L2', is: 'good', units: 2 },
    ]);
    expect((await one(code)).state).toBe('closed');
  });

  it('keeps what comes after counting is over as a question', async () => {
    const code = await opened(['B-06-1']);
    await ok(done(code, 'B-06-1'), 200);
    await ok(act(code, 'close', { leaveOut: false }), 200);
    const late = await tally(code, 'B-06-1', 'TOOL-JH', 3, {}, joss, { late: true });
    expect([late.status, (late.body as { code: string }).code]).toEqual([409, 'late']);
    const questions = (await joss.get('floor/questions').expect(200)).body as { what: string }[];
    expect(questions.some((q) => q.what.includes('B-06-1'))).toBe(true);
  });

  it('knows rules by company, class and item, tries them on past counts, and draws up what is due', async () => {
    const rule = (await maren.post('count-rules', { units: 2, intervalDays: 30 }).expect(201)).body as { id: number };
    await maren.post('count-rules', { units: 5 }).expect(400);
    await maren.post('count-rules', { sku: 'NOPE', units: 5 }).expect(400);
    await maren.post('count-rules', { sku: 'SMK-LGE', value: '1.50' }).expect(201);
    const tried = (await maren.post('count-rules/try', { units: 3 }).expect(200)).body as { lines: number; withinNow: number };
    expect(tried.lines).toBeGreaterThan(3);
    expect(tried.withinNow).toBeGreaterThan(0);
    expect(((await maren.get('sites/1/count-choices').expect(200)).body as { due: number }).due).toBeGreaterThan(0);
    const plan = (await maren.post('counts/preview', draw({ by: 'plan', most: 5 })).expect(200)).body as { goods: number };
    expect(plan.goods).toBeGreaterThan(0);
    const some = draw({ words: ['A-02-1', 'A-02-2'] });
    const without = (await maren.post('counts/preview', { ...some, except: ['a-02-2', ' '] }).expect(200)).body as { bins: number };
    expect(without.bins).toBe(1);
    const byItem = (await maren.post('counts/preview', draw({ by: 'items', words: ['SMK-LGE'] })).expect(200)).body as { goods: number };
    expect(byItem.goods).toBeGreaterThan(0);
    for (const by of ['area', 'class', 'lot', 'supplier', 'field', 'value', 'suspicion'])
      await maren.post('counts/preview', draw({ by, words: by === 'field' ? ['Colour', 'red'] : ['A'] })).expect(200);
    await maren.delete(`count-rules/${rule.id}`).set({ 'if-match': '"1"' }).expect(200);
    const accuracy = (await maren.get('counts/accuracy?by=person').expect(200)).body as { rows: { key: string; lines: number }[] };
    expect(accuracy.rows.some((r) => r.key.includes('Joss') && r.lines > 0)).toBe(true);
  });

  it('is only for those at its site, and decided by those who may', async () => {
    const code = await opened(['B-07-1']);
    await joss.post('counts', draw({ words: ['B-07-2'] })).expect(403);
    await joss.get(`counts/${code}/review`).expect(403);
    await maren.post(`counts/${code}/drop`, { reason: 'x' }, { 'if-match': '"99"' }).expect(412);
    await ok(act(code, 'drop', { reason: 'over' }), 200);
  });

  it('leaves exactly what lies there, while ten people count and others move goods', async () => {
    const places = (
      await house.source.query<{ id: number; code: string }[]>(
        `SELECT id, code FROM place WHERE site_id = 1 AND kind = 'pick-face' AND code LIKE 'C-%' ORDER BY id LIMIT 20`,
      )
    ).map((p) => p.code);
    const truth = new Map<string, number>();
    for (const [i, place] of places.entries()) {
      await house.stock('BOX-GFT-2', place, 20);
      truth.set(place, 20 - (i % 4));
    }
    await house.stock('BOX-GFT-2', 'DOCK-1', 60);
    const code = await opened(places);
    const moved = (part: readonly string[]) => Promise.all(part.map((place) => ok(store('BOX-GFT-2', 'DOCK-1', place, 2))));
    // Before the first look, while the last bins are counted, and while the count is decided on.
    await moved(places.slice(0, 5));
    for (const place of places.slice(0, 5)) truth.set(place, truth.get(place)! + 2);
    const counting = (part: readonly string[]) =>
      Promise.all(part.map((place) => ok(tally(code, place, 'BOX-GFT-2', truth.get(place)!, { isLast: true }))));
    await counting(places.slice(0, 10));
    await Promise.all([moved(places.slice(5, 10)), counting(places.slice(10))]);
    await ok(act(code, 'close', { leaveOut: false }), 200);
    const before = await review(code);
    await Promise.all([
      ok(act(code, 'accept', { lineIds: before.rows.filter((l) => l.state === 'counted').map((l) => l.id) })),
      moved(places.slice(10, 15)),
    ]);
    const left = (await review(code, 'undecided')).rows.map((l) => l.id);
    if (left.length > 0) await ok(act(code, 'accept', { lineIds: left }));
    expect((await one(code)).state).toBe('closed');
    let sum = 0;
    for (const place of places) sum += await house.balance('BOX-GFT-2', place);
    expect(sum).toBe([...truth.values()].reduce((a, b) => a + b, 0) + 20);
  });
});
