/**
 * The four-digit year of a two-digit one, seen from the current year: 51 or more ahead is the last century, 50 or more
 * behind is the next (General Specifications 7.12).
 */
export function fullYear(twoDigits: number, todayYear: number): number {
  const century = Math.floor(todayYear / 100) * 100;
  const ahead = twoDigits - (todayYear % 100);
  if (ahead >= 51) return century - 100 + twoDigits;
  if (ahead <= -50) return century + 100 + twoDigits;
  return century + twoDigits;
}

function daysIn(year: number, month: number): number {
  const leap = (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
  return [31, leap ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][month - 1] ?? 0;
}

const two = (n: number) => String(n).padStart(2, '0');

function iso(year: number, month: number, day: number): string | undefined {
  const last = daysIn(year, month);
  if (last === 0 || day > last) return undefined;
  return `${String(year).padStart(4, '0')}-${two(month)}-${two(day === 0 ? last : day)}`;
}

/** YYMMDD as an ISO date; day 00 is the last of the month. Undefined where the calendar has no such day. */
export function calendarDate(yymmdd: string, todayYear: number): string | undefined {
  if (!/^\d{6}$/.test(yymmdd)) return undefined;
  const year = fullYear(Number(yymmdd.slice(0, 2)), todayYear);
  return iso(year, Number(yymmdd.slice(2, 4)), Number(yymmdd.slice(4, 6)));
}

function clock(text: string): boolean {
  const [hours = 0, minutes = 0, seconds = 0] = (text.match(/\d\d/g) ?? []).map(Number);
  return text.length % 2 === 0 && hours < 24 && minutes < 60 && seconds < 60;
}

/** The forms that carry a time of day. Returns the ISO text, or undefined where date or time do not exist. */
export function dateTime(rule: string, text: string, todayYear: number): string | undefined {
  if (rule === 'hhmm') return clock(text) ? text : undefined;
  if (rule === 'minsec') return clock(`00${text}`) ? text : undefined;
  if (rule === 'birth' || rule === 'birthtime') {
    const date = iso(Number(text.slice(0, 4)), Number(text.slice(4, 6)), Number(text.slice(6, 8)));
    return Number(text.slice(6, 8)) > 0 && clock(text.slice(8)) ? date : undefined;
  }
  const date = calendarDate(text.slice(0, 6), todayYear);
  const time = text.slice(6);
  if (!date) return undefined;
  if (rule === 'datetime0' && time === '9999') return date;
  return clock(time) ? `${date}T${time.slice(0, 2)}:${time.slice(2, 4) || '00'}` : undefined;
}
