import { type Caller, closing, House, keyed, pickOf, receipt, type TakenStop } from './house.js';
import { OutsideWorld } from './outside-world.js';

interface Stop extends TakenStop {
  picked: number;
  short: number;
}

/** Brings a new document into a state, and on to its end by what is permitted there. */
type Way = () => Promise<void>;
/** An end; or what carries it on, where no person must. */
type Ways = Readonly<Record<string, Readonly<Record<string, Way | 'over' | 'by itself' | 'elsewhere'>>>>;

/** No document may come to where nothing is permitted: every state that the tables know has a way on, and it is gone here. */
describe('every state of a document', () => {
  let house: House;
  let world: OutsideWorld;
  let maren: Caller;
  let ines: Caller;
  let dilys: Caller;
  let dock: Caller;
  let tote = 10;
  beforeAll(async () => {
    world = await OutsideWorld.open();
    house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    [maren, ines, dilys, dock] = [await house.as('Maren'), await house.as('Ines'), await house.as('Dilys'), await house.as('Ruben')];
    await house.stock('JAR-454-RD', 'A-01-1', 500);
  });
  beforeEach(() => {
    world.answers = {
      'POST /carriers/harrier/labels': () => ({
        status: 200,
        body: { tracking: 'HP10000000GB', price: '3.60', pdf: Buffer.from('%PDF-1.3 a label').toString('base64') },
      }),
    };
  });
  afterAll(async () => {
    await house.close();
    await world.close();
  });

  const at = async (table: string, code: string) =>
    (await house.source.query<{ state: string }[]>(`SELECT state FROM \`${table}\` WHERE code = ?`, [code]))[0]?.state;
  const is = async (table: string, code: string, state: string) =>
    expect([table, code, await at(table, code)]).toEqual([table, code, state]);

  const address = { line: '2 Beacon Row', city: 'Netherwick', postcode: 'NW8 2RE', country: 'GB' };
  const order = (more: object = {}) => house.order([['JAR-454-RD', 2]], more);
  const quote = async () => ((await maren.post('orders', keyed({ quote: true })).expect(201)).body as { code: string }).code;
  const roundOf = async (code: string) =>
    (
      await house.source.query<{ code: string }[]>(
        'SELECT DISTINCT r.code FROM `round` r JOIN round_stop s ON s.round_id = r.id JOIN sales_order_line l ON l.id = s.order_line_id JOIN sales_order o ON o.id = l.order_id WHERE o.code = ? ORDER BY r.id DESC LIMIT 1',
        [code],
      )
    )[0]!.code;

  async function pickOne(round: string, units: number): Promise<void> {
    const stop = (await ines.task<{ stops: Stop[] }>('pick', round)).stops.find((s) => s.units > s.picked + s.short)!;
    await ines.floor(pickOf(round, stop, units, await house.placeId(`T-${tote}`))).expect(200);
  }

  /** What whoever sees only the state of an order would do with it, until it is gone. */
  async function carryOn(code: string): Promise<void> {
    for (let turn = 0; turn < 12; turn++) {
      const { state, version, parcels } = (await maren.get(`orders/${code}`)).body as {
        state: string;
        version: number;
        parcels: { code: string; state: string }[];
      };
      const match = { 'if-match': `"${version}"` };
      if (state === 'shipped') return;
      if (state === 'held') await maren.post(`orders/${code}/clear-hold`, { postcode: address.postcode }, match).expect(200);
      else if (state === 'open') await house.release(code);
      else if (state === 'released' || state === 'picking') await finishRound(await roundOf(code));
      else if (state === 'picked') await (await house.packAll(code)).floor(closing(code)).expect(200);
      else if (parcels.some((p) => p.state === 'label-asked')) await house.deliver();
      else
        await dilys
          .post('dispatch/hand-overs', { carrier: 'HARRIER', parcels: parcels.filter((p) => p.state === 'labelled').map((p) => p.code) })
          .expect(200);
    }
    throw new Error(`${code} is ${await at('sales_order', code)} and comes to no end`);
  }

  async function finishRound(round: string): Promise<void> {
    for (const stop of (await ines.task<{ stops: Stop[] }>('pick', round)).stops)
      if (stop.units > stop.picked + stop.short)
        await ines.floor(pickOf(round, stop, stop.units - stop.picked - stop.short, await house.placeId(`T-${tote}`))).expect(200);
    await ines.floor({ kind: 'set-down', round, placeId: await house.placeId('TABLE-1') }).expect(200);
  }

  /** An order in a state, with the acts that bring it there. */
  async function orderAt(state: string): Promise<string> {
    tote++;
    const code = await order(state === 'held' ? { address: { ...address, postcode: '' } } : {});
    if (state === 'open' || state === 'held') return code;
    const round = await house.release(code);
    if (state === 'released') return code;
    await pickOne(round, 1);
    if (state === 'picking') return code;
    await finishRound(round);
    if (state === 'picked') return code;
    await (await house.packAll(code)).floor(closing(code)).expect(200);
    return code;
  }
  const ofOrder = (state: string) => async () => {
    const code = await orderAt(state);
    await is('sales_order', code, state);
    await carryOn(code);
  };
  const ofRound = (state: string, orderState: string) => async () => {
    const code = await orderAt(orderState);
    const round = await roundOf(code);
    await is('round', round, state);
    await carryOn(code);
    expect(['set-down', 'done']).toContain(await at('round', round));
  };

  async function purchaseOrder(place = true): Promise<string> {
    const { code } = (
      await maren
        .post('purchase-orders', {
          supplier: 'QUILLON',
          siteId: 1,
          note: '',
          lines: [{ sku: 'JAR-454-RD', factor: 48, packs: 2, price: '20.16' }],
        })
        .expect(201)
    ).body as { code: string };
    if (place) await act(code, 'place');
    return code;
  }
  const act = async (code: string, name: string) => {
    const { version } = (await maren.get(`purchase-orders/${code}`)).body as { version: number };
    await maren.post(`purchase-orders/${code}/${name}`, {}, { 'if-match': `"${version}"` }).expect(200);
  };
  async function receive(document: string, units: number): Promise<void> {
    const { lines } = await dock.task<{ lines: { lineId: number; itemId: number }[] }>('receive', document);
    const goods = { lineId: lines[0]!.lineId, itemId: lines[0]!.itemId, units, toPlaceId: await house.placeId('DOCK-1') };
    await dock.floor(receipt(document, goods)).expect(200);
  }
  const close = (document: string) => dock.floor({ kind: 'close-arrival', document, paper: '' }).expect(200);
  /** Announced goods of an order, as their despatch advice leaves them. */
  async function announced(): Promise<string> {
    const [bought, code] = [await purchaseOrder(), `AN-${++tote}`];
    await house.source.query(
      `INSERT INTO arrival (code, site_id, supplier_id, state, expected_on, advice) SELECT ?, site_id, supplier_id, 'announced', '2026-01-05', ? FROM purchase_order WHERE code = ?`,
      [code, code, bought],
    );
    await house.source.query(
      'INSERT INTO arrival_order (arrival_id, order_id) SELECT a.id, o.id FROM arrival a, purchase_order o WHERE a.code = ? AND o.code = ?',
      [code, bought],
    );
    return code;
  }

  const WAYS: Ways = {
    sales_order: {
      ...Object.fromEntries(['open', 'held', 'released', 'picking', 'picked', 'packed'].map((state) => [state, ofOrder(state)])),
      quote: async () => {
        const code = await quote();
        await is('sales_order', code, 'quote');
        await maren.post(`orders/${code}/confirm`, {}, { 'if-match': '"1"' }).expect(200);
        tote++;
        await carryOn(code);
      },
      shipped: 'over',
      cancelled: 'over',
    },
    round: {
      waiting: ofRound('waiting', 'released'),
      picking: ofRound('picking', 'picking'),
      'set-down': ofRound('set-down', 'picked'),
      done: 'over',
    },
    parcel: {
      void: 'over',
      open: async () => {
        const code = await orderAt('picked');
        await dilys.floor({ kind: 'pack', order: code, parcel: 1, line: 1, units: 1, how: 'scanned' }).expect(200);
        await is('parcel', `${code}-1`, 'open');
        await carryOn(code);
        await is('parcel', `${code}-1`, 'gone');
      },
      'label-asked': async () => {
        world.answers = { 'POST /carriers/harrier/labels': () => ({ status: 422, body: { message: 'Too long for us' } }) };
        const code = await orderAt('packed');
        await is('parcel', `${code}-1`, 'label-asked');
        // It waits for the carrier; where that will not have it, it goes another way, and never only waits.
        await house.deliver();
        await dilys.post(`bench/parcels/${code}-1/service`, { service: { carrier: 'NOBODY', code: 'van' } }).expect(404);
        world.answers = {
          'POST /carriers/harrier/labels': () => ({ status: 200, body: { tracking: 'HP1GB', price: '3.60', pdf: 'JVBERi0=' } }),
        };
        await dilys.post(`bench/parcels/${code}-1/service`, { service: { carrier: 'HARRIER', code: 'parcel-24' } }).expect(204);
        await carryOn(code);
        await is('parcel', `${code}-1`, 'gone');
      },
      labelled: async () => {
        const code = await orderAt('packed');
        await house.deliver();
        await is('parcel', `${code}-1`, 'labelled');
        await carryOn(code);
        await is('parcel', `${code}-1`, 'gone');
      },
      gone: 'over',
    },
    purchase_order: {
      draft: async () => {
        const code = await purchaseOrder(false);
        await is('purchase_order', code, 'draft');
        await act(code, 'place');
        await act(code, 'cancel');
        await is('purchase_order', code, 'cancelled');
      },
      placed: async () => {
        const code = await purchaseOrder();
        await is('purchase_order', code, 'placed');
        await act(code, 'cancel');
        await is('purchase_order', code, 'cancelled');
      },
      'part-received': async () => {
        const code = await purchaseOrder();
        await receive(code, 48);
        await is('purchase_order', code, 'part-received');
        await act(code, 'close');
        await is('purchase_order', code, 'closed');
      },
      received: 'over',
      closed: 'over',
      cancelled: 'over',
    },
    arrival: {
      announced: async () => {
        const never = await announced();
        await maren.post(`arrivals/${never}/not-coming`).expect(200);
        await is('arrival', never, 'closed');
        const comes = await announced();
        await receive(comes, 96);
        await close(comes);
        await is('arrival', comes, 'closed');
      },
      open: async () => {
        // Also where it stands there without an order and holds nothing.
        const { code } = (await maren.post('floor/arrivals', { siteId: 1 }).expect(201)).body as { code: string };
        await is('arrival', code, 'open');
        await close(code);
        await is('arrival', code, 'closed');
      },
      closed: 'over',
    },
    bill: { differs: 'elsewhere', queried: 'elsewhere', posted: 'over' },
    // reopening.test.ts: asked again, kept, given back.
    parcel_label: { asked: 'by itself', kept: 'over', unwanted: 'by itself', void: 'over' },
    // tracking.test.ts: claimed, paid, let go; found again by itself.
    claim: { open: 'elsewhere', claimed: 'elsewhere', settled: 'over', dropped: 'over' },
    // spot-counts.test.ts: counted, decided, counted again, taken back.
    spot_count: { open: 'elsewhere', counted: 'elsewhere', settled: 'over', dropped: 'over' },
    // counts.test.ts: opened, closed, let go; decided line by line, counted again, taken back.
    stock_count: { 'drawn-up': 'elsewhere', open: 'elsewhere', review: 'elsewhere', closed: 'over', dropped: 'over' },
    count_bin: { open: 'elsewhere', begun: 'elsewhere', counted: 'over' },
    count_line: { open: 'elsewhere', counted: 'elsewhere', accepted: 'over', dropped: 'over' },
    // transfers.test.ts: gathered, sent, taken in, called off; what is missing is settled.
    transfer: {
      requested: 'elsewhere',
      gathering: 'elsewhere',
      'on-the-road': 'elsewhere',
      arriving: 'elsewhere',
      received: 'over',
      cancelled: 'over',
    },
    // transfer-parcels.test.ts: sent, taken out with its label given back, scanned where it comes.
    transfer_parcel: { packed: 'elsewhere', 'label-asked': 'elsewhere', labelled: 'elsewhere', removed: 'over' },
    // building.test.ts: gathered, built, called off, taken back.
    build: { planned: 'elsewhere', gathering: 'elsewhere', built: 'over', cancelled: 'over' },
    supplier_return: { sent: 'elsewhere', credited: 'over', 'taken back': 'over' },
    parked_message: { waiting: 'elsewhere', 'taken-in': 'over', 'set-aside': 'over' },
    unread_document: { waiting: 'elsewhere', 'taken-in': 'over', 'set-aside': 'over' },
    import_run: {
      read: 'elsewhere',
      checking: 'by itself',
      checked: 'elsewhere',
      applying: 'by itself',
      applied: 'over',
      undone: 'over',
      failed: 'elsewhere',
    },
    outbox: { waiting: 'by itself', failing: 'by itself', done: 'over' },
  };

  it('is named here, with its way on', async () => {
    const checks = await house.source.query<{ table: string; clause: string }[]>(
      `SELECT TABLE_NAME AS \`table\`, CHECK_CLAUSE AS clause FROM information_schema.CHECK_CONSTRAINTS WHERE CONSTRAINT_SCHEMA = DATABASE() AND CHECK_CLAUSE LIKE '%state\`%in (%'`,
    );
    const known = Object.fromEntries(
      checks.map(({ table, clause }) => [table, [...clause.matchAll(/'([^']+)'/g)].map((m) => m[1]!).sort()]),
    );
    expect(Object.fromEntries(Object.entries(WAYS).map(([table, states]) => [table, Object.keys(states).sort()]))).toEqual(known);
  });

  const gone = ['sales_order', 'round', 'parcel', 'purchase_order', 'arrival'] as const;
  const STATES = {
    sales_order: ['open', 'held', 'released', 'picking', 'picked', 'packed'],
    round: ['waiting', 'picking', 'set-down'],
    parcel: ['open', 'label-asked', 'labelled'],
    purchase_order: ['draft', 'placed', 'part-received'],
    arrival: ['announced', 'open'],
  } as const;
  it.each(gone.flatMap((table) => STATES[table].map((state) => [table, state] as const)))('has a way on: %s, %s', async (table, state) => {
    const way = WAYS[table]?.[state];
    expect(typeof way).toBe('function');
    await (way as Way)();
  });

  it('of an arrival that does not come is taken back from the tape, and its goods are booked in after all', async () => {
    const code = await announced();
    await dock.post(`arrivals/${code}/not-coming`).expect(200);
    expect(JSON.stringify((await dock.get('floor/receive')).body)).not.toContain(code);
    await dock.post(`arrivals/${code}/not-coming`).expect(409);
    const { entries } = (await dock.get(`tape?document=${code}`)).body as { entries: { id: number }[] };
    await dock.post(`tape/${entries[0]!.id}/undo`).expect(201);
    await is('arrival', code, 'announced');
    await receive(code, 96);
    const refused = await maren.post(`arrivals/${code}/not-coming`).expect(409);
    expect((refused.body as { detail: string }).detail).toContain('stands at the door');
    await close(code);
  });
});
