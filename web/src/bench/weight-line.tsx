import { weightText } from '../ui/units';

/** The scale's line: the bracket is what box and goods should weigh. */
export function WeightLine({ weightG, expectedG, slack }: { weightG: number; expectedG: number; slack: number }) {
  const low = expectedG * 0.7;
  const high = expectedG * 1.3;
  const x = (g: number) => 10 + (400 * (Math.min(high, Math.max(low, g)) - low)) / (high - low);
  const right = Math.abs(weightG - expectedG) <= slack;
  return (
    <svg width="430" height="52" role="img" aria-label={right ? 'Weight is right' : 'Weight is off'}>
      <path d="M10 30H410" stroke="var(--color-ink)" strokeWidth="2" />
      <path
        d={`M${x(expectedG - slack)} 18v12M${x(expectedG + slack)} 18v12M${x(expectedG - slack)} 18h5M${x(expectedG + slack)} 18h-5`}
        stroke="var(--color-ink)"
        strokeWidth="2.5"
        fill="none"
      />
      <path d={`M${x(weightG) - 8} 4h16l-8 13z`} fill={right ? 'var(--color-ink)' : 'var(--color-stamp)'} />
      <text x={x(expectedG)} y="43" textAnchor="middle" fontSize="12" fill="var(--color-ink-2)">
        {weightText(expectedG)} expected
      </text>
    </svg>
  );
}
