import {
  commandOf,
  isOfElements,
  lacksSeparator,
  normalCode,
  readGs1,
  scannedText,
  SEPARATOR,
  type CommandCode,
  type Gs1Error,
} from '../barcode/index.js';
import type { PackUnit } from '../quantity/index.js';
import type { Codebook, ItemFacts, PlaceFacts } from './types.js';

/** What a code means at this site. */
export type Meaning =
  | {
      kind: 'item';
      item: ItemFacts;
      pack: PackUnit;
      lot: string | null;
      expires: string | null;
      /** How many of the pack the label says there are; null where it says nothing. */
      count: number | null;
      sscc: string | null;
      /** The serial number on it, where it is kept as no lot; null where it has none. */
      serial: string | null;
    }
  | { kind: 'pallet'; sscc: string }
  | { kind: 'place'; place: PlaceFacts }
  | { kind: 'command'; command: CommandCode }
  /** It is no code, or not for sure: nothing is guessed of it. */
  | { kind: 'misread'; code: string; fault: Gs1Error }
  | { kind: 'unknown'; code: string };

/** The key under which a code is kept in the codebook: its GTIN in 14 digits, or the code in capitals. */
export function codeKey(code: string, today: string): string {
  const text = scannedText(code, today);
  const read = readGs1(text, { today });
  // The label of a pallet names what it holds by 02, the goods themselves by 01.
  const gtin = read.ok ? (read.gtin14 ?? read.fields['02']) : undefined;
  return gtin ?? normalCode(text);
}

/**
 * Finds what a scanned or typed code means: command card, item (any pack, with lot and date where the code has them),
 * place, or an item's SKU. O(length of the code).
 */
export function resolve(code: string, book: Codebook): Meaning {
  const command = commandOf(code);
  if (command) return { kind: 'command', command };
  const text = scannedText(code, book.today);
  const read = readGs1(text, { today: book.today });
  if (read.ok && !book.separatorsSeen && lacksSeparator(text, read, book.today))
    return { kind: 'misread', code: printed(text), fault: 'missingSeparator' };
  const key = codeKey(text, book.today);
  const hit = Object.hasOwn(book.codes, key) ? book.codes[key] : undefined;
  const item = hit && book.items[hit.itemId];
  const pack = item?.packs.find((p) => p.id === hit?.packId);
  if (item && pack) {
    // A serial number is kept as a lot of one.
    const lot = read.ok ? ((item.tracking === 'serial' ? read.fields['21'] : read.fields['10']) ?? null) : null;
    const expires = read.ok ? (read.dates['17'] ?? read.dates['15'] ?? null) : null;
    return {
      kind: 'item',
      item,
      pack,
      lot,
      expires,
      count: countOn(read),
      sscc: (read.ok && read.fields['00']) || null,
      serial: (read.ok && read.fields['21']) || null,
    };
  }
  if (read.ok && read.fields['00']) return { kind: 'pallet', sscc: read.fields['00'] };
  const place = Object.hasOwn(book.places, key) ? book.places[key] : undefined;
  if (place) return { kind: 'place', place };
  if (!read.ok && isOfElements(text)) return { kind: 'misread', code: printed(text), fault: read.errorKind };
  return { kind: 'unknown', code: normalCode(text) };
}

/** A code as people can read it, without its signs for machines. */
const printed = (text: string) =>
  text
    .replace(/^\][A-Za-z][0-9A-Za-z]/, '')
    .replaceAll(SEPARATOR, ' ')
    .trim();

/** The count of trade items (37) or of pieces (30) that a label carries. */
function countOn(read: ReturnType<typeof readGs1>): number | null {
  const text = read.ok ? (read.fields['37'] ?? read.fields['30']) : undefined;
  const count = Number(text);
  return text !== undefined && Number.isSafeInteger(count) && count > 0 ? count : null;
}
