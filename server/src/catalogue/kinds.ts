/** How an item's units are told apart: not at all, by lot, by lot and date, one by one. */
export const TRACKINGS = ['none', 'lot', 'lot-expiry', 'serial'] as const;
export type Tracking = (typeof TRACKINGS)[number];
/** A kit is sold together and picked by its parts; an assembly is built here of its parts and labour. */
export const ITEM_KINDS = ['single', 'kit', 'assembly'] as const;
export type ItemKind = (typeof ITEM_KINDS)[number];
/** Where goods may stand: anywhere, only in cold zones, only in restricted zones. */
export const STORAGES = ['any', 'cold', 'restricted'] as const;
export type Storage = (typeof STORAGES)[number];
export const ROTATIONS = ['fifo', 'fefo'] as const;
