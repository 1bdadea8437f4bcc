import { type Caller, House, keyed, pickOf, type TakenStop } from './house.js';
import { OutsideWorld } from './outside-world.js';

export interface Line {
  line: number;
  sku: string | null;
  quantity: number;
  factor: number;
  price: string;
  wanted: number;
  reserved: number;
  picked: number;
  packed: number;
}
export interface Order {
  code: string;
  state: string;
  version: number;
  holdReason: string | null;
  holds: { id: number; kind: string; reason: string; owner: string | null; own: boolean }[];
  cancelledWhy: string | null;
  canFollow: boolean;
  channel: string;
  worth: string;
  lines: Line[];
  parcels: { code: string; state: string }[];
  [field: string]: unknown;
}
export interface StoreTask {
  goods: { itemId: number; lotId: number; units: number; fromPlaceId: number; fromCode: string }[];
}

export type Stop = TakenStop & { picked: number; short: number };

/** The hands of a desk and of a floor on one house: what keys, changes and cancels an order, and what picks and puts away its goods. */
export class DeskHands {
  private constructor(
    readonly house: House,
    readonly world: OutsideWorld,
    readonly desk: Caller,
    readonly ines: Caller,
    readonly dilys: Caller,
  ) {}

  /** A house with goods on its shelves and a carrier that answers. */
  static async open(): Promise<DeskHands> {
    const world = await OutsideWorld.open();
    const house = await House.open({ VECTRUM_OUTSIDE_URL: world.url });
    world.answers = {
      'POST /carriers/harrier/labels': () => ({
        status: 200,
        body: { tracking: 'HP10000000GB', price: '3.60', pdf: Buffer.from('%PDF-1.3 a label').toString('base64') },
      }),
    };
    await house.stock('JAR-454-RD', 'A-01-1', 500);
    await house.stock('JAR-227-RD', 'A-02-1', 40);
    return new DeskHands(house, world, await house.as('Maren'), await house.as('Ines'), await house.as('Dilys'));
  }

  async close(): Promise<void> {
    await this.house.close();
    await this.world.close();
  }

  sheet = async (code: string) => (await this.desk.get(`orders/${code}`).expect(200)).body as Order;
  at = (version: number) => ({ 'if-match': `"${version}"` });
  key = async (more: object = {}) => ((await this.desk.post('orders', keyed(more)).expect(201)).body as { code: string }).code;
  /** The order as a form would send it back, with changes. */
  async change(code: string, more: object | ((order: Order) => object), status = 200) {
    const o = await this.sheet(code);
    const lines = o.lines
      .filter((l) => l.quantity > 0 && (l as { kit?: number | null }).kit == null)
      .map((l) => ({ line: l.line, sku: l.sku ?? '', factor: l.factor, quantity: String(l.quantity), price: l.price }));
    const fields = [
      'account',
      'customer',
      'email',
      'phone',
      'addressLine',
      'city',
      'postcode',
      'country',
      'siteId',
      'speed',
      'priority',
      'wholeOnly',
    ];
    const body = {
      ...Object.fromEntries(fields.map((f) => [f, o[f]])),
      notePacker: o['notePacker'] ?? '',
      notePicker: o['notePicker'] ?? '',
      promisedAt: o['promisedAt'],
      lines,
      why: 'the customer rang',
      ...(typeof more === 'function' ? more({ ...o, lines: lines as never }) : more),
    };
    return this.desk.put(`orders/${code}`, body, this.at(o.version)).expect(status);
  }
  quantity = (line: number, to: string) => (o: Order) => ({
    lines: o.lines.map((l) => (l.line === line ? { ...l, quantity: to } : l)),
  });
  async cancel(code: string, status = 200) {
    const { version } = await this.sheet(code);
    return this.desk.post(`orders/${code}/cancel`, { why: 'no longer wanted', tell: false }, this.at(version)).expect(status);
  }
  stopsOf = async (round: string) => (await this.ines.task<{ stops: Stop[] }>('pick', round)).stops;
  /** A tote that nothing lies in and nobody uses. */
  async freeTote(): Promise<string> {
    const [free] = await this.house.source.query<{ code: string }[]>(
      `SELECT p.code FROM place p WHERE p.kind = 'tote' AND p.site_id = 1 AND NOT EXISTS (SELECT 1 FROM tote_use u WHERE u.open_tote = p.id) AND NOT EXISTS (SELECT 1 FROM balance b WHERE b.place_id = p.id AND b.units > 0) ORDER BY p.code LIMIT 1`,
    );
    return free!.code;
  }
  async pick(round: string, units?: number): Promise<string> {
    const into = await this.freeTote();
    for (const stop of await this.stopsOf(round)) {
      const left = stop.units - stop.picked - stop.short;
      if (left > 0) await this.ines.floor(pickOf(round, stop, Math.min(left, units ?? left), await this.house.placeId(into))).expect(200);
    }
    return into;
  }
  setDown = async (round: string) => this.ines.floor({ kind: 'set-down', round, placeId: await this.house.placeId('TABLE-1') }).expect(200);
  async picked(code: string): Promise<string> {
    const round = await this.house.release(code);
    const into = await this.pick(round);
    await this.setDown(round);
    return into;
  }
  async putBack(from: string): Promise<number> {
    const store = await this.house.as('Maren');
    const { goods } = await store.task<StoreTask>('store', 1);
    let units = 0;
    for (const g of goods.filter((x) => x.fromCode === from)) {
      const { itemId, lotId, fromPlaceId } = g;
      await store
        .floor({ kind: 'store', itemId, lotId, units: g.units, fromPlaceId, toPlaceId: await this.house.placeId('A-01-1'), how: 'scanned' })
        .expect(200);
      units += g.units;
    }
    return units;
  }
  isFree = async (code: string) =>
    (await this.house.source.query<object[]>('SELECT u.id FROM tote_use u JOIN place p ON p.id = u.open_tote WHERE p.code = ?', [code]))
      .length === 0;
}
