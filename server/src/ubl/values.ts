import { XmlFault } from './xml.js';

/** Texts of elements as values: each says what is wrong with a text that is none, and takes null for an element that is not there. */

/** More than this of anything is a slip. */
const MOST = 1_000_000;

/** A quantity that must be whole and not below nought; "12.00" is twelve. */
export function wholeNumber(text: string, what: string): number {
  const n = Number(text);
  if (!/^\d{1,9}(\.0+)?$/.test(text)) throw new XmlFault(`${what} is ${text.slice(0, 40)}, not a whole number`);
  if (n > MOST) throw new XmlFault(`${what} is ${text}, which is more than can be`);
  return n;
}

/** A price of one pack, as decimal text that fits where prices are kept. */
export function priceOf(text: string | null, what: string): string | null {
  if (text !== null && !/^\d{1,10}(\.\d{1,6})?$/.test(text)) throw new XmlFault(`${what} is ${text.slice(0, 40)}, which is no price`);
  return text;
}

/** A day of the calendar, as YYYY-MM-DD. */
export function dayOf(text: string | null, what: string): string | null {
  if (text === null) return null;
  const at = new Date(`${text}T00:00:00Z`);
  const isDay = /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(at.getTime()) && at.toISOString().startsWith(text);
  if (!isDay) throw new XmlFault(`${what} is ${text.slice(0, 40)}, which is no day`);
  return text;
}
