/** What a screen can show; whatever shows one of these reads again when an act has changed it. */
export const TOPICS = [
  'orders',
  'rounds',
  'parcels',
  'purchasing',
  'arrivals',
  'inspections',
  'returns',
  'bills',
  'suppliers',
  'customers',
  'channels',
  'carriers',
  'stock',
  'items',
  'places',
  'people',
  'setup',
  'imports',
  'questions',
  'counts',
] as const;
export type Topic = (typeof TOPICS)[number];

/**
 * What each kind of act changes beyond the tape. Stock that comes or goes changes what orders hold, since what is free
 * is given to those who wait in the same transaction.
 */
const CHANGES = {
  receive: ['arrivals', 'purchasing', 'inspections', 'stock', 'orders'],
  arrival: ['arrivals', 'purchasing', 'stock', 'orders'],
  'take-over': ['arrivals', 'returns', 'stock', 'orders'],
  store: ['stock', 'orders'],
  check: ['inspections'],
  judge: ['inspections', 'returns', 'stock', 'orders'],
  'inspection-rule': ['inspections'],
  checklist: ['inspections'],
  'send-back': ['returns', 'stock', 'orders'],
  bill: ['bills', 'purchasing', 'returns', 'stock'],
  'purchase-order': ['purchasing', 'arrivals', 'stock'],
  supplier: ['suppliers', 'purchasing'],
  order: ['orders', 'stock', 'channels'],
  'order-change': ['orders', 'rounds', 'parcels', 'stock', 'channels'],
  'order-cancel': ['orders', 'rounds', 'parcels', 'stock', 'channels'],
  release: ['orders', 'rounds', 'stock'],
  take: ['rounds', 'orders'],
  help: ['rounds'],
  'daily-run': ['setup'],
  tote: ['rounds'],
  pick: ['rounds', 'orders', 'stock'],
  short: ['rounds', 'orders', 'stock', 'counts'],
  count: ['stock', 'orders', 'rounds', 'counts'],
  sort: ['rounds', 'orders', 'parcels', 'stock'],
  'sort-missing': ['rounds', 'orders', 'parcels', 'stock', 'counts'],
  'set-down': ['rounds', 'orders', 'parcels'],
  note: ['orders', 'parcels'],
  pack: ['parcels', 'orders', 'stock'],
  packed: ['parcels', 'orders'],
  label: ['parcels', 'orders'],
  'hand-over': ['parcels', 'orders', 'stock'],
  customer: ['customers', 'orders'],
  channel: ['channels', 'orders'],
  'unread-document': ['purchasing', 'arrivals'],
  carrier: ['carriers', 'parcels'],
  item: ['items', 'stock'],
  'item-field': ['items', 'stock'],
  barcode: ['items'],
  place: ['places', 'stock'],
  aisles: ['places'],
  import: TOPICS,
  print: ['setup'],
  setup: ['setup', 'items', 'places', 'orders', 'people'],
  person: ['people'],
  late: ['questions'],
  'let-go': ['questions'],
  refusal: [],
  undo: [],
} as const satisfies Record<string, readonly Topic[]>;

export type ActivityKind = keyof typeof CHANGES;

/** What an act of a kind has changed, with the tape itself; an unknown kind may have changed anything. */
export const topicsOf = (kind: string): readonly Topic[] => (Object.hasOwn(CHANGES, kind) ? CHANGES[kind as ActivityKind] : TOPICS);
