import { checkDigit } from './check-digit.js';

/** GS1 prefixes set apart for numbers that mean something within one company only (General Specifications 1.4.3). */
export const IN_HOUSE_PREFIXES = ['02', '20', '21', '22', '23', '24', '25', '26', '27', '28', '29'] as const;
export type InHousePrefix = (typeof IN_HOUSE_PREFIXES)[number];

const SERIES_DIGITS = 10;

/** A number of 13 digits for use within the company, with its check digit. `series` is whole, from 1 to 10¹⁰ − 1. */
export function restrictedNumber(prefix: InHousePrefix, series: number): string {
  if (!Number.isSafeInteger(series) || series < 1 || series >= 10 ** SERIES_DIGITS) {
    throw new RangeError(`An in-house number runs from 1 to ${10 ** SERIES_DIGITS - 1}, not ${series}`);
  }
  const body = prefix + String(series).padStart(SERIES_DIGITS, '0');
  return `${body}${checkDigit(body)}`;
}
