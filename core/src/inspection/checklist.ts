import { fractionOf, type Fraction } from '../money/index.js';

/** What a check asks for: a plain yes, a measurement within bounds, or some words. */
export const CHECK_KINDS = ['yes', 'measure', 'words'] as const;
export type CheckKind = (typeof CHECK_KINDS)[number];

/** One thing to look at. */
export interface Check {
  no: number;
  says: string;
  kind: CheckKind;
  /** Of a measurement: its unit and its bounds as decimals; null where there is none. */
  unit: string;
  low: string | null;
  high: string | null;
}

/** Answers by the number of their check: "yes", "no", a decimal or words. */
export type CheckAnswers = Readonly<Record<number, string>>;

const DECIMAL = /^-?\d{1,9}(\.\d{1,6})?$/;

export type AnswerReading = { ok: boolean } | { fault: string };

/** Whether an answer fulfils its check; a fault where it is no answer to it. */
export function readAnswer(check: Check, value: string): AnswerReading {
  const said = value.trim();
  switch (check.kind) {
    case 'yes':
      return said === 'yes' || said === 'no' ? { ok: said === 'yes' } : { fault: 'Say yes or no' };
    case 'words':
      return said === '' ? { fault: 'Say it in words' } : { ok: true };
    case 'measure':
      return DECIMAL.test(said)
        ? { ok: within(check, fractionOf(said)) }
        : { fault: `Type a number${check.unit ? ` in ${check.unit}` : ''}` };
  }
}

const below = (a: Fraction, b: Fraction) => a.num * b.den < b.num * a.den;

function within(check: Check, measured: Fraction): boolean {
  if (check.low !== null && below(measured, fractionOf(check.low))) return false;
  return check.high === null || !below(fractionOf(check.high), measured);
}

/** How a checklist stands: what is still to answer, and what was answered but not fulfilled. */
export function standOf(checks: readonly Check[], answers: CheckAnswers): { open: Check[]; failed: Check[] } {
  const read = checks.map((check) => {
    const value = answers[check.no];
    return { check, reading: value === undefined ? null : readAnswer(check, value) };
  });
  return {
    open: read.filter(({ reading }) => reading === null || 'fault' in reading).map(({ check }) => check),
    failed: read.filter(({ reading }) => reading !== null && 'ok' in reading && !reading.ok).map(({ check }) => check),
  };
}

/** The bounds of a measurement, as people say them: "from 1.2 to 1.4 mm". */
export function boundsWords(check: Pick<Check, 'unit' | 'low' | 'high'>): string {
  const unit = check.unit ? ` ${check.unit}` : '';
  if (check.low !== null && check.high !== null) return `from ${check.low} to ${check.high}${unit}`;
  if (check.low !== null) return `${check.low}${unit} or more`;
  return check.high === null ? '' : `${check.high}${unit} or less`;
}
