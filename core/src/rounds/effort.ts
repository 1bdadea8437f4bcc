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

/** Minutes that a round takes. */
export const minutesOf = ({ metres, stops, units }: RoundWork, pace: WalkPace = USUAL_PACE): number =>
  metres / pace.metresAMinute + (stops * pace.secondsAStop + units * pace.secondsAUnit) / 60;
