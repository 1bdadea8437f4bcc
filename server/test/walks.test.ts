import { type Caller, House, pickOf, type TakenStop } from './house.js';

interface Walk {
  code: string;
  picker: string;
  stops: number;
  stopsDone: number;
  units: number;
  metres: number;
  at: { code: string } | null;
  ahead: { code: string; x: number | null }[];
  secondsAStop: number | null;
  endsAt: string;
  leavesAt: string | null;
}

/** Who walks now, how far they are, and when they will be through. */
describe('who is where', () => {
  let house: House;
  let maren: Caller;
  let ines: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    ines = await house.as('Ines');
    await house.stock('SMK-LGE', 'A-10-1', 5);
    await house.stock('SMK-SML', 'D-03-1', 5);
  });
  afterAll(() => house.close());

  const walks = async (who = maren) => ((await who.get('sites/1/walks').expect(200)).body as { walks: Walk[] }).walks;

  it('reckons with what somebody takes for a stop, once enough of it was seen', async () => {
    await house.source.query(
      `INSERT INTO activity (at, person_id, kind, glyph, title, site_id) SELECT UTC_TIMESTAMP() - INTERVAL seq * 40 SECOND, ?, 'pick', 'full', 'one', 1 FROM seq_1_to_30`,
      [ines.personId],
    );
    const { pickers } = (await maren.get('sites/1/release-board').expect(200)).body as {
      pickers: { id: number; secondsAStop: number | null }[];
    };
    expect(pickers.find((p) => p.id === ines.personId)?.secondsAStop).toBeCloseTo(40, 0);
    expect(pickers.filter((p) => p.id !== ines.personId).every((p) => p.secondsAStop === null)).toBe(true);
  });

  it('is told from the first tote to the set-down, by the bin that was picked from last', async () => {
    const round = await house.release(
      await house.order([
        ['SMK-LGE', 2],
        ['SMK-SML', 1],
      ]),
    );
    expect(await walks()).toEqual([]);
    await ines.floor({ kind: 'take', round }).expect(200);
    const [begun] = await walks();
    expect(begun).toMatchObject({ code: round, picker: 'Ines Calder', stops: 2, stopsDone: 0, units: 3, at: null, secondsAStop: 40 });
    expect(begun!.ahead.map((p) => p.code).sort()).toEqual(['A-10-1', 'D-03-1']);
    expect((new Date(begun!.endsAt).getTime() - Date.now()) / 1000).toBeCloseTo(80, -1);
    const { stops } = await ines.task<{ stops: (TakenStop & { placeCode: string })[] }>('pick', round);
    const tote = await house.placeId('T-01');
    await ines.floor(pickOf(round, stops[0]!, stops[0]!.units, tote)).expect(200);
    const [half] = await walks();
    expect(half).toMatchObject({ stopsDone: 1, at: { code: stops[0]!.placeCode }, ahead: [{ code: stops[1]!.placeCode }] });
    expect(half!.metres).toBeLessThan(begun!.metres);
    await ines.floor(pickOf(round, stops[1]!, stops[1]!.units, tote)).expect(200);
    expect((await walks())[0]).toMatchObject({ ahead: [], units: 0 });
    await ines.floor({ kind: 'set-down', round, placeId: await house.placeId('TABLE-1') }).expect(200);
    expect(await walks()).toEqual([]);
  });

  it('is told to those who pick or release there, and the tape keeps to picking where that is asked', async () => {
    await (await house.as('Beth')).get('sites/1/walks').expect(403);
    await ines.get('sites/999/walks').expect(403);
    await ines.get('sites/one/walks').expect(400);
    const kinds = async (query: string) =>
      new Set(((await maren.get(`tape?limit=60${query}`)).body as { entries: { kind: string }[] }).entries.map((e) => e.kind));
    expect([...(await kinds('&stage=picking'))].every((k) => ['take', 'tote', 'pick', 'short', 'set-down'].includes(k))).toBe(true);
    expect(await kinds('&stage=nothing')).toEqual(await kinds(''));
  });
});
