import { randomUUID } from 'node:crypto';
import { type Caller, House, pickOf, type TakenStop } from './house.js';

interface Stop extends TakenStop {
  orderId: number;
  placeCode: string;
  picked: number;
  short: number;
}
interface Task {
  state: string;
  picker: string | null;
  orders: { id: number; code: string; customer: string; toteIds: number[] }[];
  stops: Stop[];
}
interface Board {
  orders: { code: string; version: number; stops: { placeId: number; units: number }[]; lacks: { item: string; units: number }[] }[];
  pickers: { id: number; name: string; stops: number }[];
  places: { id: number; code: string; x: number | null }[];
}

/** Rounds of several orders: decided from one board, walked with a tote for each. */
describe('rounds of several orders', () => {
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

  const task = (round: string, who = ines) => who.task<Task>('pick', round);
  const board = async () => (await maren.get('sites/1/release-board').expect(200)).body as Board;
  const order = async (code: string) =>
    (await maren.get(`orders/${code}`)).body as { state: string; version: number; round: string | null };
  const asSeen = (codes: readonly string[]) => Promise.all(codes.map(async (code) => ({ code, version: (await order(code)).version })));
  const send = async (groups: string[][], sentTo: number | null = null) =>
    maren.post('rounds', { siteId: 1, rounds: await Promise.all(groups.map(async (g) => ({ orders: await asSeen(g), sentTo }))) });
  const sent = async (...groups: string[][]) => ((await send(groups)).body as { rounds: string[] }).rounds;
  const tie = async (round: string, orderId: number, tote: string, who = ines) =>
    who.floor({ kind: 'tote', round, orderId, totePlaceId: await house.placeId(tote) });
  const said = (answer: { body: unknown }) => JSON.stringify(answer.body);

  it('are walked with a tote for each order, set down together, and packed apart', async () => {
    await house.stock('SMK-LGE', 'A-10-1', 7);
    const codes = [await house.order([['SMK-LGE', 3]]), await house.order([['SMK-LGE', 4]])];
    const [round] = await sent(codes);
    const { orders, stops } = await task(round!);
    expect(orders.map((o) => o.code)).toEqual(codes);
    expect(stops.map((s) => [s.placeCode, s.units])).toEqual([
      ['A-10-1', 3],
      ['A-10-1', 4],
    ]);
    const totes = ['T-01', 'T-02'];
    for (const [i, o] of orders.entries()) await tie(round!, o.id, totes[i]!).then((r) => expect(r.status).toBe(200));
    // The tote of another order is refused, by the order that it is for.
    const wrong = await ines.floor(pickOf(round!, stops[0]!, 3, await house.placeId('T-02'))).expect(409);
    expect(wrong.body).toMatchObject({ band: 'not-this', title: 'Tote T-02' });
    for (const [i, s] of stops.entries()) await ines.floor(pickOf(round!, s, s.units, await house.placeId(totes[i]!))).expect(200);
    await ines.floor({ kind: 'set-down', round, placeId: await house.placeId('TABLE-1') }).expect(200);
    const queue = (await maren.get('bench/queue')).body as { rows: { order: string; tote: string; pieces: number }[] };
    for (const [i, code] of codes.entries())
      expect(queue.rows.find((r) => r.order === code)).toMatchObject({ tote: totes[i], pieces: i + 3 });
    expect((await order(codes[0]!)).state).toBe('picked');
  });

  it('fill a second tote where one is full, and free an empty one that was tied by mistake', async () => {
    await house.stock('SMK-SML', 'A-11-1', 4);
    const [round] = await sent([await house.order([['SMK-SML', 4]])]);
    const { orders, stops } = await task(round!);
    await tie(round!, orders[0]!.id, 'T-03').then((r) => expect(r.status).toBe(200));
    await ines.floor(pickOf(round!, stops[0]!, 1, await house.placeId('T-03'))).expect(200);
    const wrong = (await tie(round!, orders[0]!.id, 'T-04')).body as { activityId: number };
    await ines.post(`tape/${wrong.activityId}/undo`).expect(201);
    await tie(round!, orders[0]!.id, 'T-05').then((r) => expect(r.status).toBe(200));
    await ines.floor(pickOf(round!, stops[0]!, 3, await house.placeId('T-05'))).expect(200);
    expect((await task(round!)).orders[0]!.toteIds).toEqual([await house.placeId('T-03'), await house.placeId('T-05')]);
    expect(said(await tie(round!, orders[0]!.id + 999, 'T-04'))).toContain('not on the round any more');
  });

  it('come from a board that shows where each order’s goods lie, and what bins open to picking lack', async () => {
    await house.stock('BRSH-BEE', 'B-02-1', 3);
    await house.stock('BRSH-BEE', 'DOCK-1', 5);
    const [first, second] = [await house.order([['BRSH-BEE', 3]]), await house.order([['BRSH-BEE', 2]])];
    const { orders, places, pickers } = await board();
    const seen = orders.find((o) => o.code === first)!;
    expect(places.find((p) => p.id === seen.stops[0]!.placeId)).toMatchObject({ code: 'B-02-1' });
    expect(orders.find((o) => o.code === second)!.lacks).toMatchObject([{ units: 2 }]);
    expect(pickers.map((p) => p.name)).toContain('Ines Calder');
    const refused = await send([[first], [second]]);
    expect(refused.status).toBe(409);
    expect(said(refused)).toContain(`for ${second}`);
    // Nothing is half done.
    expect((await order(first)).state).toBe('open');
  });

  it('go to those who may pick there, and to nobody else', async () => {
    await house.stock('TOOL-STD', 'B-05-1', 6);
    const code = await house.order([['TOOL-STD', 1]]);
    const { pickers } = await board();
    const jossId = pickers.find((p) => p.name.startsWith('Joss'))!.id;
    const beth = await house.as('Beth');
    expect(said(await send([[code]], beth.personId))).toContain('does not pick at this site');
    const [round] = ((await send([[code]], jossId)).body as { rounds: string[] }).rounds;
    const rows = (await joss.get('rounds')).body.rows as { code: string; mine: boolean; sentTo: string }[];
    expect(rows.find((r) => r.code === round)).toMatchObject({ mine: true, sentTo: expect.stringContaining('Joss') as string });
    await maren.post(`rounds/${round!}/send`, { sentTo: null }).expect(200);
    expect(((await joss.get('rounds')).body.rows as typeof rows).find((r) => r.code === round)).toMatchObject({
      mine: false,
      sentTo: null,
    });
    for (const path of ['rounds', `rounds/${round!}/send`, `rounds/${round!}/recall`]) await ines.post(path, {}).expect(403);
    await ines.get('sites/1/release-board').expect(403);
  });

  it('are recalled while nobody has begun them, and their orders wait again', async () => {
    await house.stock('TOOL-STD', 'B-05-1', 6);
    const codes = [await house.order([['TOOL-STD', 1]]), await house.order([['TOOL-STD', 2]])];
    const [round] = await sent(codes);
    await maren.post(`rounds/${round!}/recall`).expect(200);
    for (const code of codes) expect((await order(code)).state).toBe('open');
    const [again] = await sent(codes);
    await ines.floor({ kind: 'take', round: again }).expect(200);
    expect(said(await maren.post(`rounds/${again!}/recall`).expect(409))).toContain('begun already');
    expect(said(await maren.post(`rounds/${again!}/send`, { sentTo: null }).expect(409))).toContain('begun already');
  });

  it('are unpicked where an order is recalled after it was set down: its goods are put away, and it waits again', async () => {
    await house.stock('UNC-FORK', 'B-06-1', 4);
    const code = await house.order([['UNC-FORK', 4]]);
    const [round] = await sent([code]);
    await house.pickAll(round!, 'T-08');
    const recall = async () => maren.post(`orders/${code}/recall`, {}, { 'if-match': `"${(await order(code)).version}"` });
    const recalled = await recall();
    expect(recalled.status).toBe(200);
    expect(await order(code)).toMatchObject({ state: 'open' });
    // Nobody is sent to a bin that is empty: the goods stand in the tote, to be put away.
    const seen = (await maren.get('sites/1/release-board')).body as { orders: { code: string; lacks: { lies: string }[] }[] };
    expect(seen.orders.find((o) => o.code === code)!.lacks).toMatchObject([{ lies: 'standing' }]);
    const store = await ines.task<{ goods: { itemId: number; fromCode: string; units: number }[] }>('store', 1);
    const goods = store.goods.find((g) => g.fromCode === 'T-08')!;
    expect(goods.units).toBe(4);
    const ends = { fromPlaceId: await house.placeId('T-08'), toPlaceId: await house.placeId('B-06-1') };
    await maren.floor({ kind: 'store', itemId: goods.itemId, lotId: 0, units: 4, how: 'scanned', ...ends }).expect(200);
    await house.pickAll((await sent([code]))[0]!, 'T-08');
    await house.packAll(code);
    expect(said(await recall())).toContain('packed already');
  });

  it('go on without an order that is called off, and are taken over by a colleague', async () => {
    await house.stock('TOOL-STD', 'B-05-1', 6);
    const codes = [await house.order([['TOOL-STD', 1]]), await house.order([['TOOL-STD', 2]])];
    const [round] = await sent(codes);
    await ines.floor({ kind: 'take', round }).expect(200);
    await maren
      .post(
        `orders/${codes[0]!}/cancel`,
        { why: 'Rang to call it off', tell: false },
        { 'if-match': `"${(await order(codes[0]!)).version}"` },
      )
      .expect(200);
    const left = await task(round!);
    expect(left.orders.map((o) => o.code)).toEqual([codes[1]]);
    await joss.floor({ kind: 'take', round }).expect(200);
    expect((await task(round!)).picker).toContain('Joss');
    const line = await house.source.query<{ detail: string }[]>('SELECT detail FROM activity WHERE title = ? ORDER BY id DESC LIMIT 1', [
      `${round!} taken`,
    ]);
    expect(line[0]!.detail).toContain('over from Ines');
  });

  it('are sent once, however often it is asked for, and never with an order on two', async () => {
    await house.stock('TOOL-STD', 'B-05-1', 6);
    const code = await house.order([['TOOL-STD', 1]]);
    expect(said(await send([[code], [code]]))).toContain('on two rounds');
    const key = randomUUID();
    const body = { siteId: 1, rounds: [{ orders: await asSeen([code]), sentTo: null }] };
    const answers = await Promise.all([1, 2, 3].map(() => maren.post('rounds', body, { 'idempotency-key': key })));
    expect(new Set(answers.filter((a) => a.status === 201).map(said)).size).toBe(1);
    expect((await maren.post('rounds', body)).status).toBe(412);
    for (const bad of [
      {},
      { siteId: 1, rounds: [] },
      { siteId: 1, rounds: [{ orders: [] }] },
      { siteId: 'x', rounds: [{ orders: [{ code: 5 }] }] },
    ])
      await maren.post('rounds', bad).expect(400);
    await maren.post('rounds', { ...body, siteId: 99 }).expect(403);
  });
});

describe('a round on paper', () => {
  let house: House;
  let maren: Caller;
  let ines: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    ines = await house.as('Ines');
  });
  afterAll(() => house.close());

  it('is printed with a barcode for each bin, and its results are entered at once', async () => {
    await house.stock('BRSH-BEE', 'B-02-1', 5);
    await house.stock('TOOL-STD', 'B-05-1', 9);
    const codes = [
      await house.order([['BRSH-BEE', 2]]),
      await house.order([
        ['BRSH-BEE', 3],
        ['TOOL-STD', 4],
      ]),
    ];
    const orders = await Promise.all(
      codes.map(async (code) => ({ code, version: ((await maren.get(`orders/${code}`)).body as { version: number }).version })),
    );
    const [round] = ((await maren.post('rounds', { siteId: 1, rounds: [{ orders, sentTo: null }] })).body as { rounds: string[] }).rounds;
    expect(String((await ines.bytes(`rounds-papers?rounds=${round!}&papers=lists,slips,labels`).expect(200)).body as Buffer)).toMatch(
      /^%PDF-/,
    );
    expect(String((await ines.bytes('rounds-papers?site=1').expect(200)).body as Buffer)).toMatch(/^%PDF-/);
    const sheet = (await ines.get(`rounds/${round!}`).expect(200)).body as {
      orders: { id: number; code: string }[];
      stops: { id: number; order: string; place: string; units: number }[];
      tables: string[];
    };
    expect(sheet.stops.map((s) => s.units).sort()).toEqual([2, 3, 4]);
    const all = (units: (s: (typeof sheet.stops)[number]) => number) => sheet.stops.map((s) => ({ stopId: s.id, units: units(s) }));
    const totes = sheet.orders.map((o, i) => ({ orderId: o.id, tote: `T-0${i + 1}` }));
    const enter = (body: object, who = ines) =>
      who.post(`rounds/${round!}/results`, { totes, table: 'TABLE-1', stops: all((s) => s.units), ...body });
    const faults = async (body: object) => JSON.stringify((await enter(body).expect(400)).body);
    expect(await faults({ stops: [] })).toContain('say how many were taken');
    expect(await faults({ stops: all((s) => s.units + 1) })).toContain('at most');
    expect(await faults({ totes: [] })).toContain('which tote');
    expect(await faults({ table: 'NOWHERE' })).toContain('no place of this site');
    await enter({ totes: totes.map((t) => ({ ...t, tote: 'T-01' })) }).then((r) => expect(r.status).toBe(409));
    // Nothing of what was refused is done.
    expect((await maren.get(`orders/${codes[0]!}`)).body).toMatchObject({ state: 'released' });
    await enter({}, await house.as('Beth')).then((r) => expect(r.status).toBe(403));
    // One brush of each order was not there.
    await enter({ stops: all((s) => (s.place === 'B-02-1' ? s.units - 1 : s.units)) }).then((r) => expect(r.status).toBe(200));
    for (const code of codes) expect((await maren.get(`orders/${code}`)).body).toMatchObject({ state: 'picked' });
    expect(await house.balance('BRSH-BEE', 'T-01')).toBe(1);
    expect(await house.balance('BRSH-BEE', 'T-02')).toBe(2);
    expect(await house.figures('BRSH-BEE')).toMatchObject({ held: 2, reserved: 3 });
    await enter({}).then((r) => expect(r.status).toBe(409));
  });
});

describe('too few in a bin', () => {
  let house: House;
  let maren: Caller;
  let ines: Caller;

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    ines = await house.as('Ines');
  });
  afterAll(() => house.close());

  const stops = async (round: string) => (await ines.task<Task>('pick', round)).stops;
  const where = async (round: string) => (await stops(round)).map((s) => [s.placeCode, s.units, s.short]);
  const short = (round: string, stop: Stop, units: number, there: number) =>
    ines.floor({ kind: 'short', round, stopId: stop.id, units, there });

  it('sends everybody who would come for the rest elsewhere, and leaves what was seen', async () => {
    await house.stock('UNC-FORK', 'A-03-1', 8);
    await house.stock('UNC-FORK', 'A-05-1', 9);
    const rounds = [];
    for (const units of [4, 4]) rounds.push(await house.release(await house.order([['UNC-FORK', units]])));
    const [mine, theirs] = rounds as [string, string];
    const [stop] = await stops(mine);
    expect(stop!.placeCode).toBe('A-03-1');
    await short(mine, stop!, 1, 3).then((r) => expect(r.status).toBe(200));
    expect((await where(mine)).sort()).toEqual([
      ['A-03-1', 4, 1],
      ['A-05-1', 1, 0],
    ]);
    // Five of the eight are in doubt, among them the four that the other round would have come for.
    expect(await house.figures('UNC-FORK')).toMatchObject({ held: 5, reserved: 8 });
    expect(await where(theirs)).toEqual([['A-05-1', 4, 0]]);
  });

  it('is taken back as long as nothing was taken elsewhere', async () => {
    await house.stock('SMK-SML', 'A-07-1', 3);
    await house.stock('SMK-SML', 'A-08-1', 2);
    const code = await house.order([['SMK-SML', 3]]);
    const round = await house.release(code);
    const [stop] = await stops(round);
    const before = await house.figures('SMK-SML');
    const { activityId } = (await short(round, stop!, 3, 0)).body as { activityId: number };
    // Two are sought elsewhere, one is nowhere.
    expect(await where(round)).toEqual([
      ['A-07-1', 3, 3],
      ['A-08-1', 2, 0],
    ]);
    await ines.post(`tape/${activityId}/undo`).expect(201);
    expect(await where(round)).toEqual([['A-07-1', 3, 0]]);
    expect(await house.figures('SMK-SML')).toEqual(before);
    const again = (await short(round, (await stops(round))[0]!, 3, 0)).body as { activityId: number };
    const other = (await stops(round)).find((s) => s.placeCode === 'A-08-1')!;
    await ines.floor(pickOf(round, other, 1, await house.placeId('T-01'))).expect(200);
    const late = await ines.post(`tape/${again.activityId}/undo`);
    expect(late.status).toBe(409);
    expect(JSON.stringify(late.body)).toContain('taken from another bin already');
    expect((await maren.get(`orders/${code}`)).body).toMatchObject({ state: 'picking' });
  });
});
