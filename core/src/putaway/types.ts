import type { ItemId, LotId, PlaceId } from '../ids/index.js';
import type { PlanPoint } from '../walk/index.js';

/** Goods that want a place on the shelves. */
export interface PutawayGoods {
  itemId: ItemId;
  /** 0 where the item is not kept by lot. */
  lotId: LotId;
  units: number;
  /** Of one base unit; null where it is not known, which then binds nothing. */
  unitMl: number | null;
  unitG: number | null;
  storage: 'any' | 'cold' | 'restricted';
  homeId: PlaceId | null;
}

/** A bin that goods may be put into; blocked ones are not among them. */
export interface PutawayBin {
  id: number;
  code: string;
  kind: 'pick-face' | 'reserve';
  /** 1 stands on the floor. */
  level: number;
  rule: 'none' | 'cold' | 'restricted';
  /** Where it stands; null where it is not on the plan. */
  at: PlanPoint | null;
  /** What it holds; null where nobody has said. */
  holdsMl: number | null;
  holdsG: number | null;
  usedMl: number;
  usedG: number;
  stock: readonly { itemId: ItemId; lotId: LotId }[];
}

/** A bin for some of the goods, and why this one. */
export interface PutawaySuggestion {
  binId: PlaceId;
  code: string;
  units: number;
  reason: string;
}
