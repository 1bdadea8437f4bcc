import type { Condition } from '../ledger/index.js';
import type { ItemId, LotId, PlaceId, SiteId } from '../ids/index.js';
import type { FlowState } from './flow.js';
import type { How, PlaceFacts } from './types.js';

/** What goods can be used up for, beside being sold. */
export const PURPOSES = ['scrap', 'own-use', 'sample', 'repair'] as const;
export type Purpose = (typeof PURPOSES)[number];
export const PURPOSE_SAYS: Readonly<Record<Purpose, string>> = {
  scrap: 'Scrapped',
  'own-use': 'Used by the house',
  sample: 'Given as a sample',
  repair: 'Used for a repair',
};

/** Goods of one lot and condition in the place that is emptied. */
export interface MovableGoods {
  itemId: ItemId;
  lotId: LotId;
  lot: string | null;
  condition: Condition;
  units: number;
  /** So many of them may go: what no round comes for. */
  spare: number;
}

/** What lies in one place, to be moved anywhere else. */
export interface MoveTask {
  siteId: SiteId;
  from: PlaceFacts;
  goods: readonly MovableGoods[];
}

export interface MovedGoods {
  itemId: ItemId;
  lotId: LotId;
  condition: Condition;
  units: number;
}

/** Goods go from one place to another: all of them or none. */
export interface MoveCommand {
  kind: 'move';
  id: string;
  fromPlaceId: PlaceId;
  toPlaceId: PlaceId;
  goods: MovedGoods[];
  how: How;
}

/** Goods leave the house for a purpose of its own. */
export interface IssueCommand extends MovedGoods {
  kind: 'issue';
  id: string;
  placeId: PlaceId;
  purpose: Purpose;
  note: string;
  /** What the house charges it to; empty where it does not say. */
  costCentre: string;
  how: How;
}

/** Goods are found to be in another condition where they lie. */
export interface ConditionCommand extends MovedGoods {
  kind: 'condition';
  id: string;
  placeId: PlaceId;
  becomes: Condition;
  note: string;
  how: How;
}

export type AnyMoveCommand = MoveCommand | IssueCommand | ConditionCommand;

export interface MoveState extends FlowState<AnyMoveCommand> {
  /** The goods in hand, and how many of them. */
  hand: { itemId: ItemId; lotId: LotId; condition: Condition; units: number; how: How } | null;
  /** Goods of which it is not said yet which lot is meant. */
  asks: ItemId | null;
}

export type MoveInput =
  | { kind: 'number'; id: string; units: number }
  | { kind: 'choose'; id: string; itemId: ItemId; lotId: LotId; condition: Condition }
  | { kind: 'issue'; id: string; purpose: Purpose; note: string; costCentre: string }
  | { kind: 'condition'; id: string; becomes: Condition; note: string };

export const startMove: MoveState = { hand: null, asks: null, pending: [] };
