import { formOf, leadingForm, type AiForm } from './application-identifiers.js';
import { checkDigit, expandUpcE, hasCheckDigit } from './check-digit.js';
import { calendarDate, dateTime } from './dates.js';
import { isLink, pairsOfLink } from './digital-link.js';
import { faultIn, type Gs1Error } from './value.js';

/** What a payload holds: raw values by identifier, the GTIN in 14 digits, dates and decimals made readable. */
export interface Gs1Data {
  ok: true;
  fields: Record<string, string>;
  gtin14?: string;
  dates: Record<string, string>;
  decimals: Record<string, string>;
}
export interface Gs1Fault {
  ok: false;
  errorKind: Gs1Error;
}
export type Gs1Result = Gs1Data | Gs1Fault;
export interface Gs1Options {
  /** ISO date; decides the century of two-digit years. */
  today: string;
  /** Set where the reader knows that the symbol is a zero-suppressed UPC-E. */
  context?: 'upc-e';
}

type Pair = readonly [ai: string, value: string];
/** Parts values of varying length in an element string. */
export const SEPARATOR = '\u001d';
const fail = (errorKind: Gs1Error): Gs1Fault => ({ ok: false, errorKind });

/**
 * Reads a barcode's payload as a scanner sends it: element strings behind a symbology identifier, plain GTINs,
 * bracketed text and GS1 Digital Link addresses. Never throws; O(length).
 * Source: GS1 General Specifications 5.4 and 7.8; GS1 Digital Link URI syntax.
 */
export function readGs1(input: string, options: Gs1Options): Gs1Result {
  const text = input.trim();
  if (text === '') return fail('empty');
  const identifier = /^\](..)/.exec(text)?.[1];
  if (text.startsWith(']') && identifier === undefined) return fail('symbology');
  const data = identifier === undefined ? text : text.slice(3);
  const year = Number(options.today.slice(0, 4));
  if (identifier !== undefined && data === '') return fail('empty');
  switch (identifier) {
    case 'C1':
    case 'd2':
    case 'Q3':
    case 'e0':
    case 'J1':
      return elementString(data, year);
    case 'E0':
      return options.context === 'upc-e' && data.length <= 8 ? upcE(data) : plain(data, [13, 12]);
    case 'E4':
      return plain(data, [8]);
    case 'Q1':
    case 'd1':
      return isLink(data) ? link(data, year) : fail('symbology');
    case undefined:
      return unmarked(data, year, options.context);
    default:
      return fail('symbology');
  }
}

function unmarked(text: string, year: number, context: Gs1Options['context']): Gs1Result {
  if (context === 'upc-e') return upcE(text);
  if (text.startsWith('(')) return bracketed(text, year);
  if (isLink(text)) return link(text, year);
  if (text.includes(SEPARATOR)) return elementString(text, year);
  if (/^\d+$/.test(text) && [8, 12, 13, 14].includes(text.length)) return plain(text, [text.length]);
  return fail('notGs1');
}

function plain(digits: string, lengths: readonly number[]): Gs1Result {
  if (!/^\d+$/.test(digits)) return fail('charset');
  if (!lengths.includes(digits.length)) return fail('length');
  if (!hasCheckDigit(digits)) return fail('checkDigit');
  const gtin14 = digits.padStart(14, '0');
  return { ok: true, fields: { '01': gtin14 }, gtin14, dates: {}, decimals: {} };
}

function upcE(digits: string): Gs1Result {
  if (!/^\d+$/.test(digits)) return fail('charset');
  if (digits.length < 6 || digits.length > 8) {
    return [12, 13].includes(digits.length) ? plain(digits, [digits.length]) : fail('length');
  }
  if (digits.length === 8) {
    const full = expandUpcE(digits);
    return full ? plain(full, [12]) : fail('notGs1');
  }
  const body = digits.length === 6 ? `0${digits}` : digits;
  const full = expandUpcE(`${body}0`);
  return full ? plain(full.slice(0, 11) + checkDigit(full.slice(0, 11)), [12]) : fail('notGs1');
}

function elementString(data: string, year: number): Gs1Result {
  const pairs: Pair[] = [];
  let rest = data.startsWith(SEPARATOR) ? data.slice(1) : data;
  if (rest === '') return fail('empty');
  while (rest !== '') {
    const form = leadingForm(rest);
    if (!form) return fail('unknownAi');
    const taken = takeValue(form, rest.slice(form.ai.length));
    if (typeof taken === 'string') return fail(taken);
    pairs.push([form.ai, taken.value]);
    rest = taken.rest;
  }
  return collect(pairs, year);
}

/** Cuts one value off an element string; the rest begins at the next identifier. */
function takeValue(form: AiForm, text: string): { value: string; rest: string } | Gs1Error {
  const end = text.indexOf(SEPARATOR);
  const run = end < 0 ? text : text.slice(0, end);
  if (form.predefined) {
    if (run.length < form.max) return 'length';
    const after = text.slice(form.max);
    return { value: text.slice(0, form.max), rest: after.startsWith(SEPARATOR) ? after.slice(1) : after };
  }
  if (run.length > form.max) return form.min === form.max ? 'missingSeparator' : 'tooLong';
  return { value: run, rest: end < 0 ? '' : text.slice(end + 1) };
}

function bracketed(text: string, year: number): Gs1Result {
  const pairs: Pair[] = [];
  let rest = text;
  while (rest !== '') {
    const head = /^\((\d{2,4})\)/.exec(rest);
    if (!head?.[1]) return fail('notGs1');
    rest = rest.slice(head[0].length);
    const next = rest.search(/(?<!\\)\(\d{2,4}\)/);
    const value = next < 0 ? rest : rest.slice(0, next);
    pairs.push([head[1], value.replace(/\\\(/g, '(')]);
    rest = next < 0 ? '' : rest.slice(next);
  }
  return collect(pairs, year);
}

function link(text: string, year: number): Gs1Result {
  const pairs = pairsOfLink(text);
  return typeof pairs === 'string' ? fail(pairs) : collect(pairs, year);
}

/** Checks every pair and lays them out by identifier; the first fault, in reading order, decides. */
function collect(pairs: readonly Pair[], year: number): Gs1Result {
  const result: Gs1Data = { ok: true, fields: {}, dates: {}, decimals: {} };
  for (const [ai, value] of pairs) {
    const form = formOf(ai);
    if (!form) return fail('unknownAi');
    if (Object.hasOwn(result.fields, ai)) return fail('duplicateAi');
    const fault = faultIn(form, value, year);
    if (fault) return fail(fault);
    result.fields[ai] = value;
    describe(form, value, year, result);
  }
  if (result.fields['01'] !== undefined) result.gtin14 = result.fields['01'];
  return result;
}

function describe(form: AiForm, value: string, year: number, into: Gs1Data): void {
  if (form.decimals !== undefined) {
    into.decimals[form.ai] = withPoint(value.slice(form.amountFrom), form.decimals);
  }
  const rule = form.components[0]?.rule;
  const date =
    rule === 'date'
      ? calendarDate(value.slice(0, 6), year)
      : rule?.startsWith('date') || rule?.startsWith('birth')
        ? dateTime(rule, value.slice(0, form.components[0]?.max), year)
        : undefined;
  if (date) into.dates[form.ai] = date;
}

/** Digits with the decimal point put before the last `places` of them: ("001250", 3) is "1.250". */
function withPoint(digits: string, places: number): string {
  const padded = digits.padStart(places + 1, '0');
  const whole = padded.slice(0, padded.length - places).replace(/^0+(?=\d)/, '');
  return places === 0 ? whole : `${whole}.${padded.slice(padded.length - places)}`;
}
