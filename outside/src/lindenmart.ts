import { randomInt } from 'node:crypto';
import { CATALOGUE } from './catalogue.js';
import { json, Refused } from './http.js';
import { behave, type KeptMarketOrder, type MarketOrder, type WorldState } from './state.js';

/** Its own codes for some of the goods, as its sellers have agreed them. */
export const OFFERS: Readonly<Record<string, string>> = {
  'LM-88121': 'JAR-454-RD',
  'LM-88140': 'FRM-DN1',
  'LM-90017': 'SMK-LGE',
  'LM-90230': 'SUIT-M',
  'LM-91402': 'WAX-DN-10',
  'LM-91555': 'TOOL-JH',
};
const CALLS_A_SECOND = 40;
const HOUR = 3_600_000;
const BUYERS = ['Otto Lindqvist', 'Marguerite Vane', 'S. Achterberg', 'Fenella Crook'] as const;

export class MarketBusy extends Refused {
  readonly retryAfter = 1;
  constructor() {
    super(429, 'Too many calls in this second');
  }
}

/** The marketplace: it never sends, but is asked; it counts calls, and charges for what is late or was not there. */
export class Lindenmart {
  private second = 0;
  private calls = 0;

  constructor(
    private readonly state: WorldState,
    private readonly key: string,
  ) {}

  /** Refuses a wrong key, and more calls in a second than it bears. */
  async mustBear(authorization: string | undefined): Promise<void> {
    if (authorization !== `Bearer ${this.key}`) throw new Refused(401, 'This key is not known');
    const now = Math.floor(Date.now() / 1000);
    if (now !== this.second) [this.second, this.calls] = [now, 0];
    if (++this.calls > CALLS_A_SECOND) throw new MarketBusy();
    await behave(this.state.world.manners.lindenmart);
  }

  /** Somebody buys against the count that the market believes; where there is none the seller is charged for it later. */
  buy(lines: readonly { offer: string; count: number }[], more: Partial<MarketOrder> = {}): MarketOrder {
    const { market } = this.state.world;
    for (const { offer, count } of lines) {
      const known = market.offers[offer];
      if (known && known.count < count) throw new Refused(409, `The market believes that only ${known.count} of ${offer} are left`);
      if (known) known.count -= count;
    }
    const order: MarketOrder = {
      number: `LM-${String(40_000 + market.orders.length)}-${randomInt(100, 999)}`,
      status: 'placed',
      edition: 0,
      bought: new Date().toISOString(),
      dispatchBy: new Date(Date.now() + 26 * HOUR).toISOString(),
      recipient: {
        name: BUYERS[market.orders.length % BUYERS.length] ?? BUYERS[0],
        street: '7 Fulling Lane',
        town: 'Hathersley',
        postcode: 'HA1 3PN',
        country: 'GB',
      },
      message: null,
      goods: lines.map((l) => ({ ...l, unitPrice: priceOf(l.offer) })),
      ...more,
    };
    this.say({ at: 0, order, sellersNumber: null, parcels: [], refused: null });
    return order;
  }

  /** The buyer cancels, or takes one fewer: the order is said again, at the end. */
  changeOf(number: string, what: 'change' | 'cancel'): MarketOrder {
    const kept = this.kept(number);
    const first = kept.order.goods[0];
    kept.order.edition++;
    if (what === 'cancel') kept.order.status = 'cancelled';
    else if (first) first.count = first.count > 1 ? first.count - 1 : 2;
    this.say(kept);
    return kept.order;
  }

  /** An order that breaks the market's own rules. */
  odd(): void {
    this.say({
      at: 0,
      order: { number: `LM-ODD-${randomInt(1000, 9999)}`, goods: 'jars' } as never,
      sellersNumber: null,
      parcels: [],
      refused: null,
    });
  }

  private say(kept: KeptMarketOrder): void {
    const { orders } = this.state.world.market;
    const others = orders.filter((o) => o !== kept);
    kept.at = Math.max(0, ...others.map((o) => o.at)) + 1;
    this.state.world.market.orders = [...others, kept];
    this.state.changed();
  }

  after(cursor: string): { orders: MarketOrder[]; after: string } {
    const from = Number(cursor) || 0;
    const fresh = this.state.world.market.orders.filter((o) => o.at > from).slice(0, 100);
    const twice = this.state.world.manners.lindenmart === 'twice' ? [...fresh, ...fresh] : fresh;
    return { orders: twice.map((o) => o.order), after: String(fresh.at(-1)?.at ?? from) };
  }

  offers(): object {
    const { offers } = this.state.world.market;
    return {
      offers: Object.entries(OFFERS).map(([sku, own]) => ({
        sku,
        title: CATALOGUE.find((c) => c.sku === own)?.title ?? sku,
        price: priceOf(sku),
        count: offers[sku]?.count ?? 0,
      })),
    };
  }

  /** What the seller says of an offer or an order. An older count than the last is passed over. */
  hear(path: readonly string[], body: string): object {
    const [kind = '', code = '', what = ''] = path;
    const said = json(body);
    // What was sold before it began to remember is nothing to it.
    if (kind === 'orders' && !this.state.world.market.orders.some((o) => o.order.number === code)) return {};
    if (kind === 'offers' && what === 'count') this.count(code, said);
    else if (kind === 'orders' && what === 'taken') this.kept(code).sellersNumber = String(said['sellersNumber']);
    else if (kind === 'orders' && what === 'parcels') this.sent(this.kept(code), said);
    else if (kind === 'orders' && what === 'refused') this.refused(this.kept(code), String(said['why']));
    else throw new Refused(404, 'There is nothing here');
    this.state.changed();
    return {};
  }

  private count(offer: string, { count, version }: Record<string, unknown>): void {
    if (!Number.isInteger(count) || !Number.isInteger(version)) throw new Refused(400, 'count and version are whole numbers');
    const known = this.state.world.market.offers[offer];
    if (!known || known.version <= Number(version))
      this.state.world.market.offers[offer] = { count: Number(count), version: Number(version), at: new Date().toISOString() };
  }

  private sent(kept: KeptMarketOrder, { parcel, tracking }: Record<string, unknown>): void {
    if (kept.parcels.some((p) => p.parcel === parcel)) return;
    kept.parcels.push({ parcel: String(parcel), tracking: String(tracking) });
    if (Date.now() > Date.parse(kept.order.dispatchBy)) this.charge(`${kept.order.number} left late`);
  }

  private refused(kept: KeptMarketOrder, why: string): void {
    if (kept.refused === null && kept.order.status === 'placed') this.charge(`${kept.order.number} was sold and could not be sent`);
    kept.refused = why;
  }

  private charge(why: string): void {
    this.state.world.market.penalties.push(why);
  }

  private kept(number: string): KeptMarketOrder {
    const kept = this.state.world.market.orders.find((o) => o.order.number === number);
    if (!kept) throw new Refused(404, 'There is no such order');
    return kept;
  }
}

const priceOf = (offer: string): string => CATALOGUE.find((c) => c.sku === OFFERS[offer])?.price ?? '9.50';
