/** How fast somebody walks rounds. */
export interface WalkPace {
  metresAMinute: number;
  /** Finding the bin, its scan, the tote. */
  secondsAStop: number;
  /** Taking one unit and putting it down. */
  secondsAUnit: number;
}

/** What a round asks of whoever walks it. */
export interface RoundWork {
  metres: number;
  stops: number;
  units: number;
}

/** Somebody with a cart at an easy step, until their own pace has been measured. */
export const USUAL_PACE: WalkPace = { metresAMinute: 60, secondsAStop: 14, secondsAUnit: 1 };

/** So many stops say how long somebody takes for one; fewer say how their day began. */
const LEAST_STOPS = 20;
/** Nobody is faster than this: what seems so was entered in one go. */
const LEAST_SECONDS = 2;

/** How long somebody takes for a stop, the way to it included, in seconds, from what they have done; null while that is too little to tell. */
export const ownSeconds = ({ stops, seconds }: { stops: number; seconds: number }): number | null =>
  stops >= LEAST_STOPS && seconds >= stops * LEAST_SECONDS ? seconds / stops : null;

/** Minutes that somebody still needs: by what they take for a stop where that was measured, otherwise by the walk at the usual pace. */
export const minutesLeft = (work: RoundWork, ownSecondsAStop: number | null): number =>
  ownSecondsAStop === null ? minutesOf(work) : (work.stops * ownSecondsAStop) / 60;

/** Minutes that a round takes. */
export const minutesOf = ({ metres, stops, units }: RoundWork, pace: WalkPace = USUAL_PACE): number =>
  metres / pace.metresAMinute + (stops * pace.secondsAStop + units * pace.secondsAUnit) / 60;
