import { randomUUID } from 'node:crypto';
import { TASK_KINDS, type FloorCommandKind } from '@vectrum/core/scan';
import { FloorCommands } from '../src/floor/floor-commands.js';
import { FloorTasks } from '../src/floor/floor-tasks.js';
import { type Caller, House, pickOf, receipt, type TakenStop } from './house.js';

/** Every kind; the type demands each of them. */
const KINDS: Readonly<Record<FloorCommandKind, true>> = {
  receive: true,
  'receive-pallet': true,
  'receive-whole': true,
  tie: true,
  'close-arrival': true,
  check: true,
  judge: true,
  'come-back': true,
  store: true,
  'count-spot': true,
  'report-spot': true,
  gather: true,
  'send-off': true,
  'take-in': true,
  'parcel-here': true,
  'take-in-close': true,
  move: true,
  issue: true,
  condition: true,
  tally: true,
  'tally-bin': true,
  'tally-code': true,
  take: true,
  help: true,
  cart: true,
  tote: true,
  pick: true,
  short: true,
  'set-down': true,
  sort: true,
  'sort-missing': true,
  pack: true,
  'pack-all': true,
  'pack-kit': true,
  'leave-out': true,
  'serial-out': true,
  'note-seen': true,
  'close-parcel': true,
  'open-parcel': true,
  repack: true,
  park: true,
  load: true,
  unload: true,
  'hand-over': true,
  refused: true,
};

describe('the floor’s doors', () => {
  let house: House;
  let ines: Caller;
  let maren: Caller;

  beforeAll(async () => {
    house = await House.open();
    ines = await house.as('Ines');
    maren = await house.as('Maren');
    await house.stock('JAR-454-RD', 'A-01-1', 100);
  });
  afterAll(() => house.close());

  const stopsOf = async (round: string) => (await maren.task<{ stops: (TakenStop & { picked: number })[] }>('pick', round)).stops;
  const old = () => new Date(Date.now() - 3_600_000).toISOString();
  const questions = async (who: Caller) =>
    (await who.get('floor/questions').expect(200)).body as {
      id: string;
      what: string;
      detail: string;
      mine: boolean;
      who: string;
      choices: { answer: string }[];
    }[];

  it('know every kind of command and task', () => {
    const commands = house.app.get(FloorCommands);
    expect(
      commands
        .shapes()
        .map((s) => s.kind)
        .sort(),
    ).toEqual(Object.keys(KINDS).sort());
    expect([...house.app.get(FloorTasks).rights().keys()].sort()).toEqual([...TASK_KINDS].sort());
  });

  it('are closed to people without the right, kind by kind', async () => {
    const beth = await house.as('Beth');
    for (const [kind, right] of house.app.get(FloorCommands).rights()) {
      if (right === 'signed-in') continue;
      const answer = await beth.floor({ kind, round: 'R-1', document: 'P-1', order: 'S-1', inspection: 'Q-1' });
      expect([kind, [400, 403].includes(answer.status)]).toEqual([kind, true]);
    }
    await beth.floor({ kind: 'take', round: 'R-1' }).expect(403);
    for (const kind of TASK_KINDS) await beth.get(`floor/tasks/${kind}/1`).expect(403);
    await ines.get('floor/tasks/receive/P-1').expect(403);
  });

  it('refuse what is no command, and change nothing', async () => {
    for (const command of [
      {},
      { kind: 'sell' },
      { kind: 'constructor' },
      { kind: ['pick'] },
      { kind: 'take', round: 5 },
      { kind: 'take', round: 'R-1', more: 1 },
    ]) {
      const answer = await ines.floor(command);
      expect([answer.status, (answer.body as { code: string }).code]).toEqual([400, 'form']);
    }
    const id = randomUUID();
    const body = { command: { kind: 'take', id, round: 'R-1' }, madeAt: old(), madeBy: ines.personId, late: false };
    expect((await ines.post('floor/commands', body).expect(400)).body).toMatchObject({ code: 'idempotency-key' });
    await ines.get('floor/tasks/dance/1').expect(404);
  });

  it('answer for exactly the commands asked about, however long ago they were made', async () => {
    const round = await house.release(await house.order([['JAR-454-RD', 2]]));
    const [stop] = await stopsOf(round);
    const id = randomUUID();
    await ines.floor(pickOf(round, stop!, 1, await house.placeId('T-01')), { id }).expect(200);
    await house.source.query('UPDATE activity SET at = at - INTERVAL 30 DAY WHERE command_id = ?', [id]);
    const other = randomUUID();
    expect((await ines.task('pick', round, [id, other])).applied).toEqual([id]);
    expect((await ines.task('pick', round)).applied).toEqual([]);
  });

  it('refuse a pick at a stop that is no longer what the phone saw', async () => {
    const round = await house.release(await house.order([['JAR-454-RD', 1]]));
    const [stop] = await stopsOf(round);
    const moved = { ...stop!, placeId: await house.placeId('A-02-1') };
    const answer = await ines.floor(pickOf(round, moved, 1, await house.placeId('T-02'))).expect(409);
    expect(answer.body).toMatchObject({ band: 'not-this', title: 'The stop has changed' });
  });

  it('load no other stop for a pick than the one it is at', async () => {
    await house.stock('LID-63-GD', 'A-07-1', 5);
    const round = await house.release(
      await house.order([
        ['JAR-454-RD', 1],
        ['LID-63-GD', 1],
      ]),
    );
    const [stop] = await stopsOf(round);
    const tote = await house.placeId('T-09');
    await ines.floor({ kind: 'take', round }).expect(200);
    const asked = await house.statements(() => ines.floor(pickOf(round, stop!, 1, tote)).expect(200));
    const stops = asked.filter((sql) => /FROM round_stop/.test(sql));
    expect(stops.length).toBeGreaterThan(0);
    expect(stops.every((sql) => /WHERE (s\.)?id = \?/.test(sql))).toBe(true);
    expect(asked.some((sql) => /plan_shape|walk_order/.test(sql))).toBe(false);
  });

  it('load no other goods of a delivery for a receipt than its own', async () => {
    const { code } = (
      await maren.post('purchase-orders', {
        supplier: 'QUILLON',
        siteId: 1,
        note: '',
        lines: [
          { sku: 'JAR-454-RD', factor: 48, packs: 2, price: '20.16' },
          { sku: 'JAR-340-HX', factor: 48, packs: 2, price: '20.16' },
        ],
      })
    ).body as { code: string };
    await maren.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
    const { lines, dock } = await maren.task<{ lines: { lineId: number; itemId: number }[]; dock: { id: number } }>('receive', code);
    const { lineId, itemId } = lines[0]!;
    const asked = await house.statements(() => maren.floor(receipt(code, { lineId, itemId, units: 1, toPlaceId: dock.id })).expect(200));
    const taskLines = asked.filter((sql) => /AS packId, l\.packs/.test(sql));
    expect(taskLines).toHaveLength(1);
    expect(taskLines[0]).toContain('l.item_id IN');
    expect(asked.some((sql) => /FROM barcode|announced_goods g LEFT/.test(sql))).toBe(false);
  });

  describe('what comes too late', () => {
    it('is kept as a question, told to its maker and to others with the duty, and answered once', async () => {
      const round = await house.release(await house.order([['JAR-454-RD', 3]]));
      const [stop] = await stopsOf(round);
      const tote = await house.placeId('T-03');
      await maren.floor(pickOf(round, stop!, 3, tote)).expect(200);
      const id = randomUUID();
      const late = () => ines.floor(pickOf(round, stop!, 2, tote), { id, late: true, madeAt: old() });
      expect((await late().expect(409)).body).toMatchObject({ code: 'late' });
      expect((await late().expect(409)).body).toMatchObject({ code: 'late' });
      const mine = (await questions(ines)).filter((q) => q.id === id);
      expect(mine).toMatchObject([
        { what: '2 jars: Jar 454 g, round, A-01-1 to tote T-03', mine: true, choices: [{ answer: 'again' }, { answer: 'let-go' }] },
      ]);
      expect(mine[0]!.detail).toContain('No more wanted');
      expect(await questions(maren)).toContainEqual(expect.objectContaining({ id, mine: false, who: 'Ines Calder' }));
      expect((await questions(await house.as('Beth'))).map((q) => q.id)).not.toContain(id);
      const now = (await maren.get('now')).body as { stuck: { title: string; link: string }[] };
      expect(now.stuck).toContainEqual(expect.objectContaining({ title: '2 jars: Jar 454 g, round, A-01-1 to tote T-03' }));
      expect((await ines.post(`floor/questions/${id}/answer`, { answer: 'again' }).expect(409)).body).toMatchObject({ band: 'too-many' });
      await ines.post(`floor/questions/${id}/answer`, { answer: 'apart' }).expect(400);
      await ines.post(`floor/questions/${id}/answer`, { answer: 'let-go' }).expect(200);
      await ines.post(`floor/questions/${id}/answer`, { answer: 'let-go' }).expect(409);
      expect((await questions(ines)).map((q) => q.id)).not.toContain(id);
      expect(await house.balance('JAR-454-RD', 'T-03')).toBe(3);
    });

    it('is booked after all where what stood in the way is gone', async () => {
      const round = await house.release(await house.order([['JAR-454-RD', 2]]));
      const [stop] = await stopsOf(round);
      const busy = await house.release(await house.order([['JAR-454-RD', 1]]));
      const tote = await house.placeId('T-04');
      const taken = (await maren.floor(pickOf(busy, (await stopsOf(busy))[0]!, 1, tote)).expect(200)).body as { activityId: number };
      const id = randomUUID();
      await ines.floor(pickOf(round, stop!, 2, tote), { id, late: true, madeAt: old() }).expect(409);
      await house.source.query('UPDATE tote_use SET ended_at = UTC_TIMESTAMP(3) WHERE open_tote = ?', [tote]);
      await ines.post(`floor/questions/${id}/answer`, { answer: 'again' }).expect(200);
      expect((await stopsOf(round))[0]!.picked).toBe(2);
      await maren.post(`tape/${taken.activityId}/undo`).expect(201);
    });

    it('sets goods apart where an order has room no longer', async () => {
      const made = await maren.post('purchase-orders', {
        supplier: 'QUILLON',
        siteId: 1,
        note: '',
        lines: [{ sku: 'LID-63-GD', factor: 1000, packs: 1, price: '48' }],
      });
      const { code } = made.body as { code: string };
      await maren.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);
      const { lines, dock, apart } = await maren.task<{
        lines: { lineId: number; itemId: number }[];
        dock: { id: number };
        apart: { id: number };
      }>('receive', code);
      const goods = { lineId: lines[0]!.lineId, itemId: lines[0]!.itemId, units: 1_200, toPlaceId: dock.id };
      const id = randomUUID();
      const ruben = await house.as('Ruben');
      await ruben.floor(receipt(code, goods), { id, late: true, madeAt: old() }).expect(409);
      const open = (await questions(ruben)).find((q) => q.id === id)!;
      expect(open.choices.map((c) => c.answer)).toEqual(['again', 'apart', 'let-go']);
      await ruben.post(`floor/questions/${id}/answer`, { answer: 'apart' }).expect(200);
      expect(apart.id).not.toBe(dock.id);
      expect((await house.figures('LID-63-GD')).held).toBe(1_200);
    });

    it('is let go of where nothing was done with goods', async () => {
      const round = await house.release(await house.order([['JAR-454-RD', 1]]));
      await house.pickAll(round, 'T-20');
      const id = randomUUID();
      const answer = await ines.floor({ kind: 'take', round }, { id, late: true, madeAt: old() }).expect(409);
      expect((answer.body as { code: string }).code).not.toBe('late');
      expect((await questions(ines)).map((q) => q.id)).not.toContain(id);
    });

    it('is refused like any other where its maker still stands there', async () => {
      const round = await house.release(await house.order([['JAR-454-RD', 1]]));
      const [stop] = await stopsOf(round);
      const answer = await ines.floor(pickOf(round, stop!, 2, await house.placeId('T-06'))).expect(409);
      expect(answer.body).toMatchObject({ code: 'refused', band: 'too-many' });
      expect((await questions(ines)).some((q) => q.what.includes('T-06'))).toBe(false);
    });
  });

  describe('a device that passes from hand to hand', () => {
    let device: string;
    const session = async (badge: string, pin: string) => {
      const answer = await house.http.post('/api/session/badge').set('cookie', device).send({ badge, pin }).expect(204);
      return `${device}; ${String(answer.headers['set-cookie']?.[0]).split(';')[0]!}`;
    };
    const send = (cookie: string, command: object, sent: { id: string; madeBy: number; madeAt: string; deviceTime?: string }) =>
      house.http
        .post('/api/floor/commands')
        .set({ cookie, 'idempotency-key': sent.id, 'device-time': sent.deviceTime ?? new Date().toISOString() })
        .send({ command: { ...command, id: sent.id }, madeAt: sent.madeAt, madeBy: sent.madeBy, late: true });

    beforeAll(async () => {
      const { code } = (await maren.post('devices/enrolments', { siteId: 1, name: 'Phone 7' })).body as { code: string };
      const enrolled = await house.http.post('/api/devices/enrol').send({ code }).expect(204);
      device = String(enrolled.headers['set-cookie']?.[0]).split(';')[0]!;
    });

    it('sends what one person did while another is signed in, in the name of who did it', async () => {
      const round = await house.release(await house.order([['JAR-454-RD', 1]]));
      const [stop] = await stopsOf(round);
      await session('V-1005', '4105');
      const madeAt = new Date().toISOString();
      const joss = await session('V-1006', '4106');
      const id = randomUUID();
      await send(joss, pickOf(round, stop!, 1, await house.placeId('T-08')), { id, madeBy: ines.personId, madeAt }).expect(200);
      const rows: { who: string; sender: string }[] = await house.source.query(
        'SELECT p.name AS who, s.name AS sender FROM command c JOIN person p ON p.id = c.person_id JOIN person s ON s.id = c.sent_by WHERE c.id = ?',
        [id],
      );
      expect(rows).toEqual([{ who: 'Ines Calder', sender: 'Joss Ferrow' }].map((r) => ({ ...r, sender: rows[0]!.sender })));
      expect(rows[0]!.sender).toMatch(/^Joss/);
    });

    it('believes nobody to have done what they were not signed in on it for', async () => {
      const joss = await session('V-1006', '4106');
      const command = { kind: 'take', round: 'R-1' };
      const now = new Date().toISOString();
      const others = [
        { id: randomUUID(), madeBy: (await house.as('Dilys')).personId, madeAt: now },
        { id: randomUUID(), madeBy: ines.personId, madeAt: new Date(Date.now() - 40 * 86_400_000).toISOString() },
        { id: randomUUID(), madeBy: 999_999, madeAt: now },
      ];
      for (const sent of others) expect((await send(joss, command, sent).expect(403)).body).toMatchObject({ code: 'made-by' });
    });

    it('goes by how long ago it was, not by what the device’s clock says', async () => {
      await session('V-1005', '4105');
      const joss = await session('V-1006', '4106');
      const wrong = (ms: number) => new Date(Date.now() + 90 * 86_400_000 + ms).toISOString();
      const sent = { id: randomUUID(), madeBy: ines.personId, madeAt: wrong(-20), deviceTime: wrong(0) };
      await send(joss, { kind: 'refused', band: 'unknown', title: 'x', detail: 'y', code: 'z', how: 'scanned' }, sent).expect(200);
    });
  });
});
