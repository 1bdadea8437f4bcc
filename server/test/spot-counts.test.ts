import type { SpotTask } from '@vectrum/core/scan';
import { type Caller, House, pickOf, type TakenStop } from './house.js';

interface Row {
  id: number;
  state: string;
  place: string;
  sku: string;
  held: number;
  counted: number | null;
  booked: number | null;
  raisedBy: string | null;
  version: number;
}

/** What a picker has not found is held, counted by somebody else, and decided. */
describe('a bin that was reported', () => {
  let house: House;
  let maren: Caller;
  let ines: Caller;
  let joss: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    ines = await house.as('Ines');
    joss = await house.as('Joss');
  });
  afterAll(() => house.close());

  const stops = async (round: string) =>
    (await ines.task<{ stops: (TakenStop & { placeCode: string; short: number })[] }>('pick', round)).stops;
  const list = async () => (await maren.get('sites/1/spot-counts').expect(200)).body as Row[];
  const of = async (sku: string) => (await list()).find((r) => r.sku === sku);
  const spotOf = async (sku: string, who = joss) => {
    const itemId = await house.itemId(sku);
    return (await who.task<SpotTask>('count', 1)).spots.find((s) => s.itemId === itemId)!;
  };
  const count = async (sku: string, units: number, who = joss) => {
    const { id, itemId, lotId, placeId } = await spotOf(sku, who);
    return who.floor({ kind: 'count-spot', spotId: id, itemId, lotId, placeId, units, how: 'scanned' });
  };
  const act = (row: Row, what: string, body: object = {}, who = maren) =>
    who.post(`spot-counts/${row.id}/${what}`, body, { 'if-match': `"${row.version}"` });
  const condition = async (sku: string, place: string, which: string) =>
    Number(
      (
        await house.source.query<{ units: string | null }[]>(
          'SELECT SUM(b.units) AS units FROM balance b JOIN place p ON p.id = b.place_id JOIN item i ON i.id = b.item_id WHERE i.sku = ? AND p.code = ? AND b.stock_condition = ?',
          [sku, place, which],
        )
      )[0]?.units ?? 0,
    );

  /** Ten in a bin, five of them wanted by an order; a picker sees only so many. Returns the tape's number of the report. */
  async function reported(sku: string, place: string, there: number): Promise<{ order: string; round: string; activityId: number }> {
    await house.stock(sku, place, 10);
    const order = await house.order([[sku, 5]]);
    const round = await house.release(order);
    const stop = (await stops(round)).find((s) => s.placeCode === place)!;
    const answer = await ines.floor({ kind: 'short', round, stopId: stop.id, units: 5 - there, there }).expect(200);
    return { order, round, activityId: (answer.body as { activityId: number }).activityId };
  }

  it('is free again at once where somebody else finds all of it, and whoever waits has it', async () => {
    const { order } = await reported('SMK-LGE', 'A-10-1', 2);
    expect(await of('SMK-LGE')).toMatchObject({
      state: 'open',
      place: 'A-10-1',
      held: 8,
      counted: null,
      raisedBy: expect.stringContaining('Ines'),
    });
    const spot = await spotOf('SMK-LGE');
    expect(spot).toMatchObject({ placeCode: 'A-10-1', why: 'reported not there', isOwn: false });
    expect(JSON.stringify(spot)).not.toMatch(/booked|held/);
    await count('SMK-LGE', 10).then((r) => expect(r.status).toBe(200));
    expect(await of('SMK-LGE')).toBeUndefined();
    expect(await condition('SMK-LGE', 'A-10-1', 'held')).toBe(0);
    const lines = ((await maren.get(`orders/${order}`)).body as { lines: { reserved: number }[] }).lines;
    expect(lines[0]!.reserved).toBe(5);
  });

  it('waits for the office where less is there, which lets the books follow, or takes that back', async () => {
    await reported('SMK-SML', 'A-11-1', 1);
    await count('SMK-SML', 4).then((r) => expect(r.status).toBe(200));
    // Three of those that were held are there after all.
    expect(await condition('SMK-SML', 'A-11-1', 'good')).toBe(4);
    const row = (await of('SMK-SML'))!;
    expect(row).toMatchObject({ state: 'counted', held: 6, counted: 4, booked: 10 });
    await act({ ...row, version: row.version - 1 }, 'settle').expect(412);
    await act(row, 'settle', {}, joss).expect(403);
    await act(row, 'settle').expect(200);
    expect(await of('SMK-SML')).toBeUndefined();
    expect(await house.figures('SMK-SML')).toMatchObject({ onHand: 4, held: 0 });
    await act(row, 'settle').expect(412);
    const entry = ((await maren.get('tape?limit=5')).body as { entries: { id: number; title: string }[] }).entries.find((e) =>
      /fewer/.test(e.title),
    )!;
    await maren.post(`tape/${entry.id}/undo`).expect(201);
    expect(await house.figures('SMK-SML')).toMatchObject({ onHand: 10, held: 6 });
    await act((await of('SMK-SML'))!, 'settle').expect(200);
    expect(await house.figures('SMK-SML')).toMatchObject({ onHand: 4, held: 0 });
  });

  it('is counted again by somebody else where the office doubts it, also by a number from paper', async () => {
    await reported('FRM-DN1', 'B-10-1', 0);
    await act((await of('FRM-DN1'))!, 'settle').expect(409);
    await count('FRM-DN1', 13).then((r) => expect(r.status).toBe(200));
    const row = (await of('FRM-DN1'))!;
    expect(row).toMatchObject({ state: 'counted', held: 0, counted: 13, booked: 10 });
    await act(row, 'again').expect(200);
    expect(await of('FRM-DN1')).toMatchObject({ state: 'open', raisedBy: expect.stringContaining('Joss'), counted: null });
    expect((await spotOf('FRM-DN1')).isOwn).toBe(true);
    await act((await of('FRM-DN1'))!, 'count', { units: -1 }).expect(400);
    await act((await of('FRM-DN1'))!, 'count', { units: 12 }).expect(200);
    await act((await of('FRM-DN1'))!, 'settle').expect(200);
    expect(await house.figures('FRM-DN1')).toMatchObject({ onHand: 12, held: 0 });
  });

  it('is never settled by the eyes of who reported it', async () => {
    await reported('GLV-S', 'B-11-1', 0);
    await count('GLV-S', 10, ines).then((r) => expect(r.status).toBe(200));
    expect(await of('GLV-S')).toMatchObject({ state: 'counted', counted: 10, booked: 10, held: 0 });
    await act((await of('GLV-S'))!, 'settle').expect(200);
    expect(await house.figures('GLV-S')).toMatchObject({ onHand: 10, held: 0 });
  });

  it('sends everybody elsewhere who would have come for what a count has not found', async () => {
    await reported('WAX-DN-10', 'B-12-1', 4);
    const other = await house.order([['WAX-DN-10', 4]]);
    await house.stock('WAX-DN-10', 'C-10-1', 20);
    await count('WAX-DN-10', 10).then((r) => expect(r.status).toBe(200));
    const round = await house.release(other);
    const [stop] = await stops(round);
    const place = stop!.placeCode;
    // The same bin is reported again, and is empty this time.
    const third = await house.order([['WAX-DN-10', 1]]);
    const next = await house.release(third);
    const seen = (await stops(next)).find((s) => s.placeCode === place);
    if (seen) await ines.floor({ kind: 'short', round: next, stopId: seen.id, units: 1, there: 0 }).expect(200);
    await count('WAX-DN-10', 0).then((r) => expect(r.status).toBe(200));
    expect((await stops(round)).filter((s) => s.placeCode === place && s.units > s.short)).toEqual([]);
    await act((await of('WAX-DN-10'))!, 'settle').expect(200);
  });

  it('is no count any more once its report is taken back, but a count holds', async () => {
    const { activityId } = await reported('SYR-05', 'C-11-1', 0);
    await ines.post(`tape/${activityId}/undo`).expect(201);
    expect(await of('SYR-05')).toBeUndefined();
    const again = await reported('JAR-454-RD', 'C-12-1', 0);
    await count('JAR-454-RD', 3).then((r) => expect(r.status).toBe(200));
    await ines.post(`tape/${again.activityId}/undo`).expect(409);
    await act((await of('JAR-454-RD'))!, 'settle').expect(200);
  });

  it('is refused where it names other goods, is decided already, or lies elsewhere', async () => {
    await reported('JAR-227-RD', 'D-10-1', 0);
    const { id, itemId, lotId, placeId } = await spotOf('JAR-227-RD');
    const body = { kind: 'count-spot', spotId: id, itemId, lotId, placeId, units: 10, how: 'typed' };
    await joss.floor({ ...body, itemId: itemId + 1 }).expect(409);
    await joss.floor({ ...body, spotId: 999_999 }).expect(404);
    await joss.floor({ ...body, units: 1.5 }).expect(400);
    const both = await Promise.all([joss.floor(body), maren.floor(body)]);
    expect(both.map((a) => a.status).sort()).toEqual([200, 409]);
    await (await house.as('Beth')).get('sites/1/spot-counts').expect(403);
    await joss.get('floor/tasks/count/999').expect(403);
    await joss.get('sites/999/spot-counts').expect(403);
  });

  it('keeps every unit', async () => {
    const pick = await house.order([['SMK-LGE', 1]]);
    const round = await house.release(pick);
    for (const s of await stops(round)) await ines.floor(pickOf(round, s, s.units, await house.placeId('T-07'))).expect(200);
    expect((await house.figures('SMK-LGE')).onHand).toBe(10);
  });
});
