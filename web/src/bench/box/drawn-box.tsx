import type { Size } from '@vectrum/core/cartons';

const WIDE = 0.87;
const DEEP = 0.5;

/** A box to its proportions, seen from its corner: in outline, or filled to a level between 0 and 1. */
export function DrawnBox({ inner: [l, w, h], level = 0, span, says }: { inner: Size; level?: number; span: number; says?: string }) {
  const scale = span / Math.max((l + w) * WIDE, h + (l + w) * DEEP);
  const foot = h + (l + w) * DEEP;
  // The corner nearest the eye is the origin; the first side goes to the right, the second to the left.
  const at = ([a, b, up]: Size) =>
    `${((w + a * l - b * w) * WIDE * scale + 1).toFixed(1)} ${((foot - (a * l + b * w) * DEEP - up * h) * scale + 1).toFixed(1)}`;
  const face = (fill: string, ...corners: Size[]) => (
    <path
      d={`M${corners.map(at).join('L')}Z`}
      fill={fill}
      stroke="var(--color-ink)"
      strokeWidth={span > 60 ? 1.6 : 1.1}
      strokeLinejoin="round"
    />
  );
  const name = says === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': says };
  return (
    <svg width={(l + w) * WIDE * scale + 2} height={foot * scale + 2} {...name}>
      {face('var(--color-kraft-pale)', [0, 0, 0], [1, 0, 0], [1, 1, 0], [0, 1, 0])}
      {face('var(--color-kraft-pale)', [1, 0, 0], [1, 1, 0], [1, 1, 1], [1, 0, 1])}
      {face('var(--color-kraft-pale)', [0, 1, 0], [1, 1, 0], [1, 1, 1], [0, 1, 1])}
      {level > 0 && face('var(--color-sheet)', [0, 0, level], [1, 0, level], [1, 1, level], [0, 1, level])}
      {level > 0 && face('var(--color-ink-fill)', [0, 0, 0], [1, 0, 0], [1, 0, level], [0, 0, level])}
      {level > 0 && face('var(--color-ink-wash)', [0, 0, 0], [0, 1, 0], [0, 1, level], [0, 0, level])}
      {face('none', [0, 0, 0], [1, 0, 0], [1, 0, 1], [0, 0, 1])}
      {face('none', [0, 0, 0], [0, 1, 0], [0, 1, 1], [0, 0, 1])}
    </svg>
  );
}
