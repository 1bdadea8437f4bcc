import { proposeRounds, type RoundLimits, type WaitingToPick } from '@vectrum/core/rounds';
import { floorOf, type PlanPoint, type Segment } from '@vectrum/core/walk';

/** What is to be grouped into rounds. */
export interface RoundsAsked {
  segments: readonly Segment[];
  table: PlanPoint;
  /** Where each place is, in walking order; null where it is not on the plan. */
  places: readonly (PlanPoint | null)[];
  orders: readonly WaitingToPick[];
  limits: RoundLimits;
  seconds: number;
}

const SEED = 1;

/** Groups orders into rounds of few metres, by their indices. As long as `seconds`: it runs in a thread. */
export const planRoundsOf = ({ segments, seconds, ...asked }: RoundsAsked): number[][] =>
  proposeRounds({ ...asked, floor: floorOf([...segments]) }, { seconds, seed: SEED });
