import type { ItemId, LineId, PackId, PlaceId } from '../../ids/index.js';
import type { FlowState } from '../flow.js';
import type { How, PlaceFacts } from '../types.js';

/** A line of a purchase order that is due. */
export interface ReceiveLine {
  /** Known to the house by this number, whichever arrival it comes with. */
  lineId: LineId;
  order: string;
  /** Its number on the order. */
  line: number;
  itemId: ItemId;
  /** The unit the line was written in. */
  packId: PackId;
  /** Base units. */
  ordered: number;
  received: number;
}

/** A pallet or carton that the supplier announced, with all that is on it. */
export interface AnnouncedPallet {
  /** Serial shipping container code: 18 digits. */
  sscc: string;
  contents: readonly { lineId: LineId | null; itemId: ItemId; units: number; lot: string | null; expires: string | null }[];
  received: boolean;
}

/** All that a phone needs to receive one purchase order, or one arrival with lines of several. */
export interface ReceiveTask {
  /** The code of the order or arrival that was opened. */
  document: string;
  supplier: string;
  /** How far above the ordered quantity a line may go, in per cent. */
  overPercent: number;
  /** Whether a scan fills in what the line still lacks, instead of counting one. */
  fillRemaining: boolean;
  /** Whether the scan of other goods books in those that were counted before it. Absent: no, they are booked in by a key. */
  nextBooks?: boolean;
  dock: PlaceFacts;
  /** Where damaged, wrong and refused goods are set apart; null where the site has no such place. */
  apart: PlaceFacts | null;
  /** Where goods wait to be looked at; null where the site has no such place, so that they wait at the dock. */
  inspection: PlaceFacts | null;
  /** Items of this delivery that must be looked at before they are stock, with the reason. */
  inspect: Readonly<Record<number, string>>;
  /** Whether this person may take in more than is allowed, goods too old, and goods that no order names. */
  mayTake: boolean;
  lines: readonly ReceiveLine[];
  pallets: readonly AnnouncedPallet[];
  /** Serial numbers of these items that are in the house, each as "item id/number". */
  serials: readonly string[];
  /** The other deliveries that are due at this site: the scan of their paper or of their pallet goes there. Absent: none. */
  others?: readonly OtherDelivery[];
  /** Whether this person may book in what is left of a delivery as it stands on the paper, and after how many lines counted. */
  whole?: { may: boolean; sample: number };
}

/** Another delivery that is due. */
export interface OtherDelivery {
  /** Of its order or arrival. */
  code: string;
  supplier: string;
  /** Codes that lead to it beside its own: of the orders that it holds and of its pallets (SSCC). */
  also: readonly string[];
}

/** In what way goods come in: against a line, above what it allows, without any order, or to be set apart. */
export type ReceiveAs = 'ordered' | 'extra' | 'unordered' | 'apart';
export type ApartReason = 'wrong goods' | 'too many' | 'too old';

export interface ReceiveCommand {
  kind: 'receive';
  id: string;
  document: string;
  /** Null where no line of an order is meant. */
  lineId: LineId | null;
  itemId: ItemId;
  units: number;
  lot: string | null;
  expires: string | null;
  toPlaceId: PlaceId;
  how: How;
  as: ReceiveAs;
  condition: 'good' | 'damaged';
  /** Why goods are set apart; null for all others. */
  reason: ApartReason | null;
}

/** One scan for all that stands on an announced pallet. */
export interface ReceivePalletCommand {
  kind: 'receive-pallet';
  id: string;
  document: string;
  sscc: string;
  toPlaceId: PlaceId;
  how: How;
}

/** What is left of a delivery, booked in as it stands on the paper: all of it or nothing. */
export interface ReceiveWholeCommand {
  kind: 'receive-whole';
  id: string;
  document: string;
  /** What the phone showed; a line that has changed meanwhile stops it. */
  lines: { lineId: LineId; units: number }[];
  toPlaceId: PlaceId;
  how: How;
}

/** Nothing more comes with this delivery; what is missing of it is short. */
export interface CloseArrivalCommand {
  kind: 'close-arrival';
  id: string;
  document: string;
  /** The number on the supplier's delivery paper; empty where there is none. */
  paper: string;
}

/** Ties a barcode that nobody knew to a pack of an item. */
export interface TieCommand {
  kind: 'tie';
  id: string;
  code: string;
  itemId: ItemId;
  packId: PackId;
}

/** The goods in hand, and what is being done with them. */
export interface GoodsInHand {
  lineId: LineId | null;
  itemId: ItemId;
  as: ReceiveAs;
  reason: ApartReason | null;
}

/** What stands in the way until somebody says what to do; any other scan lets it go. */
export type ReceiveQuestion =
  | { kind: 'not-ordered'; itemId: ItemId; packId: PackId; count: number; lot: string | null; expires: string | null }
  /** `most`: what may be booked in without opening a pack; `open`: what is still ordered, where a pack must be opened for it. */
  | { kind: 'over'; most: number; open: number | null; units: number }
  | { kind: 'too-old' }
  /** So many that nobody ordered that a slip of the hand is likelier. */
  | { kind: 'so-many'; units: number; as: ReceiveAs }
  | { kind: 'unknown-code'; code: string };

export type DockCommand = ReceiveCommand | ReceivePalletCommand | ReceiveWholeCommand | TieCommand | CloseArrivalCommand;

export interface ReceiveState extends FlowState<DockCommand> {
  hand: GoodsInHand | null;
  /** Counted so far, by pack unit; empty until somebody counts. */
  counts: Record<number, number>;
  activePackId: number | null;
  /** True once a figure was keyed; until then each scan of a pack counts one, and the first digit begins anew. */
  keyed: boolean;
  lot: string | null;
  expires: string | null;
  condition: 'good' | 'damaged';
  how: How;
  /** Where goods go; null means the dock. Stays from line to line. */
  to: PlaceFacts | null;
  question: ReceiveQuestion | null;
  /** Codes tied just now, until the codebook has them. */
  tied: Record<string, { itemId: ItemId; packId: number }>;
}

export type ReceiveInput =
  | { kind: 'count'; id: string; packId: PackId; count: number }
  | { kind: 'text'; id: string; field: 'lot' | 'expires'; value: string }
  | { kind: 'condition'; id: string; condition: 'good' | 'damaged' }
  | { kind: 'answer'; id: string; answer: 'apart' | 'open' | 'take' }
  | { kind: 'tie'; id: string; itemId: ItemId; packId: PackId }
  | { kind: 'confirm'; id: string }
  /** All that is left, as it stands on the paper. */
  | { kind: 'whole'; id: string }
  | { kind: 'close'; id: string; paper: string };

export const startReceive: ReceiveState = {
  hand: null,
  counts: {},
  activePackId: null,
  keyed: false,
  lot: null,
  expires: null,
  condition: 'good',
  how: 'scanned',
  to: null,
  question: null,
  tied: {},
  pending: [],
};
