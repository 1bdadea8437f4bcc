import type { ItemId, PackId, PlaceId, SiteId } from '../ids/index.js';
import type { ZoneRule } from '../places/index.js';
import type { PackUnit } from '../quantity/index.js';

/** Whether a code came from a barcode or from fingers; kept with each act. */
export type How = 'scanned' | 'typed';

/** What every flow hears. `id` is a fresh UUID: it becomes the key of the command that the input leads to; `at` is the device's clock, in milliseconds. */
export type SharedInput =
  | { kind: 'code'; id: string; code: string; how: How; at?: number }
  /** Lets go of what is in hand. */
  | { kind: 'clear'; id: string; at?: number }
  /** The task was read anew, or commands were refused: these are no longer on their way. */
  | { kind: 'settled'; id: string; ids: readonly string[]; at?: number };

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
  /** Where and on what it was scanned; filled in by whoever sends it. */
  siteId?: SiteId;
  document?: string;
}

/** What one input leads to. `undo` asks the caller to take back the newest act on this task. */
export interface Step<State, Command> {
  state: State;
  feedback: Feedback | null;
  commands: (Command | RefusedCommand)[];
  undo?: true;
  /** The document that the scan opens in place of this one, with the code to be scanned there where it means goods. */
  opens?: { document: string; scan: string | null };
}

export interface ItemFacts {
  id: ItemId;
  sku: string;
  name: string;
  picture: string;
  tracking: 'none' | 'lot' | 'lot-expiry' | 'serial';
  packs: PackUnit[];
  /** Where it may stand; absent where it may stand anywhere. */
  storage?: 'any' | 'cold' | 'restricted';
  /** Days of life that it must have left on arrival; absent where any will do. */
  minLifeDays?: number | null;
  /** Every piece of it is scanned when it is picked, and no number keyed; absent: no. */
  scanEach?: boolean;
  /** Each piece of it has a serial number that is scanned when it is packed, and only then; absent: no. */
  asksSerial?: boolean;
  /** Where it belongs at this site, as people say it; null where it has no home. */
  home: string | null;
}

export interface PlaceFacts {
  id: PlaceId;
  code: string;
  kind: string;
  siteId: SiteId;
  /** What its zone is for; absent where it is for anything. */
  rule?: ZoneRule;
}

/** Every code that means something at a site, so that a phone can answer without the network. */
export interface Codebook {
  /** ISO date, for the century of two-digit years. */
  today: string;
  /** A test card has shown that the scanner at hand sends separators, so that a lot which looks like one without is none. */
  separatorsSeen?: boolean;
  /** GTINs in 14 digits, other codes in capitals. */
  codes: Record<string, { itemId: ItemId; packId: PackId }>;
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
