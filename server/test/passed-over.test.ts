import { type Caller, House, pickOf, type TakenStop } from './house.js';

interface Stop extends TakenStop {
  lot: string | null;
  placeCode: string;
  picked: number;
  others?: { lotId: number; lot: string; units: number }[];
}

/** The lot that is due is passed over for a reason, and another of the same bin is taken in its place. */
describe('another lot than the one that is due', () => {
  let house: House;
  let ines: Caller;
  let maren: Caller;

  beforeAll(async () => {
    house = await House.open();
    ines = await house.as('Ines');
    maren = await house.as('Maren');
    await house.stock('SYR-05', 'A-12-1', 6, { code: 'SOON', expires: '2030-01-01' });
    await house.stock('SYR-05', 'A-12-1', 4, { code: 'LATE', expires: '2031-01-01' });
  });
  afterAll(() => house.close());

  const stopsOf = async (round: string) => (await ines.task<{ stops: Stop[] }>('pick', round)).stops;
  const pick = async (round: string, stop: Stop, units: number, more: object) =>
    ines.floor({ ...pickOf(round, stop, units, await house.placeId('T-01')), ...more });
  const inLot = async (place: string) =>
    Object.fromEntries(
      (
        await house.source.query<{ lot: string; units: number }[]>(
          `SELECT l.code AS lot, b.units FROM balance b JOIN place p ON p.id = b.place_id JOIN lot l ON l.id = b.lot_id WHERE p.code = ? AND b.units > 0 AND b.stock_condition = 'good'`,
          [place],
        )
      ).map((b) => [b.lot, b.units]),
    );

  it('goes to the order with its reason, and the lot that was due is free for the next', async () => {
    const round = await house.release(await house.order([['SYR-05', 5]]));
    const [stop] = await stopsOf(round);
    expect(stop).toMatchObject({ lot: 'SOON', others: [{ lot: 'LATE', units: 4 }] });
    const lotId = stop!.others![0]!.lotId;
    // Without a word on why, it is simply the wrong lot.
    await pick(round, stop!, 2, { lotId }).then((r) => expect(r.status).toBe(409));
    await pick(round, stop!, 5, { lotId, passedOver: 'damaged' }).then((r) =>
      expect(r.body).toMatchObject({ band: 'too-many', title: 'Only 1 box here' }),
    );
    await pick(round, stop!, 2, { lotId, passedOver: '' }).then((r) => expect(r.status).toBe(400));
    const done = await pick(round, stop!, 2, { lotId, passedOver: 'damaged' });
    expect(done.status).toBe(200);
    expect(await inLot('T-01')).toEqual({ LATE: 2 });
    expect((await stopsOf(round))[0]).toMatchObject({ lot: 'SOON', picked: 2, others: [{ lot: 'LATE', units: 2 }] });
    const { entries } = (await maren.get('tape?limit=5')).body as { entries: { detail: string }[] };
    expect(entries.some((e) => e.detail.includes('lot passed over: damaged'))).toBe(true);
    // Taken back, the stop wants the lot that was due again.
    await ines.post(`tape/${(done.body as { activityId: number }).activityId}/undo`).expect(201);
    expect(await inLot('A-12-1')).toEqual({ SOON: 6, LATE: 4 });
    await pick(round, stop!, 4, { lotId, passedOver: 'not to be reached' }).then((r) => expect(r.status).toBe(200));
    await pick(round, stop!, 1, {}).then((r) => expect(r.status).toBe(200));
    await ines.floor({ kind: 'set-down', round, placeId: await house.placeId('TABLE-1') }).expect(200);
    expect(await inLot('A-12-1')).toEqual({ SOON: 5 });
  });

  it('cannot be taken back once the lot that was due is promised to somebody else', async () => {
    await house.stock('SYR-05', 'A-12-1', 0 + 5, { code: 'THIRD', expires: '2032-01-01' });
    const round = await house.release(await house.order([['SYR-05', 5]]));
    const [stop] = await stopsOf(round);
    const third = stop!.others!.find((o) => o.lot === 'THIRD')!;
    const tote = await house.placeId('T-02');
    const done = await ines.floor({ ...pickOf(round, stop!, 5, tote), lotId: third.lotId, passedOver: 'not there' }).expect(200);
    const next = await house.release(await house.order([['SYR-05', 5]]));
    expect((await stopsOf(next))[0]).toMatchObject({ lot: 'SOON' });
    const undone = await ines.post(`tape/${(done.body as { activityId: number }).activityId}/undo`);
    expect([undone.status, (undone.body as { detail: string }).detail]).toEqual([
      409,
      expect.stringContaining('promised to another order'),
    ]);
  });
});
