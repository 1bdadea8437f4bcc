import type { TallyTask } from '@vectrum/core/scan';
import { type Caller, House } from './house.js';

interface Line {
  id: number;
  place: string;
  sku: string;
  state: string;
  isWithin: boolean;
  says: string;
  reason: string | null;
  causes: { kind: string }[];
}
interface Count {
  state: string;
  version: number;
  bins: number;
  binRows: { placeId: number; code: string; person: string | null; begunBy: string | null; state: string }[];
}

let house: House;
let maren: Caller;
let joss: Caller;
let ines: Caller;
let corin: Caller;
beforeAll(async () => {
  house = await House.open();
  [maren, joss, ines, corin] = [await house.as('Maren'), await house.as('Joss'), await house.as('Ines'), await house.as('Corin')];
});
afterAll(() => house.close());

const said = (answer: { body: unknown }) => (answer.body as { detail: string }).detail;
const one = async (code: string) => (await maren.get(`counts/${code}`).expect(200)).body as Count;
const lines = async (code: string, shows = 'all') =>
  ((await maren.get(`counts/${code}/review?shows=${shows}`).expect(200)).body as { rows: Line[] }).rows;
const match = async (code: string) => ({ 'if-match': `"${(await one(code)).version}"` });
const act = async (code: string, what: string, body: object = {}, who = maren) =>
  who.post(`counts/${code}/${what}`, body, await match(code));
const drawn = async (words: string[], more: object = {}) =>
  (
    (await maren.post('counts', { siteId: 1, by: 'bins', words, most: 100, title: '', blind: true, scanEach: false, ...more }).expect(201))
      .body as { code: string }
  ).code;
const opened = async (words: string[], more: object = {}) => {
  const code = await drawn(words, more);
  expect((await act(code, 'open')).status).toBe(200);
  return code;
};
const tally = async (code: string, place: string, sku: string, units: number, who = joss, more: object = {}) =>
  who.floor({
    kind: 'tally',
    document: code,
    placeId: await house.placeId(place),
    itemId: await house.itemId(sku),
    lot: null,
    expires: null,
    isDamaged: false,
    units,
    isLast: true,
    agoMs: 0,
    how: 'scanned',
    ...more,
  });

describe('what a count may be off by', () => {
  it('is booked at once where the house wants that, and the rest waits with its sentence', async () => {
    await maren.post('count-rules', { units: 2, unitsPercent: '10' }).expect(201);
    await maren.post('count-rules', { sku: 'SMK-LGE', units: 0 }).expect(201);
    await maren.put('company/settings/acceptWithin', { value: 'true' }).expect(204);
    await house.stock('TOOL-JH', 'E-01-1', 40);
    await house.stock('SMK-LGE', 'E-01-2', 40);
    await house.stock('SUIT-M', 'E-02-1', 40);
    const code = await opened(['E-01-1', 'E-01-2', 'E-02-1']);
    await tally(code, 'E-01-1', 'TOOL-JH', 38);
    await tally(code, 'E-01-2', 'SMK-LGE', 39);
    await tally(code, 'E-02-1', 'SUIT-M', 45);
    expect((await act(code, 'close', { leaveOut: false })).status).toBe(200);
    const by = (await lines(code)).reduce((all, l) => all.set(l.sku, l), new Map<string, Line>());
    expect(by.get('TOOL-JH')).toMatchObject({ isWithin: true, state: 'accepted' });
    expect(by.get('SMK-LGE')).toMatchObject({ state: 'counted', isWithin: false, says: expect.stringContaining('that the item allows') });
    expect(by.get('SUIT-M')).toMatchObject({ state: 'counted', isWithin: false, says: expect.stringContaining('that the company allows') });
    expect(await house.balance('TOOL-JH', 'E-01-1')).toBe(38);
    expect((await act(code, 'accept', { lineIds: [] })).status).toBe(409);
    const rest = (await lines(code, 'undecided')).map((l) => l.id);
    expect((await act(code, 'discard', { lineIds: rest, reason: ' ' })).status).toBe(400);
    expect((await act(code, 'discard', { lineIds: rest, reason: 'counted in the dark' })).status).toBe(200);
    expect(await house.balance('SMK-LGE', 'E-01-2')).toBe(40);
    expect((await lines(code)).filter((l) => l.state === 'dropped').map((l) => l.reason)).toEqual([
      'counted in the dark',
      'counted in the dark',
    ]);
    expect((await one(code)).state).toBe('closed');
  });
});

describe('who counts what', () => {
  it('is shared out by stretches of shelves, one bin given to somebody else, one left out', async () => {
    const words = ['F-01-1', 'F-01-2', 'F-02-1', 'F-02-2', 'F-03-1', 'F-03-2'];
    const code = await drawn(words);
    expect((await act(code, 'share', { personIds: [joss.personId, 999] })).status).toBe(400);
    expect((await act(code, 'share', { personIds: [joss.personId, ines.personId] })).status).toBe(200);
    const shared = (await one(code)).binRows;
    const names = shared.map((b) => b.person);
    // One stretch each: the name changes once on the way.
    expect(names.filter((n, i) => i > 0 && n !== names[i - 1])).toHaveLength(1);
    expect(new Set(names).size).toBe(2);
    await maren.put(`counts/${code}/bins/${shared[0]!.placeId}`, { personId: corin.personId }, await match(code)).expect(200);
    await maren
      .delete(`counts/${code}/bins/${shared[1]!.placeId}`)
      .set(await match(code))
      .expect(200);
    expect((await one(code)).bins).toBe(5);
    expect((await act(code, 'open')).status).toBe(200);
    const mine = async (who: Caller) => (await who.task<TallyTask>('tally', code)).bins.filter((b) => b.isMine).map((b) => b.code);
    expect(await mine(corin)).toEqual([shared[0]!.code]);
    const [all, corins] = [await mine(joss), await mine(ines)];
    expect([...all, ...corins].sort()).toEqual(
      shared
        .slice(2)
        .map((b) => b.code)
        .sort(),
    );
    expect(
      ((await joss.get('sites/1/open-counts').expect(200)).body as { code: string; bins: number }[]).find((c) => c.code === code)?.bins,
    ).toBe(all.length);
    // Among nobody, anybody may.
    expect((await act(code, 'share', { personIds: [] })).status).toBe(200);
    expect(await mine(maren)).toHaveLength(5);
    expect(said(await act(code, 'close', { leaveOut: false }))).toContain('5 bins are not counted');
    expect((await act(code, 'close', { leaveOut: true })).status).toBe(200);
    expect((await one(code)).state).toBe('closed');
  });

  it('begins with a bin alone, and a bin is in one count at a time', async () => {
    await house.stock('SUIT-M', 'G-01-1', 5);
    const code = await opened(['G-01-1', 'G-01-2']);
    await tally(code, 'G-01-1', 'SUIT-M', 5, joss, { isLast: false });
    const other = await tally(code, 'G-01-1', 'SUIT-M', 4, ines);
    expect([other.status, said(other)]).toEqual([409, expect.stringContaining('Joss Arkle has this bin')]);
    const again = await maren.post('counts', {
      siteId: 1,
      by: 'bins',
      words: ['G-01-1'],
      most: 1,
      title: '',
      blind: true,
      scanEach: false,
    });
    expect([again.status, JSON.stringify(again.body)]).toEqual([400, expect.stringContaining('in another count')]);
    const preview = (
      await maren
        .post('counts/preview', { siteId: 1, by: 'bins', words: ['G-01-1', 'G-02-1'], most: 9, title: '', blind: true, scanEach: false })
        .expect(200)
    ).body as { elsewhere: object[]; bins: number };
    expect(preview).toMatchObject({ bins: 1, elsewhere: [{ place: 'G-01-1', count: code }] });
    expect(said(await maren.delete(`counts/${code}/bins/${await house.placeId('G-01-1')}`).set(await match(code)))).toContain('has begun');
    expect((await act(code, 'drop', { reason: 'the fair is off' })).status).toBe(200);
    expect((await one(code)).state).toBe('dropped');
    expect(await house.balance('SUIT-M', 'G-01-1')).toBe(5);
  });

  it('tells blind counters nothing, and others what the books have', async () => {
    await house.stock('SUIT-M', 'G-03-1', 7);
    const code = await opened(['G-03-1'], { blind: false });
    const bin = (await joss.task<TallyTask>('tally', code)).bins[0]!;
    expect(bin.lines.some((l) => l.booked === 7)).toBe(true);
    expect((await act(code, 'drop', { reason: 'tried' })).status).toBe(200);
  });

  it('is only about the goods that it names where it was drawn up by them', async () => {
    await house.stock('SUIT-M', 'G-04-1', 7);
    await house.stock('TOOL-JH', 'G-04-1', 3);
    const code = await opened(['SUIT-M'], { by: 'items' });
    const stray = await tally(code, 'G-04-1', 'TOOL-JH', 3, joss, { isLast: false });
    expect([stray.status, said(stray)]).toEqual([409, expect.stringContaining('not about it')]);
    await tally(code, 'G-04-1', 'SUIT-M', 6);
    expect((await act(code, 'close', { leaveOut: true })).status).toBe(200);
    expect((await lines(code, 'off')).map((l) => [l.place, l.sku])).toEqual([['G-04-1', 'SUIT-M']]);
    expect(await house.balance('TOOL-JH', 'G-04-1')).toBe(3);
    expect((await act(code, 'drop', { reason: 'tried' })).status).toBe(200);
  });

  it('is begun by whoever stands at a bin, once where two do, and refused where nothing is counted', async () => {
    await house.stock('TOOL-JH', 'B-02-1', 3);
    const passing = async (who = joss) =>
      (await who.get('places/b-02-1/passing').expect(200)).body as { due: number; count: string | null };
    expect(await passing()).toMatchObject({ count: null, due: expect.any(Number) });
    const both = await Promise.all([joss, ines].map((who) => who.post('places/B-02-1/passing', {})));
    const codes = both.filter((b) => b.status === 201).map((b) => (b.body as { code: string }).code);
    expect(codes.length).toBeGreaterThan(0);
    const { count } = await passing();
    expect(codes).toContain(count);
    expect((await joss.post('places/B-02-1/passing', {}).expect(201)).body).toEqual({ code: count });
    expect((await joss.task<TallyTask>('tally', count!)).bins.map((b) => b.code)).toEqual(['B-02-1']);
    await joss.get('places/T-01/passing').expect(409);
    await joss.get('places/NOWHERE/passing').expect(404);
    await (await house.as('Orla')).post('places/B-02-1/passing', {}).expect(403);
  });
});
