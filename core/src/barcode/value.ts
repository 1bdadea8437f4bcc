import type { AiForm, Component, Rule } from './application-identifiers.js';
import { CSET82, checkPair, hasCheckDigit } from './check-digit.js';
import { calendarDate, dateTime } from './dates.js';

/** Why a payload was not read. */
export type Gs1Error =
  | 'checkDigit'
  | 'length'
  | 'charset'
  | 'date'
  | 'missingSeparator'
  | 'tooLong'
  | 'unknownAi'
  | 'duplicateAi'
  | 'symbology'
  | 'empty'
  | 'notGs1';

const ALLOWED: Record<Component['set'], RegExp> = {
  N: /^\d*$/,
  X: new RegExp(`^[${CSET82.replace(/[\]\\^-]/g, '\\$&')}]*$`),
  Y: /^[#\-/0-9A-Z]*$/,
  Z: /^[-_0-9A-Za-z]*=*$/,
};

/** Checks one value against its form: length first, then characters, then check digits and dates. O(length). */
export function faultIn(form: AiForm, value: string, todayYear: number): Gs1Error | undefined {
  if (value.length > form.max) return form.min === form.max ? 'length' : 'tooLong';
  if (value.length < form.min) return 'length';
  let at = 0;
  for (const component of form.components) {
    if (at === value.length && component.optional) break;
    const part = value.slice(at, at + component.max);
    if (!ALLOWED[component.set].test(part)) return 'charset';
    if (part.length < component.min) return 'length';
    const fault = component.rule && faultOfRule(component.rule, part, todayYear);
    if (fault) return fault;
    at += part.length;
  }
  return undefined;
}

function faultOfRule(rule: Rule, part: string, todayYear: number): Gs1Error | undefined {
  switch (rule) {
    case 'csum':
      return hasCheckDigit(part) ? undefined : 'checkDigit';
    case 'pair':
      if (part.length < 3) return 'length';
      return checkPair(part.slice(0, -2)) === part.slice(-2) ? undefined : 'checkDigit';
    case 'date':
      return calendarDate(part, todayYear) ? undefined : 'date';
    case 'datetime':
    case 'datetime0':
    case 'datehour':
    case 'hhmm':
    case 'minsec':
    case 'birth':
    case 'birthtime':
      return dateTime(rule, part, todayYear) ? undefined : 'date';
  }
}
