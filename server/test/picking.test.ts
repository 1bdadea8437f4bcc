import { type Caller, House, pickOf, type TakenStop } from './house.js';

interface Stop extends TakenStop {
  placeCode: string;
  picked: number;
  short: number;
  lot: string | null;
}

describe('picking', () => {
  let house: House;
  let ines: Caller;
  let joss: Caller;

  beforeAll(async () => {
    house = await House.open();
    ines = await house.as('Ines');
    joss = await house.as('Joss');
  });
  afterAll(() => house.close());

  const stops = async (round: string) => (await ines.task<{ stops: Stop[] }>('pick', round)).stops;
  const pick = async (who: Caller, round: string, stop: Stop, units: number, tote: string) =>
    who.floor(pickOf(round, stop, units, await house.placeId(tote)));
  const orderState = async (code: string) => ((await ines.get(`orders/${code}`)).body as { state: string }).state;

  it('lets twenty people pick ten units of one stop: exactly ten are picked', async () => {
    await house.stock('SMK-LGE', 'A-10-1', 10);
    const round = await house.release(await house.order([['SMK-LGE', 10]]));
    const [stop] = await stops(round);
    const answers = await Promise.all(Array.from({ length: 20 }, (_, i) => pick(i % 2 ? ines : joss, round, stop!, 1, 'T-01')));
    expect(answers.filter((a) => a.status === 200)).toHaveLength(10);
    expect(answers.filter((a) => a.status === 409).every((a) => (a.body as { band: string }).band === 'too-many')).toBe(true);
    expect(await house.balance('SMK-LGE', 'A-10-1')).toBe(0);
    expect(await house.balance('SMK-LGE', 'T-01')).toBe(10);
  });

  it('promises ten units to ten of twenty orders that come at once', async () => {
    await house.stock('SMK-SML', 'A-11-1', 10);
    const codes = await Promise.all(Array.from({ length: 20 }, () => house.order([['SMK-SML', 1]])));
    const reserved = await Promise.all(
      codes.map(async (c) => ((await ines.get(`orders/${c}`)).body as { lines: { reserved: number }[] }).lines[0]!.reserved),
    );
    expect(reserved.reduce((a, b) => a + b, 0)).toBe(10);
    expect(await house.figures('SMK-SML')).toEqual({ onHand: 10, held: 0, reserved: 10 });
  });

  it('never sends two rounds for the same units', async () => {
    await house.stock('BRSH-BEE', 'B-02-1', 5);
    await house.stock('BRSH-BEE', 'B-03-1', 5);
    const [one, two] = [await house.order([['BRSH-BEE', 5]]), await house.order([['BRSH-BEE', 5]])];
    const rounds = await Promise.all([house.release(one), house.release(two)]);
    const places = (await Promise.all(rounds.map(stops))).map((list) => list.map((s) => s.placeCode));
    expect(places.flat().sort()).toEqual(['B-02-1', 'B-03-1']);
  });

  it('takes the earliest expiry first and keeps the lot', async () => {
    await house.stock('FON-025', 'K-01-1', 6, { code: 'LATE', expires: '2027-12-01' });
    await house.stock('FON-025', 'K-02-1', 4, { code: 'SOON', expires: '2027-06-01' });
    const round = await house.release(await house.order([['FON-025', 6]]));
    expect((await stops(round)).map((s) => [s.lot, s.units]).sort()).toEqual([
      ['LATE', 2],
      ['SOON', 4],
    ]);
  });

  it('does not send an order that is short, and says of what', async () => {
    await house.stock('TOOL-JH', 'B-05-1', 2);
    const code = await house.order([['TOOL-JH', 3]]);
    const desk = await house.as('Orla');
    const { version, cannotRelease } = (await desk.get(`orders/${code}`)).body as { version: number; cannotRelease: string };
    expect(cannotRelease).toBe('Short of 1 tool of Hive tool, J hook');
    const answer = await desk.post(`orders/${code}/release`, {}, { 'if-match': `"${version}"` }).expect(409);
    expect(answer.body).toMatchObject({ code: 'state' });
    expect(await orderState(code)).toBe('open');
  });

  it('does not let a trifle hold up an order', async () => {
    await house.stock('TOOL-STD', 'B-06-1', 1);
    await house.source.query(
      `INSERT INTO listing (channel_id, channel_sku, item_id, price) SELECT c.id, 'CRD-RECIPE', i.id, 0 FROM channel c JOIN item i ON i.sku = 'CRD-RECIPE' WHERE c.code = 'PHONE'`,
    );
    const round = await house.release(
      await house.order([
        ['TOOL-STD', 1],
        ['CRD-RECIPE', 1],
      ]),
    );
    expect(await stops(round)).toHaveLength(1);
  });

  it('does not pick from bins that are closed to picking', async () => {
    await house.stock('UNC-FORK', 'A-01-3', 5);
    const code = await house.order([['UNC-FORK', 5]]);
    const desk = await house.as('Orla');
    const { version } = (await desk.get(`orders/${code}`)).body as { version: number };
    const answer = await desk.post(`orders/${code}/release`, {}, { 'if-match': `"${version}"` }).expect(409);
    expect((answer.body as { detail: string }).detail).toContain('Bins open to picking lack 5 of Uncapping fork');
  });

  it('keeps a tote to one round, whose orders may fill several', async () => {
    await house.stock('MRK-PEN', 'C-01-1', 4);
    const rounds = [
      await house.release(await house.order([['MRK-PEN', 2]])),
      await house.release(await house.order([['MRK-PEN', 2]])),
    ] as const;
    const [a, b] = [await stops(rounds[0]), await stops(rounds[1])];
    const answers = await Promise.all([pick(ines, rounds[0], a[0]!, 1, 'T-05'), pick(joss, rounds[1], b[0]!, 1, 'T-05')]);
    expect(answers.map((x) => x.status).sort()).toEqual([200, 409]);
    const second = await pick(
      ines,
      answers[0].status === 200 ? rounds[0] : rounds[1],
      answers[0].status === 200 ? a[0]! : b[0]!,
      1,
      'T-06',
    );
    expect(second.status).toBe(200);
  });

  it('refuses a bin where a tote is wanted', async () => {
    await house.stock('SVE-DBL', 'C-03-1', 1);
    const round = await house.release(await house.order([['SVE-DBL', 1]]));
    const [stop] = await stops(round);
    expect((await pick(ines, round, stop!, 1, 'A-01-1')).body).toMatchObject({ band: 'not-this', title: 'A-01-1' });
  });

  it('undoes a pick while the tote is not set down', async () => {
    await house.stock('FDR-RAP', 'C-05-1', 3);
    const round = await house.release(await house.order([['FDR-RAP', 3]]));
    const [stop] = await stops(round);
    const { activityId } = (await pick(ines, round, stop!, 2, 'T-07')).body as { activityId: number };
    await ines.post(`tape/${activityId}/undo`).expect(201);
    expect((await stops(round))[0]).toMatchObject({ picked: 0 });
    expect(await house.balance('FDR-RAP', 'C-05-1')).toBe(3);
    const again = (await pick(ines, round, stop!, 3, 'T-07')).body as { activityId: number };
    const open = await ines.floor({ kind: 'set-down', round: round, placeId: await house.placeId('DOCK-1') });
    expect(open.body).toMatchObject({ band: 'not-this', title: 'DOCK-1' });
    await ines.floor({ kind: 'set-down', round: round, placeId: await house.placeId('TABLE-1') }).expect(200);
    expect((await ines.post(`tape/${again.activityId}/undo`).expect(409)).body).toMatchObject({ code: 'undo' });
  });

  it('does not set down a round with stops to go', async () => {
    await house.stock('FDR-CON', 'C-06-1', 2);
    const code = await house.order([['FDR-CON', 2]]);
    const round = await house.release(code);
    const [stop] = await stops(round);
    await pick(ines, round, stop!, 1, 'T-08');
    const answer = await ines.floor({ kind: 'set-down', round: round, placeId: await house.placeId('TABLE-1') });
    expect(answer.body).toMatchObject({ band: 'not-this', detail: '1 stop to go before anything is set down' });
    expect(await orderState(code)).toBe('picking');
  });

  it('seeks what is not there in another bin and holds the doubted units', async () => {
    await house.stock('WAX-SN-10', 'C-10-1', 3);
    await house.stock('WAX-SN-10', 'C-11-1', 3);
    const round = await house.release(await house.order([['WAX-SN-10', 3]]));
    const [stop] = await stops(round);
    await ines.floor({ kind: 'short', round: round, stopId: stop!.id, units: 2, there: 1 }).expect(200);
    const list = await stops(round);
    expect(list.map((s) => [s.placeCode, s.units, s.short])).toEqual([
      ['C-10-1', 3, 2],
      ['C-11-1', 2, 0],
    ]);
    expect(await house.figures('WAX-SN-10')).toEqual({ onHand: 6, held: 2, reserved: 3 });
    const { stuck } = (await ines.get('now')).body as { stuck: { code: string; detail: string }[] };
    expect(stuck.find((s) => s.code === 'C-10-1')!.detail).toContain('2 reported not there');
  });

  it('leaves on order what no bin has, and ships the rest', async () => {
    await house.stock('WAX-BLK-500', 'D-03-1', 4);
    const code = await house.order([['WAX-BLK-500', 4]]);
    const round = await house.release(code);
    const [stop] = await stops(round);
    await ines.floor({ kind: 'short', round: round, stopId: stop!.id, units: 1, there: 3 }).expect(200);
    await pick(ines, round, stop!, 3, 'T-09');
    await ines.floor({ kind: 'set-down', round: round, placeId: await house.placeId('TABLE-2') }).expect(200);
    const { lines, state } = (await ines.get(`orders/${code}`)).body as { state: string; lines: { reserved: number; picked: number }[] };
    expect(state).toBe('picked');
    expect(lines[0]).toMatchObject({ reserved: 3, picked: 3 });
  });

  it('opens the order again where nothing at all was there', async () => {
    await house.stock('CND-MLD-BE', 'D-05-1', 1);
    await house.source.query(
      `INSERT IGNORE INTO listing (channel_id, channel_sku, item_id, price) SELECT c.id, 'CND-MLD-BE', i.id, 0 FROM channel c JOIN item i ON i.sku = 'CND-MLD-BE' WHERE c.code = 'PHONE'`,
    );
    const code = await house.order([['CND-MLD-BE', 1]]);
    const round = await house.release(code);
    const [stop] = await stops(round);
    await ines.floor({ kind: 'short', round: round, stopId: stop!.id, units: 1, there: 0 }).expect(200);
    await ines.floor({ kind: 'set-down', round: round, placeId: await house.placeId('TABLE-1') }).expect(200);
    expect(await orderState(code)).toBe('open');
  });

  it('shows a round’s walk in metres and who is on it', async () => {
    const rounds = (await ines.get('rounds').expect(200)).body.rows as { metres: number; picker: string | null; state: string }[];
    expect(rounds.some((r) => r.metres > 0)).toBe(true);
    expect(rounds.filter((r) => r.state === 'picking').every((r) => r.picker !== null)).toBe(true);
  });
});
