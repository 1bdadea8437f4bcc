import { backTest, type BackTestRules, type Plan, planFor, type ToPlan } from '@vectrum/core/replenish';

/** An item that is planned, with what is planned from. */
export interface PlanAsked {
  itemId: number;
  item: ToPlan;
}

/** Plans for some items, in the order in which they were asked for. It runs in a thread. */
export const planAll = (asked: readonly PlanAsked[], today: string): Plan[] => asked.map((a) => planFor(a.item, today));

/** What the last year of some items would have been by each rule. It runs in a thread. */
export const backTestAll = (
  asked: readonly (PlanAsked & { fixed: { point: number; upTo: number } | null })[],
  today: string,
): (BackTestRules | null)[] => asked.map((a) => backTest({ ...a.item, fixed: a.fixed }, today));
