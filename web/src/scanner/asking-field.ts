import { isOfElements, readGs1 } from '@vectrum/core/barcode';
import { today } from '../api/site-day';
import { isField, typeInto } from './field-hold';

/** What a field asks a scan for: the whole code, its lot, one more of a list, or the figure of a scale that types. */
export type Asks = 'whole' | 'lot' | 'more' | 'grams';

type AskingField = HTMLInputElement | HTMLTextAreaElement;

/** The field that asks for the scan, where one does that has the keyboard. Fields ask by `data-scan`. */
export const askingField = (target: EventTarget | null): AskingField | undefined =>
  isField(target) && target.dataset['scan'] !== undefined ? target : undefined;

/**
 * What a field would take of a code: the text that it holds afterwards; undefined where the code is not what it asks for, and
 * goes where scans go otherwise.
 */
export function takenBy(asks: string, was: string, code: string, between = ' '): string | undefined {
  switch (asks) {
    case 'lot':
      return lotOn(code);
    case 'more':
      return was.trim() === '' ? code : `${was.replace(/\s+$/, '')}${between}${code}`;
    case 'grams':
      return grams(code);
    default:
      return code;
  }
}

/** The lot or serial number of an element string, or the code itself where it is none. */
function lotOn(code: string): string | undefined {
  const read = readGs1(code, { today: today() });
  if (read.ok) return read.fields['10'] ?? read.fields['21'];
  return isOfElements(code) ? undefined : code;
}

/** A scale's figure in grams: short, with or without its unit. A barcode is longer. */
function grams(code: string): string | undefined {
  const read = /^(\d{1,6})(?:[.,](\d{1,3}))?\s*(kg|g)?$/i.exec(code.trim());
  if (!read) return undefined;
  const [, whole = '', part = '', unit] = read;
  const isKilos = unit?.toLowerCase() === 'kg' || (part !== '' && unit === undefined);
  return isKilos ? String(Number(whole) * 1000 + Number(part.padEnd(3, '0') || 0)) : part === '' ? whole : undefined;
}

const ours = new WeakSet<Event>();
/** Whether a key was pressed here, by a scan that filled a field. */
export const isOurs = (e: Event): boolean => ours.has(e);

/** Puts a scan into the field that asks for it, whole, and presses Enter there for whoever goes on by it. */
export function fill(field: AskingField, code: string): boolean {
  const text = takenBy(field.dataset['scan'] ?? '', field.value, code, field instanceof HTMLTextAreaElement ? '\n' : ' ');
  if (text === undefined) return false;
  typeInto(field, text);
  // Once the page shows what was filled in. Not a person's key: no form is sent by it.
  window.setTimeout(() => {
    const enter = new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true });
    ours.add(enter);
    field.dispatchEvent(enter);
  }, 0);
  return true;
}
