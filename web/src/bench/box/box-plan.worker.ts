import { type BoxPlan, cartonProblem, type CartonToHave, type GoodsToPack, planBoxes } from '@vectrum/core/cartons';

/** What is to be packed, and in what. */
export interface Asked {
  cartons: CartonToHave[];
  goods: GoodsToPack[];
}

/** Enough for the orders of a shop; what comes later is seldom better. */
const SECONDS = 2;

self.onmessage = ({ data }: MessageEvent<Asked>) => {
  const problem = cartonProblem(data.cartons, data.goods);
  if (!problem) return self.postMessage(null);
  const begun = performance.now();
  const progress = () => (performance.now() - begun) / (SECONDS * 1000);
  planBoxes(problem, progress, (plan) => self.postMessage(plan satisfies BoxPlan));
};
