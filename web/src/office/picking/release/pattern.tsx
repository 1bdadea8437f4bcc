/** Each walk has a line of its own, so that it can be told from the others in a grey print. */
export const PATTERNS: readonly { dash: number[]; double: boolean }[] = [
  { dash: [], double: false },
  { dash: [11, 6], double: false },
  { dash: [2, 5], double: false },
  { dash: [], double: true },
  { dash: [14, 5, 2, 5], double: false },
];
export const patternOf = (index: number) => PATTERNS[index % PATTERNS.length] ?? { dash: [], double: false };

/** A piece of a walk's line, as a key to the plan. */
export function Pattern({ index }: { index: number }) {
  const { dash, double } = patternOf(index);
  return (
    <svg width="30" height="10" aria-hidden="true">
      <line x1="0" y1="5" x2="30" y2="5" stroke="currentColor" strokeWidth={double ? 5 : 2.5} strokeDasharray={dash.join(' ')} />
      {double && <line x1="0" y1="5" x2="30" y2="5" stroke="var(--color-paper)" strokeWidth="2" />}
    </svg>
  );
}
