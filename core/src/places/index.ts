/** Places in the house: fixed ones, and containers that move with what is in them. */
export const PLACE_KINDS = [
  'dock',
  'inspection',
  'pick-face',
  'reserve',
  'packing-table',
  'sorting-wall',
  'wall-slot',
  'dispatch-lane',
  'quarantine',
  'counter',
  'tote',
  'cart',
  'pallet',
] as const;
export type PlaceKind = (typeof PLACE_KINDS)[number];

/** Kinds that the house makes by itself and that nobody sets up: the parts of the tree, and the parcels of orders. */
export const OWN_KINDS = ['site', 'zone', 'parcel'] as const;

/** Places outside the house, where the ledger's other sides stand; their balances may be below nought. */
export const OUTSIDE_KINDS = ['supplier', 'customer', 'count-difference', 'scrap', 'own-use', 'assembly', 'in-transit'] as const;
export type OutsideKind = (typeof OUTSIDE_KINDS)[number];

export const isOutside = (kind: string): kind is OutsideKind => (OUTSIDE_KINDS as readonly string[]).includes(kind);

/** What a place may be used for. */
export type PlaceUse =
  /** Goods may lie here when the house is opened with what it has. */
  | 'keep'
  /** Goods may be booked in here. */
  | 'receive'
  /** Goods stand here until they have a bin. */
  | 'wait'
  /** Goods are kept here. */
  | 'shelf'
  /** Goods may be put away here: a shelf, or a cart on its way to one. */
  | 'store'
  /** Goods that are refused or damaged are set apart here. */
  | 'apart'
  /** A finished tote is set down here. */
  | 'set-down'
  /** Orders are picked into it. */
  | 'collect'
  /** What was picked for several orders together is set down here, and sorted into slots. */
  | 'sort'
  /** The goods of one order lie here once they are picked, until they are packed. */
  | 'picked'
  /** It moves, with all that is in it. */
  | 'container'
  /** Goods are sent back to their supplier from here. */
  | 'send-back'
  /** It is a fixed point of the site's plan. */
  | 'point'
  /** Only people who look for it know it; it is no label on a shelf. */
  | 'unlisted';

/** What each kind may hold and is for, said once; the type demands an entry for every kind. */
const USES: Readonly<Record<PlaceKind | (typeof OWN_KINDS)[number], readonly PlaceUse[]>> = {
  dock: ['keep', 'receive', 'wait', 'send-back', 'point'],
  inspection: ['keep', 'receive', 'wait', 'send-back', 'point'],
  'pick-face': ['keep', 'receive', 'shelf', 'store', 'send-back', 'point'],
  reserve: ['keep', 'receive', 'shelf', 'store', 'send-back', 'point'],
  'packing-table': ['keep', 'set-down', 'point'],
  'sorting-wall': ['sort', 'point'],
  'wall-slot': ['picked'],
  'dispatch-lane': ['point'],
  quarantine: ['keep', 'wait', 'apart', 'send-back', 'point'],
  counter: ['keep', 'send-back', 'point'],
  tote: ['keep', 'collect', 'picked', 'container'],
  cart: ['keep', 'receive', 'wait', 'store', 'send-back', 'container'],
  pallet: ['keep', 'container'],
  site: ['unlisted'],
  zone: ['unlisted'],
  parcel: ['container', 'unlisted'],
};

/** Whether places of a kind are for something. Kinds that are not known here are for nothing. */
export const isFor = (kind: string, use: PlaceUse): boolean => Object.hasOwn(USES, kind) && USES[kind as keyof typeof USES].includes(use);

/** The kinds that are for something, in the order in which kinds are listed. */
export const kindsFor = (use: PlaceUse): readonly string[] => [...PLACE_KINDS, ...OWN_KINDS].filter((kind) => isFor(kind, use));

/** What a zone is for: goods that need cold stand only in cold zones, restricted goods only in restricted ones. */
export const ZONE_RULES = ['none', 'cold', 'restricted'] as const;
export type ZoneRule = (typeof ZONE_RULES)[number];

/** The most slots that a sorting wall may have: what one person reaches and one screen shows. */
export const MOST_SLOTS = 60;
