import type { ItemId, LotId, PlaceId, SiteId } from '../ids/index.js';
import type { FlowState } from './flow.js';
import type { How } from './types.js';

/** Goods of one lot that the list of a bin names. */
export interface TallyLine {
  itemId: ItemId;
  lotId: LotId;
  lot: string | null;
  isDamaged: boolean;
  /** Units that were counted; null where nobody has yet. */
  counted: number | null;
  /** What the books have; null where it is counted without being told. */
  booked: number | null;
}

/** A bin of a count. */
export interface TallyBin {
  placeId: PlaceId;
  code: string;
  /** The aisle or zone that it stands in. */
  area: string;
  state: 'open' | 'begun' | 'counted';
  /** Whose it is: who was sent there, or began with it; null where anybody may. */
  by: string | null;
  /** Whether this person may count it. */
  isMine: boolean;
  lines: readonly TallyLine[];
}

/** A count as a phone has it: the bins in the order of a short walk. */
export interface TallyTask {
  /** The code of the count. */
  document: string;
  siteId: SiteId;
  title: string;
  /** Whether everything that lies in a bin is counted, or only what the list names. */
  wholeBins: boolean;
  /** Whether every unit is scanned, and no number keyed. */
  scanEach: boolean;
  bins: readonly TallyBin[];
  metres: number;
}

/** So many units lie in a bin. Said again, the last holds. */
export interface TallyCommand {
  kind: 'tally';
  id: string;
  document: string;
  placeId: PlaceId;
  itemId: ItemId;
  /** The lot as it is printed; null where goods are not kept by lot. */
  lot: string | null;
  /** The date of a lot that is new; null otherwise. */
  expires: string | null;
  isDamaged: boolean;
  units: number;
  /** With it all of the bin is counted: what its list names beside is not there. */
  isLast: boolean;
  /** How long before the command somebody had looked, in milliseconds: goods may have moved in between. */
  agoMs: number;
  how: How;
}

/** All of a bin is counted: what its list names beside that is not there. */
export interface TallyBinCommand {
  kind: 'tally-bin';
  id: string;
  document: string;
  placeId: PlaceId;
  how: How;
}

/** Something of a code that nobody knows lies in a bin; the office matches it. */
export interface TallyCodeCommand {
  kind: 'tally-code';
  id: string;
  document: string;
  placeId: PlaceId;
  code: string;
  units: number;
  how: How;
}

export type AnyTallyCommand = TallyCommand | TallyBinCommand | TallyCodeCommand;

/** The goods in hand: of which item, lot and condition, and how many were scanned so far. */
export interface TallyHand {
  itemId: ItemId;
  lot: string | null;
  expires: string | null;
  isDamaged: boolean;
  units: number;
  /** When the last of them was scanned, by the device's clock; 0 where it told none. */
  at: number;
  how: How;
}

export interface TallyState extends FlowState<AnyTallyCommand> {
  /** The bin that is counted. */
  at: PlaceId | null;
  hand: TallyHand | null;
  /** A code that nobody knows, until somebody says how many of it there are. */
  code: string | null;
  /** The bin is left with lines that nobody has counted: said once, and meant when it is said again. */
  leaving: boolean;
}

export type TallyInput =
  /** So many units of the goods in hand, keyed. */
  | { kind: 'number'; id: string; units: number }
  /** What was scanned so far is all of the goods in hand. */
  | { kind: 'confirm'; id: string }
  | { kind: 'text'; id: string; field: 'lot' | 'expires'; value: string }
  | { kind: 'condition'; id: string; isDamaged: boolean }
  /** Goods that the list names are taken in hand. */
  | { kind: 'choose'; id: string; itemId: ItemId; lot: string | null; isDamaged: boolean }
  /** So many of the code that nobody knows. */
  | { kind: 'code-number'; id: string; units: number }
  /** All of the bin is counted; what its list names beside is not there. */
  | { kind: 'finish'; id: string }
  /** Nothing lies in the bin: in the one at hand, or in the next. */
  | { kind: 'empty'; id: string };

export const startTally: TallyState = { at: null, hand: null, code: null, leaving: false, pending: [] };
