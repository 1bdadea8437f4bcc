import { hasCheckDigit } from '../barcode/index.js';

/** What a spreadsheet has done to a cell, in words, with what to do about it; null where nothing shows. */
export type Damage = string | null;

const AS_TEXT = 'Set the column to text in the spreadsheet, fill it in anew, and save it again';

/** A long number that was rounded to be shown: 9.52108E+12. Its last digits are lost. */
export const roundedNumber = (text: string): Damage =>
  /^-?\d([.,]\d+)?E\+?\d{1,3}$/i.test(text.trim())
    ? `A spreadsheet has rounded this number, and its last digits are lost. ${AS_TEXT}`
    : null;

/** A code that was taken for a day: 3-12 becomes 12-Mar, 03/12/2026 or 2026-12-03. Capitals throughout are a code of their own. */
export const codeMadeDay = (text: string): Damage =>
  /^(\d{4}-\d{2}-\d{2}|\d{1,2}[./]\d{1,2}[./]\d{2,4}|\d{1,2}[.-]? ?[A-Z][a-zä]{2}[.-]?( ?\d{2,4})?|[A-Z][a-zä]{2}[.-] ?\d{2,4})$/.test(
    text.trim(),
  )
    ? `A spreadsheet has made a date of this code. ${AS_TEXT}`
    : null;

/** Days since the last of 1899, as spreadsheets count them; the years 1954 to 2118. */
const DAY = /^([2-7]\d{4})(\.\d+)?$/;

/** A day that was taken for a number: 2026-05-01 becomes 46143. */
export function dayMadeNumber(text: string): Damage {
  const days = DAY.exec(text.trim())?.[1];
  if (days === undefined) return null;
  const day = new Date(Date.UTC(1899, 11, 30) + Number(days) * 86_400_000).toISOString().slice(0, 10);
  return `A spreadsheet has made a number of this date; it may be ${day}. Set the column to a date, and save it again`;
}

/** A GTIN of 12 digits that lost the noughts in front of it, told by its check digit. */
export const lostNoughts = (text: string): Damage => {
  const code = text.trim();
  const whole = code.padStart(12, '0');
  return /^\d{10,11}$/.test(code) && hasCheckDigit(whole)
    ? `The noughts in front of this number seem to be lost; it may be ${whole}. ${AS_TEXT}`
    : null;
};

/** How many digits a postcode has, where it has only digits. */
const POSTCODE_DIGITS: Readonly<Record<string, number>> = { DE: 5, ES: 5, FR: 5, IT: 5, PL: 5, US: 5 };

/** A postcode that lost the nought in front of it. */
export function postcodeCut(postcode: string, country: string): Damage {
  const digits = POSTCODE_DIGITS[country.toUpperCase()];
  return digits !== undefined && /^\d+$/.test(postcode) && postcode.length === digits - 1
    ? `A postcode there has ${digits} digits: the nought in front seems to be lost. ${AS_TEXT}`
    : null;
}
