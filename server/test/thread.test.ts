import { createHmac, randomUUID } from 'node:crypto';
import { type Codebook, type FloorCommand, type Flow, type FlowState, type OwnInput, pack, pick, receive, store } from '@vectrum/core/scan';
import { SHOP_SECRET } from '../src/demo/house.js';
import { Mailer } from '../src/platform/mailer.js';
import { type Caller, closing, House } from './house.js';
import { OutsideWorld } from './outside-world.js';

/** A phone that runs the real flow over the real task and posts what comes of it. */
class Phone<Task, State extends FlowState<Command>, Own extends OwnInput, Command extends FloorCommand> {
  private state: State;
  readonly bands: string[] = [];

  constructor(
    private readonly who: Caller,
    private readonly flow: Flow<Task, State, Own, Command>,
    private readonly key: string | number,
    private readonly book: Codebook,
  ) {
    this.state = flow.start;
  }

  async scan(...codes: string[]): Promise<void> {
    for (const code of codes) {
      const asked = this.state.pending.map((c) => c.id);
      const task = await this.who.task<Task>(this.flow.kind, this.key, asked);
      this.state = this.flow.step(task, this.book, this.state, { kind: 'settled', id: randomUUID(), ids: task.applied }).state;
      const step = this.flow.step(task, this.book, this.state, { kind: 'code', id: randomUUID(), code, how: 'scanned' });
      this.state = step.state;
      this.bands.push(step.feedback?.band ?? 'none');
      for (const command of step.commands.filter((c) => c.kind !== 'refused'))
        expect((await this.who.floor(command, { id: command.id })).status).toBe(200);
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
    book = await house.book(1);
  });
  afterAll(async () => {
    await house.close();
    await world.close();
  });

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

    const dock = new Phone(maren, receive, code, book);
    await dock.scan(TRAY, TRAY, 'DOCK-1', TRAY, 'VX-CONFIRM');
    expect(dock.bands).toEqual(['accepted', 'accepted', 'accepted', 'accepted', 'too-many']);
    expect(await house.balance('JAR-454-RD', 'DOCK-1')).toBe(96);

    const aisle = new Phone(maren, store, 1, book);
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

    const walk = new Phone(maren, pick, round, book);
    await walk.scan('T-01', 'A-01-1', TRAY, TRAY, JAR, JAR, 'TABLE-1');
    expect(walk.bands).toEqual(['accepted', 'accepted', 'accepted', 'too-many', 'accepted', 'accepted', 'accepted']);

    const bench = new Phone(maren, pack, order, book);
    await bench.scan(TRAY, JAR, JAR, JAR);
    expect(bench.bands).toEqual(['accepted', 'accepted', 'accepted', 'too-many']);

    await maren.floor(closing(order, { carton: 'B4', weightG: 540 + 50 * 245 })).expect(200);
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
