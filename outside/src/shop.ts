import { createHmac, randomInt } from 'node:crypto';
import { CATALOGUE } from './catalogue.js';
import { json, Refused } from './http.js';
import { behave, type KeptOrder, type KeptReturn, type ShopOrder, type WorldState } from './state.js';

const RETRY_MS = 4_000;

export interface Basket {
  customer?: string;
  email?: string;
  line?: string;
  city?: string;
  postcode?: string;
  note?: string | null;
  lines: { sku: string; quantity: number }[];
}

/** The web shop: customers buy, the stores are told by signed message, and may ask for what they missed. */
export class Shop {
  constructor(
    private readonly state: WorldState,
    private readonly houseUrl: string,
    private readonly secret: string,
  ) {}

  private sign(body: string): string {
    return createHmac('sha256', this.secret).update(body).digest('hex');
  }

  mustBeSigned(body: string, given: string | undefined): void {
    if (given !== this.sign(body)) throw new Refused(401, 'The signature does not match');
  }

  /** A customer buys. The order is sold against what the shop believes about stock. */
  buy(basket: Basket): ShopOrder {
    const { orders, stock } = this.state.world;
    for (const line of basket.lines) {
      const known = stock[line.sku];
      if (known && known.units < line.quantity)
        throw new Refused(409, `The shop believes that only ${known.units} of ${line.sku} are left`);
      if (known) known.units -= line.quantity;
    }
    const number = (orders.at(-1)?.number ?? 3000) + 1;
    const order: ShopOrder = {
      ref: `W${number}-${randomInt(1000, 9999)}`,
      placedAt: new Date().toISOString(),
      customer: basket.customer ?? 'Wick Hill Farm',
      email: basket.email ?? 'wickhill@mail.example',
      address: {
        line: basket.line ?? '2 Beacon Row',
        city: basket.city ?? 'Netherwick',
        postcode: basket.postcode ?? 'NW8 2RE',
        country: 'GB',
      },
      note: basket.note ?? null,
      speed: 'standard',
      lines: basket.lines.map((l) => ({
        ...l,
        price: CATALOGUE.find((c) => c.sku === l.sku)?.price ?? '1.00',
      })),
    };
    const kept: KeptOrder = { number, order, told: 'not yet', shipments: [] };
    orders.push(kept);
    this.state.changed();
    void this.tell(kept);
    return order;
  }

  /** The customer changes their mind: one fewer or more of the first goods, or nothing at all. */
  changeOf(ref: string, what: 'change' | 'cancel'): ShopOrder {
    const kept = this.state.world.orders.find((o) => o.order.ref === ref);
    const first = kept?.order.lines[0];
    if (!kept || !first) throw new Refused(404, 'There is no such order');
    if (what === 'cancel') kept.cancelled = 'by the customer';
    else {
      first.quantity = first.quantity > 1 ? first.quantity - 1 : 2;
      kept.order.revision = (kept.order.revision ?? 0) + 1;
    }
    this.state.changed();
    void this.tell(kept);
    return kept.order;
  }

  /** The customer sends something of an order back: one of its first goods, unless they say what. */
  sendBack(ref: string, asked: Partial<Pick<KeptReturn, 'lines' | 'wish'>>): KeptReturn {
    const kept = this.state.world.orders.find((o) => o.order.ref === ref);
    const first = kept?.order.lines[0];
    if (!kept || !first) throw new Refused(404, 'There is no such order');
    const returns = (kept.returns ??= []);
    const lines = asked.lines ?? [{ sku: first.sku, quantity: 1, reason: 'unwanted' }];
    const back: KeptReturn = { returnRef: `${ref}-R${returns.length + 1}`, lines, wish: asked.wish ?? null, told: 'not yet' };
    returns.push(back);
    this.state.changed();
    void this.tellReturn(kept, back);
    return back;
  }

  /** The stores say what they did about goods that came back. Said twice, it is the same. */
  async settleReturn(ref: string, code: string, body: string): Promise<void> {
    await behave(this.state.world.manners.shop);
    const { returnRef, settlement, amount } = json(body);
    const kept = this.state.world.orders.find((o) => o.order.ref === ref);
    const back = kept?.returns?.find((r) => r.returnRef === returnRef || r.settled?.code === code);
    const settled = { code, settlement: String(settlement), amount: typeof amount === 'string' ? amount : null };
    if (back) back.settled = settled;
    // What its customer brought to the stores themselves is news to the shop.
    else if (kept) (kept.returns ??= []).push({ returnRef: code, lines: [], wish: null, told: 'told', settled });
    this.state.changed();
  }

  private async tellReturn(kept: KeptOrder, back: KeptReturn, left = 3): Promise<void> {
    try {
      await behave(this.state.world.manners.shop);
      const times = this.state.world.manners.shop === 'twice' ? 2 : 1;
      for (let i = 0; i < times; i++) {
        const response = await this.send(JSON.stringify(saidReturn(kept, back)));
        if (response.status >= 500) throw new Error('The stores are not there');
        back.told = response.ok ? 'told' : 'refused';
      }
    } catch {
      if (left > 0) setTimeout(() => void this.tellReturn(kept, back, left - 1), RETRY_MS).unref();
    }
    this.state.changed();
  }

  /** Something goes wrong in the shop: it sends what nobody can read. */
  async odd(): Promise<object> {
    const body = JSON.stringify({ ref: `ODD-${randomInt(1000, 9999)}`, lines: 'two jars', customer: null });
    const response = await this.send(body);
    return { said: response.status };
  }

  /** What it offers, and what it believes of each. */
  goods(): object {
    return { goods: CATALOGUE };
  }

  stock(): object {
    return { stock: Object.entries(this.state.world.stock).map(([sku, { units }]) => ({ sku, units })) };
  }

  /** The stores cannot send an order. */
  async cancelledByStores(ref: string): Promise<void> {
    await behave(this.state.world.manners.shop);
    const kept = this.state.world.orders.find((o) => o.order.ref === ref);
    if (kept) kept.cancelled = 'by the stores';
    this.state.changed();
  }

  private async tell(kept: KeptOrder, left = 3): Promise<void> {
    const { manners } = this.state.world;
    try {
      await behave(manners.shop);
      const times = manners.shop === 'twice' ? 2 : 1;
      for (let i = 0; i < times; i++) await this.post(kept);
    } catch {
      if (left > 0) setTimeout(() => void this.tell(kept, left - 1), RETRY_MS).unref();
    }
    this.state.changed();
  }

  private async post(kept: KeptOrder): Promise<void> {
    const response = await this.send(JSON.stringify(said(kept)));
    kept.told = response.ok ? 'told' : 'refused';
    if (response.status >= 500) throw new Error('The stores are not there');
  }

  private send(body: string): Promise<Response> {
    return fetch(`${this.houseUrl}/api/channels/SHOP/webhook`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-signature': this.sign(body) },
      body,
      signal: AbortSignal.timeout(5_000),
    });
  }

  /** Orders after a cursor, for stores that missed a message. */
  async since(cursor: string): Promise<{ orders: object[]; cursor: string }> {
    await behave(this.state.world.manners.shop);
    const after = Number(cursor) || 0;
    const fresh = this.state.world.orders.filter((o) => o.number > after).slice(0, 100);
    // Returns that the stores never heard of are said with whatever is asked for; those that they have are the same to them.
    const returns = this.state.world.orders.flatMap((o) =>
      (o.returns ?? []).filter((r) => r.told === 'not yet').map((r) => saidReturn(o, r)),
    );
    return { orders: [...fresh.map(said), ...returns], cursor: String(fresh.at(-1)?.number ?? after) };
  }

  /** The stores tell what may be sold. Messages may come twice; an older one than the last is passed over. */
  async setStock(sku: string, body: string): Promise<void> {
    await behave(this.state.world.manners.shop);
    const { units, sequence } = json(body);
    if (!Number.isInteger(units) || !Number.isInteger(sequence)) throw new Refused(400, 'units and sequence are whole numbers');
    const known = this.state.world.stock[sku];
    if (!known || known.sequence <= Number(sequence))
      this.state.world.stock[sku] = {
        units: Number(units),
        sequence: Number(sequence),
        at: new Date().toISOString(),
      };
    this.state.changed();
  }

  async addShipment(ref: string, parcel: string, body: string): Promise<void> {
    await behave(this.state.world.manners.shop);
    const { carrier, tracking, lines } = json(body);
    const kept = this.state.world.orders.find((o) => o.order.ref === ref);
    if (kept && !kept.shipments.some((s) => s.parcel === parcel))
      kept.shipments.push({
        parcel,
        carrier: String(carrier),
        tracking: String(tracking),
        lines: Array.isArray(lines) ? (lines as []) : [],
      });
    this.state.changed();
  }
}

function saidReturn({ order }: KeptOrder, { returnRef, lines, wish }: KeptReturn): object {
  return { ref: order.ref, state: 'returned', returnRef, lines, wish };
}

/** An order as it is said: what is cancelled, as cancelled. */
function said({ order, cancelled }: KeptOrder): object {
  return cancelled ? { ref: order.ref, state: 'cancelled', why: `cancelled ${cancelled}` } : order;
}
