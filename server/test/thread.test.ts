import { createHmac, randomUUID } from 'node:crypto';
import {
  pack,
  pick,
  receive,
  startPack,
  startPick,
  startReceive,
  startStore,
  store,
  type Bundle,
  type Codebook,
  type PackTask,
  type PickTask,
  type ReceiveTask,
  type ScanInput,
  type Step,
  type StoreTask,
} from '@vectrum/core/scan';
import { SHOP_SECRET } from '../src/demo/house.js';
import { Mailer } from '../src/platform/mailer.js';
import { type Caller, House } from './house.js';
import { OutsideWorld } from './outside-world.js';

interface Command {
  kind: string;
  id: string;
}

/** A phone that runs the real reducer over the real bundle and posts what comes of it. */
class Phone<Task extends Bundle, State extends { pending: readonly { id: string }[] }> {
  private state: State;
  readonly bands: string[] = [];

  constructor(
    private readonly fetchTask: () => Promise<Task>,
    private readonly book: Codebook,
    start: State,
    private readonly reduce: (t: Task, b: Codebook, s: State, i: ScanInput) => Step<State, Command>,
    private readonly send: (c: Command & Record<string, unknown>) => Promise<number>,
  ) {
    this.state = start;
  }

  async scan(...codes: string[]): Promise<void> {
    for (const code of codes) {
      const task = await this.fetchTask();
      for (const p of this.state.pending.filter((x) => task.applied.includes(x.id)))
        this.state = this.reduce(task, this.book, this.state, { kind: 'settled', id: p.id }).state;
      const step = this.reduce(task, this.book, this.state, { kind: 'code', id: randomUUID(), code, how: 'scanned' });
      this.state = step.state;
      this.bands.push(step.feedback?.band ?? 'none');
      for (const command of step.commands.filter((c) => c.kind !== 'refused')) expect(await this.send(command as never)).toBe(200);
    }
  }
}

describe('one jar, from purchase order to doorstep, by scans alone', () => {
  let house: House;
  let world: OutsideWorld;
  let maren: Caller;
  let book: Codebook;
  const mails: string[] = [];
  const TRAY = '19521077000017';
  const JAR = '09521077000010';

  beforeAll(async () => {
    world = await OutsideWorld.open();
    world.answers = {
      'POST /carriers/harrier/labels': () => ({
        status: 200,
        body: { tracking: 'HP1', price: '3.60', pdf: Buffer.from('%PDF-1.3').toString('base64') },
      }),
    };
    house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    house.app.get(Mailer).send = (mail) => {
      mails.push(mail.subject);
      return Promise.resolve();
    };
    maren = await house.as('Maren');
    book = (await maren.get('floor/codebook?site=1')).body as Codebook;
  });
  afterAll(async () => {
    await house.close();
    await world.close();
  });

  const fetcher =
    <T>(path: string) =>
    async () =>
      (await maren.get(path).expect(200)).body as T;
  const poster =
    (path: (c: Command) => string, drop: string[]) =>
    async ({ kind: _kind, id, ...body }: Command & Record<string, unknown>) =>
      (
        await maren.post(path({ kind: _kind, id }), Object.fromEntries(Object.entries(body).filter(([k]) => !drop.includes(k))), {
          'idempotency-key': id,
        })
      ).status;

  it('is bought, received, put away, sold, picked, packed and gone', async () => {
    const { code } = (
      await maren.post('purchase-orders', {
        supplier: 'QUILLON',
        siteId: 1,
        note: '',
        lines: [{ sku: 'JAR-454-RD', factor: 48, packs: 2, price: '20.16' }],
      })
    ).body as { code: string };
    await maren.post(`purchase-orders/${code}/place`, {}, { 'if-match': '"1"' }).expect(200);

    const dock = new Phone(
      fetcher<ReceiveTask & Bundle>(`floor/receive/${code}`),
      book,
      startReceive,
      receive,
      poster(() => `floor/receive/${code}`, ['document']),
    );
    await dock.scan(TRAY, TRAY, 'DOCK-1', TRAY, 'VX-CONFIRM');
    expect(dock.bands).toEqual(['accepted', 'accepted', 'accepted', 'accepted', 'too-many']);
    expect(await house.balance('JAR-454-RD', 'DOCK-1')).toBe(96);

    const aisle = new Phone(
      fetcher<StoreTask & Bundle>('floor/store?site=1'),
      book,
      startStore,
      store,
      poster(() => 'floor/store', []),
    );
    await aisle.scan(JAR, 'TABLE-1', 'A-01-1', JAR);
    expect(aisle.bands).toEqual(['accepted', 'not-this', 'accepted', 'not-this']);

    const body = JSON.stringify({
      ref: 'W-1',
      placedAt: new Date().toISOString(),
      customer: 'Petra',
      email: 'p@mail.example',
      address: { line: 'x', city: 'y', postcode: 'NW8 2RE', country: 'GB' },
      lines: [{ sku: 'JAR-454-RD', quantity: 50, price: '0.95' }],
    });
    const sold = await house.http
      .post('/api/channels/SHOP/webhook')
      .set({ 'content-type': 'application/json', 'x-signature': createHmac('sha256', SHOP_SECRET).update(body).digest('hex') })
      .send(body);
    const order = (sold.body as { code: string }).code;
    const round = await house.release(order);

    const walk = new Phone(
      fetcher<PickTask & Bundle>(`floor/rounds/${round}`),
      book,
      startPick,
      pick,
      poster((c) => `floor/rounds/${round}/${{ pick: 'picks', short: 'shorts', 'set-down': 'set-down' }[c.kind] ?? ''}`, ['round']),
    );
    await walk.scan('T-01', 'A-01-1', TRAY, TRAY, JAR, JAR, 'TABLE-1');
    expect(walk.bands).toEqual(['accepted', 'accepted', 'accepted', 'too-many', 'accepted', 'accepted', 'accepted']);

    const bench = new Phone(
      fetcher<PackTask & Bundle>(`bench/orders/${order}/task`),
      book,
      startPack,
      pack,
      poster(() => `bench/orders/${order}/packs`, ['order']),
    );
    await bench.scan(TRAY, JAR, JAR, JAR);
    expect(bench.bands).toEqual(['accepted', 'accepted', 'accepted', 'too-many']);

    await maren
      .post(`bench/orders/${order}/label`, { carton: 'B4', weightG: 540 + 50 * 245, carrier: 'HARRIER', service: 'parcel-48' })
      .expect(200);
    await house.deliver();
    await maren.post('dispatch/hand-overs', { carrier: 'HARRIER', parcels: [`${order}-1`] }).expect(200);
    await house.deliver();
    expect(await house.figures('JAR-454-RD')).toEqual({ onHand: 46, held: 0, reserved: 0 });
    expect(await house.balance('JAR-454-RD', 'CUSTOMER')).toBe(50);
    expect(JSON.parse(world.at('/shop/stock/JAR-454-RD').at(-1)!.body)).toMatchObject({ units: 44 });
    expect(world.at(`/shop/orders/W-1/shipments/${order}-1`)).toHaveLength(1);
    expect(mails).toEqual([`Purchase order ${code}`, 'Your order W-1 is on its way']);
  });
});
