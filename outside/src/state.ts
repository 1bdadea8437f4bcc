import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export type Manner = 'well' | 'slow' | 'failing' | 'twice';
export type Part = 'shop' | 'lindenmart' | 'trade' | 'carriers' | 'suppliers' | 'mail' | 'printer' | 'scale';

export interface ShopOrder {
  ref: string;
  placedAt: string;
  customer: string;
  email: string;
  address: { line: string; city: string; postcode: string; country: string };
  note: string | null;
  speed: string;
  lines: { sku: string; quantity: number; price: string }[];
  /** How often it was said. */
  revision?: number;
}
export interface KeptOrder {
  number: number;
  order: ShopOrder;
  /** What was asked of it afterwards. */
  cancelled?: 'by the customer' | 'by the stores';
  told: 'not yet' | 'told' | 'refused';
  /** What was sent, with what is in each parcel. */
  shipments: { parcel: string; carrier: string; tracking: string; lines?: { sku: string; units: number }[] }[];
  returns?: KeptReturn[];
}
/** Goods that a customer of the shop sends back, and what the stores did about it. */
export interface KeptReturn {
  returnRef: string;
  lines: { sku: string; quantity: number; reason: string }[];
  wish: string | null;
  told: 'not yet' | 'told' | 'refused';
  settled?: { code: string; settlement: string; amount: string | null };
}
export interface KeptParcel {
  parcel: string;
  /** The sender's own name for this label. */
  reference?: string;
  carrier: string;
  tracking: string;
  service: string;
  price: string;
  to: string;
  /** The number of a booked collection. */
  booking?: string;
  steps: { at: string; what: string }[];
}
export interface KeptMail {
  at: string;
  id: string;
  to: string;
  subject: string;
  text: string;
  attachments: string[];
}
export interface KeptPaper {
  at: string;
  bytes: number;
  file: string;
}
/** An order as a supplier's system holds it. */
export interface KeptPurchase {
  at: string;
  order: string;
  /** The supplier's code and name, as the order says them. */
  supplier: string;
  name: string;
  said: string;
  /** How many papers were sent about it. */
  papers: number;
  lines: { line: number; packs: number; price: string; name: string }[];
}
/** An order of the marketplace. */
export interface MarketOrder {
  number: string;
  status: 'placed' | 'cancelled';
  edition: number;
  bought: string;
  dispatchBy: string;
  recipient: { name: string; street: string; town: string; postcode: string; country: string };
  message: string | null;
  goods: { offer: string; count: number; unitPrice: string }[];
}
export interface KeptMarketOrder {
  /** Where it stands among all that was ever said: an order that is said again moves to the end. */
  at: number;
  order: MarketOrder;
  sellersNumber: string | null;
  parcels: { parcel: string; tracking: string }[];
  refused: string | null;
}
/** A trade customer's order, and what the stores answered. */
export interface KeptTradeOrder {
  number: string;
  customer: string;
  told: string;
  answers: { code: string; note: string }[];
  /** What was told of it by DespatchAdvice: parcels with their number on the road and units. */
  parcels?: { parcel: string; tracking: string; units: number }[];
  /** Invoices and credit notes about it. */
  bills?: { code: string; kind: 'invoice' | 'credit'; payable: string }[];
  lines: { sku: string; quantity: number }[];
}
export interface World {
  market: { orders: KeptMarketOrder[]; offers: Record<string, { count: number; version: number; at: string }>; penalties: string[] };
  trade: KeptTradeOrder[];
  stock: Record<string, { units: number; sequence: number; at: string }>;
  orders: KeptOrder[];
  parcels: KeptParcel[];
  /** What carriers have said of parcels, in the order in which it happened. */
  events: { number: number; carrier: string; tracking: string; what: string; at: string; note: string }[];
  purchases: KeptPurchase[];
  mails: KeptMail[];
  papers: KeptPaper[];
  /** What lies on the scale at the packing table, in grams. */
  onScaleG: number;
  manners: Record<Part, Manner>;
}

const EMPTY: World = {
  market: { orders: [], offers: {}, penalties: [] },
  trade: [],
  stock: {},
  orders: [],
  parcels: [],
  events: [],
  purchases: [],
  mails: [],
  papers: [],
  onScaleG: 0,
  manners: {
    shop: 'well',
    lindenmart: 'well',
    trade: 'well',
    carriers: 'well',
    suppliers: 'well',
    mail: 'well',
    printer: 'well',
    scale: 'well',
  },
};

/** What the outside world remembers; kept in one file, so that it survives a restart. */
export class WorldState {
  readonly world: World;
  private timer: NodeJS.Timeout | undefined;

  constructor(readonly dir: string) {
    mkdirSync(join(dir, 'papers'), { recursive: true });
    this.world = this.read();
  }

  /** Writes soon; changes that come together are written once. */
  changed(): void {
    this.timer ??= setTimeout(() => this.write(), 50);
  }

  write(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    const path = join(this.dir, 'world.json');
    writeFileSync(`${path}.new`, JSON.stringify(this.world));
    renameSync(`${path}.new`, path);
  }

  private read(): World {
    try {
      const kept = JSON.parse(readFileSync(join(this.dir, 'world.json'), 'utf8')) as World;
      return { ...structuredClone(EMPTY), ...kept, manners: { ...EMPTY.manners, ...kept.manners } };
    } catch {
      return structuredClone(EMPTY);
    }
  }
}

const SLOW_MS = 3_000;

/** Makes a part behave as the console asks: late, or not at all. */
export async function behave(manner: Manner): Promise<void> {
  if (manner === 'slow') await new Promise((done) => setTimeout(done, SLOW_MS));
  if (manner === 'failing') throw new Error('out of order');
}
