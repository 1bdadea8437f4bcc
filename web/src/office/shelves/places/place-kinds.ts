/** What a place can be; the server knows no others. */
export const PLACE_KINDS = [
  'pick-face',
  'reserve',
  'dock',
  'inspection',
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

export const kindWords = (kind: string) => kind.replace('-', ' ');

/** The kinds of which somebody makes one place; slots come with their wall. */
export const MADE_KINDS = PLACE_KINDS.filter((kind) => kind !== 'wall-slot');
