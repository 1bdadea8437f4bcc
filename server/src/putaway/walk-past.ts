import { type Floor, type PlanPoint, walkOn } from '@vectrum/core/walk';

/** Lots of goods brought into one walk; those beyond follow in the order in which they stand. */
const MOST_IN_WALK = 40;

/** Brings goods into the order of a short walk past their places, from a point and back to it, and says its metres. */
export function walkPast<T extends { at: PlanPoint | null }>(
  floor: Floor,
  goods: readonly T[],
  start: PlanPoint,
): { goods: Omit<T, 'at'>[]; metres: number } {
  const placed = goods.filter((g) => g.at !== null).slice(0, MOST_IN_WALK);
  const rest = goods.filter((g) => !placed.includes(g));
  const { order, metres } = walkOn(
    floor,
    placed.map((g) => g.at ?? start),
    start,
    start,
  );
  const inOrder = [...order.flatMap((i) => placed[i] ?? []), ...rest];
  return { goods: inOrder.map(({ at: _, ...g }) => g), metres: Math.round(metres) };
}
