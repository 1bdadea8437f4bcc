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

export function stay<S, C>(state: S, feedback: Feedback | null = null): Step<S, C> {
  return { state, feedback, commands: [] };
}
