import type { Query } from '@tanstack/react-query';
import type { Dto } from './client';

export type Topic = Dto['Topic'];

/**
 * Everything that is read from the server, by name, and what it shows: when an act has changed one of these, it is read
 * again. `own` is read again by nobody but who changes it; `always` shows something of everything.
 */
const SHOWS = {
  me: ['people'],
  'sign-in-page': 'own',
  welcome: 'own',
  preference: 'own',
  drawings: 'own',
  book: 'own',
  tape: 'always',
  line: ['orders', 'rounds', 'parcels', 'purchasing', 'arrivals', 'stock'],
  unread: ['channels'],
  'unread-documents': ['purchasing'],
  'first-steps': ['channels', 'carriers', 'orders', 'parcels', 'stock', 'items', 'places', 'people', 'setup', 'suppliers'],
  now: ['channels', 'orders', 'rounds', 'parcels', 'purchasing', 'arrivals', 'stock', 'inspections', 'carriers', 'setup'],
  find: 'always',
  look: ['stock', 'items', 'places'],
  'look-items': ['items'],
  practice: ['orders', 'rounds', 'parcels', 'purchasing', 'arrivals', 'stock'],
  questions: ['questions'],
  'refill-due': 'own',
  task: ['rounds', 'parcels', 'purchasing', 'arrivals', 'inspections', 'stock', 'orders', 'carriers', 'counts'],
  'receive-due': ['purchasing', 'arrivals'],
  'purchase-orders': ['purchasing', 'arrivals', 'suppliers'],
  'purchase-order': ['purchasing', 'arrivals', 'suppliers', 'bills'],
  arrivals: ['arrivals', 'purchasing'],
  arrival: ['arrivals', 'purchasing', 'stock', 'returns'],
  inspections: ['inspections'],
  inspection: ['inspections', 'stock'],
  'inspection-rules': ['inspections'],
  checklists: ['inspections'],
  'supplier-returns': ['returns'],
  'supplier-return': ['returns'],
  aside: ['returns', 'stock', 'arrivals'],
  bills: ['bills'],
  bill: ['bills', 'purchasing'],
  'bills-open': ['bills', 'purchasing'],
  suppliers: ['suppliers'],
  supplier: ['suppliers', 'purchasing'],
  items: ['items', 'stock'],
  item: ['items'],
  stock: ['stock'],
  movements: ['stock'],
  why: ['stock', 'orders', 'purchasing'],
  'extra-fields': ['setup'],
  places: ['places', 'stock'],
  place: ['places', 'stock'],
  zones: ['places'],
  plan: ['places', 'stock'],
  aisles: ['places'],
  'to-put-away': ['stock', 'arrivals'],
  orders: ['orders'],
  order: ['orders', 'parcels', 'rounds', 'stock'],
  'order-ways': ['orders', 'stock', 'purchasing', 'arrivals'],
  'goods-facts': ['stock', 'orders', 'purchasing', 'customers', 'channels'],
  'goods-found': ['items'],
  'items-found': ['items'],
  'unmatched-codes': ['items'],
  'to-invoice': ['invoices', 'orders', 'parcels'],
  'invoice-preview': ['invoices', 'orders', 'parcels', 'customers', 'setup'],
  invoices: ['invoices'],
  invoice: ['invoices'],
  payments: ['invoices'],
  journal: ['invoices', 'stock', 'bills'],
  'journal-preview': ['invoices', 'stock', 'bills'],
  'journal-exports': ['invoices'],
  accounts: ['invoices', 'stock', 'bills'],
  'stock-value': ['stock', 'bills'],
  margin: ['invoices', 'stock'],
  'sales-tax': ['invoices'],
  'inbound-lines': ['purchasing', 'arrivals', 'suppliers'],
  'customers-found': ['customers'],
  owners: ['people'],
  siblings: ['orders'],
  projection: ['orders', 'stock', 'purchasing', 'arrivals'],
  'arrival-hits': ['orders', 'stock', 'purchasing'],
  'spot-counts': ['counts'],
  'order-cures': ['orders', 'stock', 'purchasing', 'arrivals'],
  'line-holders': ['orders', 'stock'],
  'order-history': ['orders', 'rounds', 'parcels'],
  cancelling: ['orders', 'rounds', 'parcels'],
  customers: ['customers'],
  customer: ['customers', 'orders'],
  rounds: ['rounds', 'orders'],
  round: ['rounds', 'orders'],
  walks: ['rounds', 'orders'],
  pickers: ['people'],
  'daily-runs': ['setup', 'orders', 'channels'],
  'daily-run-preview': ['orders', 'rounds', 'stock', 'setup'],
  'release-board': ['rounds', 'orders', 'stock'],
  'bench-queue': ['parcels', 'orders', 'rounds'],
  rates: 'own',
  lanes: ['parcels', 'carriers', 'orders'],
  'dispatch-trouble': ['parcels', 'orders', 'carriers'],
  'hand-overs': ['parcels'],
  claims: ['claims'],
  letters: ['setup'],
  inserts: ['setup', 'items'],
  carriers: ['carriers'],
  carrier: ['carriers'],
  cartons: ['carriers', 'parcels'],
  carton: ['carriers'],
  channels: ['channels'],
  channel: ['channels', 'stock'],
  exchanges: ['channels', 'orders'],
  exchange: 'own',
  beliefs: ['channels', 'stock'],
  offers: ['channels', 'items'],
  unlisted: ['channels', 'items', 'stock'],
  designs: ['setup'],
  'design-sample': ['setup'],
  labels: ['setup'],
  scales: ['setup'],
  scale: 'own',
  printers: ['setup'],
  tray: ['setup', 'places'],
  outbox: 'always',
  money: ['setup'],
  series: ['setup'],
  settings: ['setup'],
  calendars: ['setup', 'carriers'],
  people: ['people'],
  duties: ['people'],
  devices: ['people', 'setup'],
  imports: ['imports'],
  import: ['imports'],
} as const satisfies Record<string, 'own' | 'always' | readonly Topic[]>;

export type Read = keyof typeof SHOWS;
export type Key<R extends Read = Read> = readonly [R, ...unknown[]];

/** The key under which something is kept that was read: its name, then what makes it this one. */
export const key = <R extends Read>(read: R, ...of: readonly unknown[]): Key<R> => [read, ...of];

/** Whether a reading shows something that has changed; with null, whether it shows anything that acts change at all. */
export function shows(read: string, changed: readonly Topic[] | null): boolean {
  const topics: 'own' | 'always' | readonly Topic[] = Object.hasOwn(SHOWS, read) ? SHOWS[read as Read] : 'always';
  if (topics === 'own') return false;
  return topics === 'always' || changed === null || topics.some((t) => changed.includes(t));
}

/** Picks the readings that must be made again. */
export const freshFor =
  (changed: readonly Topic[] | null) =>
  (query: Query): boolean =>
    shows(String(query.queryKey[0]), changed);
