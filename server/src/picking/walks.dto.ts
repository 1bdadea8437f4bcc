/** A place of a walk; null where it is not on the plan. */
export class WalkPlaceDto {
  code: string;
  x: number | null;
  y: number | null;
}
export class WalkOrderDto {
  code: string;
  customer: string;
}
/** Somebody's part of a round that is walked now: all of it, where nobody shares the walk. */
export class WalkDto {
  code: string;
  personId: number;
  picker: string;
  orders: WalkOrderDto[];
  stops: number;
  stopsDone: number;
  /** Units that are still to be picked. */
  units: number;
  /** Metres of what is left, back to the table. */
  metres: number;
  shortStops: number;
  begunAt: Date | null;
  /** The last act on it. */
  lastAt: Date | null;
  /** Where goods were taken last; null before the first. */
  at: WalkPlaceDto | null;
  /** The places that are still ahead, in walking order. */
  ahead: WalkPlaceDto[];
  /** What this person takes for a stop, in seconds, from the last fortnight; null while there is too little to tell. */
  secondsAStop: number | null;
  /** When it will be through at that pace, otherwise at the usual one. */
  endsAt: Date;
  /** The departure that it must catch. */
  leavesAt: Date | null;
}
/** Who walks at a site now. */
export class WalksDto {
  siteId: number;
  tableX: number;
  tableY: number;
  walks: WalkDto[];
}
