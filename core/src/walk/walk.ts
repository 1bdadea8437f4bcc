/** A point on a site's plan, in metres. */
export interface PlanPoint {
  x: number;
  y: number;
}

/**
 * The metres between two places of a site whose aisles run along y and are joined by cross aisles at the given y:
 * straight along the aisle where both lie in one, otherwise by the nearest cross aisle. O(cross aisles).
 */
export function metresBetween(a: PlanPoint, b: PlanPoint, crossAisles: readonly number[]): number {
  const across = Math.abs(a.x - b.x);
  if (across < 0.01 || crossAisles.length === 0) return across + Math.abs(a.y - b.y);
  return across + Math.min(...crossAisles.map((y) => Math.abs(a.y - y) + Math.abs(b.y - y)));
}

/** The metres of a walk through places in their order. */
export function metresOf(walk: readonly PlanPoint[], crossAisles: readonly number[]): number {
  let metres = 0;
  for (let i = 1; i < walk.length; i++) {
    const from = walk[i - 1];
    const to = walk[i];
    if (from && to) metres += metresBetween(from, to, crossAisles);
  }
  return metres;
}
