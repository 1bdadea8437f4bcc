import { hasCheckDigit } from './check-digit.js';
import { formOf } from './application-identifiers.js';
import { calendarDate } from './dates.js';
import { readGs1, SEPARATOR, type Gs1Data } from './gs1.js';

/** What scanners are set to type in the separator's place, since a keyboard has no key for it. */
const WRITTEN = ['{GS}', '<GS>', '[GS]', '(GS)', '{FNC1}', '<FNC1>', '[FNC1]', '␝', '^]', '\\x1d', '\\u001d', '\\035', '|', '~'];

/** Symbologies that carry element strings, links, or numbers that are not read by their length alone. */
const OWN_READING = /^\](C1|d[12]|Q[13]|e0|J1|E0(?!\d{12,13}$)|E4(?!\d{8}$))/;
const IDENTIFIER = /^\][A-Za-z][0-9A-Za-z]/;
const OF_ELEMENTS = /^\](C1|d2|Q3|e0|J1)/;

/**
 * What a scanner sent, as its barcode says it: the symbology identifier dropped where it says nothing more, separators put
 * where the scanner wrote something in their place, and an element string marked as one that came without its identifier.
 * Nothing is changed that does not read as an element string afterwards. O(length).
 */
export function scannedText(raw: string, today: string): string {
  const text = raw.trim();
  const bare = OWN_READING.test(text) ? text : text.replace(IDENTIFIER, '');
  const reads = (candidate: string) => readGs1(candidate, { today }).ok;
  for (const written of WRITTEN) {
    if (!bare.toLowerCase().includes(written.toLowerCase())) continue;
    const candidate = asElements(bare.replaceAll(new RegExp(escaped(written), 'gi'), SEPARATOR));
    if (reads(candidate)) return candidate;
  }
  if (IDENTIFIER.test(bare) || reads(bare)) return bare;
  const candidate = asElements(bare);
  const read = readGs1(candidate, { today });
  return read.ok || read.errorKind === 'tooLong' || read.errorKind === 'missingSeparator' ? candidate : bare;
}

const escaped = (text: string) => text.replace(/[\\^$.|?*+()[\]{}]/g, '\\$&');

/** Some scanners send neither identifier nor first separator; what begins with a sound number and goes on is meant so. */
function asElements(text: string): string {
  const number = /^0[12](\d{14})./.exec(text)?.[1] ?? /^00(\d{18})./.exec(text)?.[1];
  return number && hasCheckDigit(number) ? `]C1${text}` : text;
}

/** Whether a code says of itself that it is an element string. */
export const isOfElements = (text: string): boolean => OF_ELEMENTS.test(text) || text.includes(SEPARATOR);

/**
 * Whether a separator seems to have been lost: the code has none, and its one value of varying length ends in what would be
 * a date or a trade item number of its own. Such a lot can exist; it is for a person to say so.
 */
export function lacksSeparator(text: string, data: Gs1Data, today: string): boolean {
  if (!OF_ELEMENTS.test(text) || text.slice(4).includes(SEPARATOR)) return false;
  const year = Number(today.slice(0, 4));
  return Object.entries(data.fields).some(([ai, value]) => {
    if (formOf(ai)?.predefined ?? true) return false;
    const date = /.1[1235-7](\d{6})$/.exec(value)?.[1];
    const number = /.0[12](\d{14})$/.exec(value)?.[1];
    return (date !== undefined && calendarDate(date, year) !== undefined) || (number !== undefined && hasCheckDigit(number));
  });
}
