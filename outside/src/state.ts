import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export type Manner = 'well' | 'slow' | 'failing' | 'twice';
export type Part = 'shop' | 'carriers' | 'mail' | 'printer';

export interface ShopOrder {
  ref: string;
  placedAt: string;
  customer: string;
  email: string;
  address: { line: string; city: string; postcode: string; country: string };
  note: string | null;
  speed: string;
  lines: { sku: string; quantity: number; price: string }[];
}
export interface KeptOrder {
  number: number;
  order: ShopOrder;
  told: 'not yet' | 'told' | 'refused';
  shipments: { parcel: string; carrier: string; tracking: string }[];
}
export interface KeptParcel {
  parcel: string;
  carrier: string;
  tracking: string;
  service: string;
  price: string;
  to: string;
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
export interface World {
  stock: Record<string, { units: number; sequence: number; at: string }>;
  orders: KeptOrder[];
  parcels: KeptParcel[];
  mails: KeptMail[];
  papers: KeptPaper[];
  manners: Record<Part, Manner>;
}

const EMPTY: World = {
  stock: {},
  orders: [],
  parcels: [],
  mails: [],
  papers: [],
  manners: { shop: 'well', carriers: 'well', mail: 'well', printer: 'well' },
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
      return {
        ...structuredClone(EMPTY),
        ...(JSON.parse(readFileSync(join(this.dir, 'world.json'), 'utf8')) as World),
      };
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
