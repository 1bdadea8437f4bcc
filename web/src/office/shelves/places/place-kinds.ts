/** What a place can be; the server knows no others. */
export const PLACE_KINDS = [
  'pick-face',
  'reserve',
  'dock',
  'inspection',
  'packing-table',
  'dispatch-lane',
  'quarantine',
  'counter',
  'tote',
  'cart',
  'pallet',
] as const;

export const kindWords = (kind: string) => kind.replace('-', ' ');
