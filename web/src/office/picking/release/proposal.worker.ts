import { proposeRounds, type RoundLimits, type WaitingToPick } from '@vectrum/core/rounds';
import { floorOf, type PlanPoint, type Segment } from '@vectrum/core/walk';

/** What is to be grouped. */
export interface Asked {
  segments: Segment[];
  table: PlanPoint;
  places: (PlanPoint | null)[];
  orders: WaitingToPick[];
  limits: RoundLimits;
  seconds: number;
}
/** Rounds by the indices of their orders, better each time; the last one is as good as it gets. */
export interface Proposed {
  rounds: number[][];
  isLast: boolean;
}

/** Improvements come thick and fast; a person sees no more of them. */
const SHOWN_EVERY_MS = 150;
const SEED = 1;

self.onmessage = ({ data }: MessageEvent<Asked>) => {
  const { segments, seconds, ...asked } = data;
  let shown = -SHOWN_EVERY_MS;
  let better: number[][] | null = null;
  const tell = (rounds: number[][], isLast: boolean) => self.postMessage({ rounds, isLast } satisfies Proposed);
  const showIfDue = () => {
    if (better === null || performance.now() - shown < SHOWN_EVERY_MS) return false;
    shown = performance.now();
    tell(better, false);
    better = null;
    return false;
  };
  const rounds = proposeRounds({ ...asked, floor: floorOf(segments) }, { seconds, seed: SEED }, showIfDue, (found) => {
    better = found;
    showIfDue();
  });
  tell(rounds, true);
};
