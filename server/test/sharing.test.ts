import { type Caller, House, pickOf, type TakenStop } from './house.js';

type Stop = TakenStop & { placeCode: string; picked: number; short: number; by?: string };

/** Several people on one round: each is sent to bins that nobody else goes to. */
describe('the walk of a round', () => {
  let house: House;
  let maren: Caller;
  let ines: Caller;
  let joss: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    ines = await house.as('Ines');
    joss = await house.as('Joss');
    for (const [i, sku] of SKUS.entries()) await house.stock(sku, BINS[i]!, 40);
  });
  afterAll(() => house.close());

  const SKUS = ['SMK-LGE', 'SMK-SML', 'BRSH-BEE', 'TOOL-STD'];
  const BINS = ['A-02-1', 'B-03-1', 'C-04-1', 'D-05-1'];
  const stops = async (round: string, who: Caller) => (await who.task<{ stops: Stop[] }>('pick', round)).stops;
  const own = async (round: string, who: Caller) => (await stops(round, who)).filter((s) => !s.by).map((s) => s.placeCode);
  const begun = async (tote: string) => {
    const round = await house.release(await house.order(SKUS.map((sku) => [sku, 2])));
    await ines.floor({ kind: 'take', round }).expect(200);
    const all = await stops(round, ines);
    await ines.floor(pickOf(round, all[0]!, 1, await house.placeId(tote))).expect(200);
    return { round, all, tote: await house.placeId(tote) };
  };
  const said = (answer: { body: unknown }) => JSON.stringify(answer.body);

  it('is one person’s until somebody walks with them: then the further half of what is ahead is theirs', async () => {
    const { round, all } = await begun('T-01');
    expect(await own(round, ines)).toHaveLength(4);
    expect((await stops(round, joss)).map((s) => s.by)).toEqual(Array(4).fill('Ines Calder'));
    const act = (await joss.floor({ kind: 'help', round }).expect(200)).body as { activityId: number };
    expect(await own(round, ines)).toEqual(all.slice(0, 2).map((s) => s.placeCode));
    expect(await own(round, joss)).toEqual(all.slice(2).map((s) => s.placeCode));
    const { walks } = (await maren.get('sites/1/walks')).body as { walks: { code: string; picker: string; stops: number }[] };
    expect(walks.filter((w) => w.code === round).map((w) => [w.picker, w.stops])).toEqual([
      ['Ines Calder', 2],
      ['Joss Arkle', 2],
    ]);
    await joss.post(`tape/${act.activityId}/undo`).expect(201);
    expect(await own(round, joss)).toEqual([]);
  });

  it('is shared on until one bin is left, and whoever takes it over walks all of it', async () => {
    const { round } = await begun('T-02');
    await joss.floor({ kind: 'help', round }).expect(200);
    await joss.floor({ kind: 'help', round }).expect(200);
    expect(await own(round, ines)).toHaveLength(1);
    expect(said(await joss.floor({ kind: 'help', round }).expect(409))).toContain('Ines Calder is at the last bin');
    await ines.floor({ kind: 'take', round }).expect(200);
    expect(await own(round, ines)).toHaveLength(4);
    await joss.floor({ kind: 'take', round }).expect(200);
    expect([await own(round, ines), await own(round, joss)].map((s) => s.length)).toEqual([0, 4]);
  });

  it('goes to whoever stands at a bin, whoever was to go there; what is sought elsewhere stays with who sought it', async () => {
    const { round, all, tote } = await begun('T-03');
    await joss.floor({ kind: 'help', round }).expect(200);
    const far = all[3]!;
    await ines.floor(pickOf(round, far, 1, tote)).expect(200);
    expect(await own(round, ines)).toContain(far.placeCode);
    const third = all[2]!;
    const sku = SKUS[BINS.indexOf(third.placeCode)]!;
    await house.stock(sku, 'F-02-1', 40);
    await joss.floor({ kind: 'short', round, stopId: third.id, units: 2, there: 0 }).expect(200);
    expect((await own(round, joss)).sort()).toEqual([third.placeCode, 'F-02-1'].sort());
  });

  it('is given out by the office, a stop at a time, to those who pick there and to nobody else', async () => {
    const { round, all } = await begun('T-04');
    const path = `rounds/${round}/stops/${all[3]!.id}/give`;
    await maren.post(path, { personId: joss.personId }).expect(200);
    expect(await own(round, joss)).toEqual([all[3]!.placeCode]);
    const sheet = (await maren.get(`rounds/${round}`)).body as { stops: { place: string; by: string; byId: number }[] };
    expect(sheet.stops.find((s) => s.place === all[3]!.placeCode)).toMatchObject({ by: 'Joss Arkle', byId: joss.personId });
    expect(said(await maren.post(path, { personId: (await house.as('Beth')).personId }))).toContain('does not pick at this site');
    await ines.post(path, { personId: null }).expect(403);
    await maren.post(path, { personId: null }).expect(200);
    expect(await own(round, joss)).toEqual([]);
    await ines.floor(pickOf(round, all[0]!, 1, await house.placeId('T-04'))).expect(200);
    expect(said(await maren.post(`rounds/${round}/stops/${all[0]!.id}/give`, { personId: joss.personId }))).toContain('done already');
  });

  it('is not shared where nobody walks it', async () => {
    const round = await house.release(await house.order([['SMK-LGE', 2]]));
    expect(said(await joss.floor({ kind: 'help', round }).expect(409))).toContain('Take it');
    await joss.floor({ kind: 'take', round }).expect(200);
    expect(said(await joss.floor({ kind: 'help', round }).expect(409))).toContain('Nobody else');
  });
});
