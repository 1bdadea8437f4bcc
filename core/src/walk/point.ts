/** A point on a site's plan, in metres. */
export interface PlanPoint {
  x: number;
  y: number;
}
