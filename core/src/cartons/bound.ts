import { type CartonProblem, holds, volumeOf } from './problem.js';

/**
 * The least that boxes for goods can cost, from their room and their weight and from the dearest box that one of them alone
 * needs. O(boxes × goods).
 */
export function leastCost({ boxes, goods }: CartonProblem, counts: ArrayLike<number>): number {
  let [volume, weight, alone] = [0, 0, 0];
  goods.forEach((g, i) => {
    const units = counts[i] ?? 0;
    if (units === 0) return;
    volume += units * volumeOf(g.sizeMm);
    weight += units * g.weightG;
    const fitting = boxes.filter((b) => (b.stock ?? 1) > 0 && holds(b, g)).map((b) => b.cost);
    alone = Math.max(alone, fitting.length === 0 ? 0 : Math.min(...fitting));
  });
  const usable = boxes.filter((b) => (b.stock ?? 1) > 0);
  const byVolume = volume * Math.min(...usable.map((b) => b.cost / volumeOf(b.innerMm)));
  const byWeight = weight * Math.min(...usable.map((b) => b.cost / Math.max(1e-9, b.maxWeightG - b.tareG)));
  return usable.length === 0 ? 0 : Math.max(alone, byVolume, byWeight);
}
