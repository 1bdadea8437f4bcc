/** The first letters of each month in English, German, French and Dutch, without their marks. */
const MONTHS = ['jan|janv', 'feb|fev|fevr', 'mar|mars|maerz|mrt|maart', 'apr|avr', 'may|mai|mei', 'jun|juin', 'jul|juil', 'aug|aout', 'sep', 'oct|okt', 'nov', 'dec|dez'].map((m) => m.split('|')); // prettier-ignore
const monthOf = (word: string): number => {
  const bare = word.toLowerCase().normalize('NFKD').replace(/[^a-z]/g, ''); // prettier-ignore
  const most = (m: readonly string[]) => Math.max(0, ...m.map((start) => (bare.startsWith(start) ? start.length : 0)));
  const best = MONTHS.map(most);
  const length = Math.max(...best);
  return length === 0 ? 0 : best.indexOf(length) + 1;
};

/**
 * A decimal as people write it, as plain text ("1,234.50" and "1 234,50" are "1234.50"); null where it is none. A single
 * comma with three digits behind it parts thousands. Currency signs before or after are passed over.
 */
export function readDecimal(text: string): string | null {
  const bare = text
    .trim()
    .replace(/^[£$€]\s*|\s*[£$€]$/g, '')
    .replace(/[\s\u00a0']/g, '')
    .replace(/^−/, '-');
  const comma = bare.lastIndexOf(',');
  const dot = bare.lastIndexOf('.');
  let number = bare;
  if (comma >= 0 && dot >= 0) number = comma > dot ? bare.replace(/\./g, '').replace(',', '.') : bare.replace(/,/g, '');
  else if (comma >= 0) number = /^-?\d{1,3}(,\d{3})+$/.test(bare) ? bare.replace(/,/g, '') : bare.replace(',', '.');
  const match = /^(-?)0*(\d+)(?:\.(\d+))?$/.exec(number) ?? /^(-?)(\d*)\.(\d+)$/.exec(number);
  if (!match) return null;
  const [, sign = '', whole = '', part = ''] = match;
  const cut = part.replace(/0+$/, '');
  const value = `${whole === '' ? '0' : whole}${cut === '' ? '' : `.${cut}`}`;
  return value === '0' ? '0' : sign + value;
}

/** A whole number as people write it; null where it is none or cannot be held exactly. */
export function readWhole(text: string): number | null {
  const read = readDecimal(text);
  const value = read !== null && !read.includes('.') ? Number(read) : NaN;
  return Number.isSafeInteger(value) ? value : null;
}

const YES = new Set(['y', 'yes', 'true', '1', 'x', 'on', 'j', 'ja', 'wahr', 'an', 'o', 'oui', 'vrai', 'waar', 'aan']);
const NO = new Set(['n', 'no', 'false', '0', '', '-', 'off', 'nein', 'falsch', 'aus', 'non', 'faux', 'nee', 'onwaar', 'uit']);

/** Yes or no as people write it; null where it is neither. */
export function readYesNo(text: string): boolean | null {
  const word = text.trim().toLowerCase();
  return YES.has(word) ? true : NO.has(word) ? false : null;
}

/** A date as people write it ("2026-05-14", "14/05/2026", "14 May 2026"), day before month, as ISO; null where there is no such day. */
export function readDate(text: string): string | null {
  const t = text.trim();
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/.exec(t);
  const slashed = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})$/.exec(t);
  const worded = /^(\d{1,2})\.?[ -](\p{L}{3,9})\.?[ -](\d{4})$/u.exec(t);
  if (iso) return day(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  if (slashed) return day(Number(slashed[3]), Number(slashed[2]), Number(slashed[1]));
  if (worded) return day(Number(worded[3]), monthOf(worded[2] ?? ''), Number(worded[1]));
  return null;
}

function day(y: number, m: number, d: number): string | null {
  const at = new Date(Date.UTC(y, m - 1, d));
  if (y < 1900 || y > 2200 || at.getUTCMonth() !== m - 1 || at.getUTCDate() !== d) return null;
  return at.toISOString().slice(0, 10);
}
