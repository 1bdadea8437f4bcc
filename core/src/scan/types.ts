import type { PackUnit } from '../quantity/index.js';

/** Whether a code came from a barcode or from fingers; kept with each act. */
export type How = 'scanned' | 'typed';

/** What a person can do at any moment. `id` is a fresh UUID: it becomes the key of the command the input leads to. */
export type ScanInput =
  | { kind: 'code'; id: string; code: string; how: How }
  | { kind: 'count'; id: string; packId: number; count: number }
  | { kind: 'text'; id: string; field: 'lot' | 'expires' | 'reason'; value: string }
  | { kind: 'check'; id: string; no: number; value: string }
  | { kind: 'confirm'; id: string }
  | { kind: 'clear'; id: string }
  | { kind: 'not-here'; id: string }
  | { kind: 'condition'; id: string; condition: 'good' | 'damaged' }
  | { kind: 'answer'; id: string; answer: 'apart' | 'take' | 'back' }
  | { kind: 'tie'; id: string; itemId: number; packId: number }
  | { kind: 'settled'; id: string };

export type Band = 'accepted' | 'not-this' | 'too-many' | 'unknown';

/** What to show, sound and vibrate: the band's word is fixed by its kind, `title` and `detail` say the rest. */
export interface Feedback {
  band: Band;
  title: string;
  detail: string;
}

/** A scan that was refused; posted so that the tape shows it. Nothing else changes. */
export interface RefusedCommand {
  kind: 'refused';
  id: string;
  band: Exclude<Band, 'accepted'>;
  title: string;
  detail: string;
  code: string;
  how: How;
}

/** What one input leads to. `undo` asks the caller to take back the newest act on this task. */
export interface Step<State, Command> {
  state: State;
  feedback: Feedback | null;
  commands: (Command | RefusedCommand)[];
  undo?: true;
}

export interface ItemFacts {
  id: number;
  sku: string;
  name: string;
  picture: string;
  tracking: 'none' | 'lot' | 'lot-expiry' | 'serial';
  packs: PackUnit[];
  /** Where it may stand; absent where it may stand anywhere. */
  storage?: 'any' | 'cold' | 'restricted';
  /** Days of life that it must have left on arrival; absent where any will do. */
  minLifeDays?: number | null;
  /** Where it belongs at this site, as people say it; null where it has no home. */
  home: string | null;
}

export interface PlaceFacts {
  id: number;
  code: string;
  kind: string;
  siteId: number;
  /** What its zone is for; absent where it is for anything. */
  rule?: 'none' | 'cold' | 'restricted';
}

/** Every code that means something at a site, so that a phone can answer without the network. */
export interface Codebook {
  /** ISO date, for the century of two-digit years. */
  today: string;
  /** GTINs in 14 digits, other codes in capitals. */
  codes: Record<string, { itemId: number; packId: number }>;
  items: Record<string, ItemFacts>;
  places: Record<string, PlaceFacts>;
}

/** Why a command cannot be; the same on the phone and on the server. */
export interface Refusal {
  band: Exclude<Band, 'accepted'>;
  title: string;
  detail: string;
}

/**
 * What every task bundle carries: the ids of the commands that it already holds the effect of. A phone counts its own
 * commands on top of a bundle only while they are not among these, so that none counts twice or not at all.
 */
export interface Bundle {
  applied: string[];
}
