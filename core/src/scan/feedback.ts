import type { Gs1Error } from '../barcode/index.js';
import type { Feedback, How, Refusal, RefusedCommand, Step } from './types.js';

/** Sentence case for a phrase that begins a line. */
export function sentence(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

export function accepted(title: string, detail: string): Feedback {
  return { band: 'accepted', title: sentence(title), detail };
}

/** A step that changes nothing but what is shown, and leaves a line on the tape. */
export function refuse<S, C>(state: S, refusal: Refusal, from: { id: string; code?: string; how?: How }): Step<S, C> {
  const command: RefusedCommand = {
    kind: 'refused',
    id: from.id,
    ...refusal,
    code: from.code ?? '',
    how: from.how ?? 'typed',
  };
  return { state, feedback: { ...refusal }, commands: [command] };
}

export function unknownCode(code: string): Refusal {
  return {
    band: 'unknown',
    title: code,
    detail: 'On no item or place here. Kept on the tape for the office to match',
  };
}

/** A code that cannot be read for sure, with what to do about it. */
export function misread(code: string, fault: Gs1Error): Refusal {
  const lost = 'A separator seems to be missing in it. Try the scanner with the test card, or type lot and date';
  const details: Partial<Record<Gs1Error, string>> = {
    missingSeparator: lost,
    tooLong: lost,
    checkDigit: 'One of its digits is wrong or missing. Scan it again',
    date: 'It names a day that does not exist. Scan it again, or type what is printed',
  };
  return {
    band: 'unknown',
    title: code,
    detail: details[fault] ?? 'It is not as the standard has it. Scan it again, or type what is printed',
  };
}

export function stay<S, C>(state: S, feedback: Feedback | null = null): Step<S, C> {
  return { state, feedback, commands: [] };
}
