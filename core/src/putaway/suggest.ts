import { zoneRefusal } from '../scan/index.js';
import type { PlanPoint } from '../walk/index.js';
import type { PutawayBin, PutawayGoods, PutawaySuggestion } from './types.js';

/** Goods of this weight in all are put low where there is a choice. */
const HEAVY_G = 15_000;
/** What a step up costs heavy goods, in metres of walking that people would rather do. */
const METRES_A_LEVEL = 12;
/** What it costs to take a bin of the other kind, or one that does not hold all, likewise. */
const METRES_OTHER_KIND = 25;
const METRES_IN_PARTS = 40;
/** A far larger bin than is needed is kept for goods that need it. */
const METRES_WASTE = 10;
const MOST_BINS = 4;

/** Units of the goods that a bin still has room for, by volume and by weight; unbounded where neither is known. */
export function roomFor(
  goods: Pick<PutawayGoods, 'unitMl' | 'unitG'>,
  bin: Pick<PutawayBin, 'holdsMl' | 'holdsG' | 'usedMl' | 'usedG'>,
): number {
  const by = (holds: number | null, used: number, unit: number | null) =>
    holds === null || unit === null || unit <= 0 ? Infinity : Math.max(0, Math.floor((holds - used) / unit));
  return Math.min(by(bin.holdsMl, bin.usedMl, goods.unitMl), by(bin.holdsG, bin.usedG, goods.unitG));
}

const mayStand = (goods: PutawayGoods, bin: PutawayBin) =>
  zoneRefusal({ name: '', storage: goods.storage }, { code: bin.code, rule: bin.rule }) === null;

const metres = (a: PlanPoint | null, b: PlanPoint | null) => (a && b ? Math.abs(a.x - b.x) + Math.abs(a.y - b.y) : 0);

interface Candidate {
  bin: PutawayBin;
  reason: string;
}

/** The bins for goods, best first: the pick face, where its lot (or the rest of it) lies, then empty ones. */
function* candidates(goods: PutawayGoods, bins: readonly PutawayBin[], demandAt: PlanPoint): Generator<Candidate> {
  const fitting = bins.filter((b) => mayStand(goods, b) && roomFor(goods, b) > 0);
  const home = fitting.find((b) => b.id === goods.homeId);
  if (home) yield { bin: home, reason: 'its pick face' };
  const near = bins.find((b) => b.id === goods.homeId)?.at ?? demandAt;
  const byDistance = (a: PutawayBin, b: PutawayBin) => metres(a.at, near) - metres(b.at, near) || a.id - b.id;
  const beside = (b: PutawayBin) => b.stock.some((s) => s.itemId === goods.itemId && s.lotId === goods.lotId);
  for (const bin of fitting.filter((b) => b !== home && beside(b)).sort(byDistance))
    yield { bin, reason: goods.lotId === 0 ? 'the rest of it lies there' : 'its lot lies there' };
  yield* empties(
    goods,
    fitting.filter((b) => b !== home && b.stock.length === 0),
    near,
  );
}

function* empties(goods: PutawayGoods, empty: readonly PutawayBin[], near: PlanPoint): Generator<Candidate> {
  const wanted = goods.homeId === null ? 'pick-face' : 'reserve';
  const heavy = goods.unitG !== null && goods.unitG * goods.units >= HEAVY_G;
  const cost = (b: PutawayBin) => {
    const room = roomFor(goods, b);
    const waste = Number.isFinite(room) ? Math.max(0, 1 - goods.units / room) : 0;
    return (
      metres(b.at, near) +
      (heavy ? (b.level - 1) * METRES_A_LEVEL : 0) +
      (b.kind === wanted ? 0 : METRES_OTHER_KIND) +
      (room < goods.units ? METRES_IN_PARTS : waste * METRES_WASTE)
    );
  };
  const ranked = empty.map((bin) => ({ bin, cost: cost(bin) })).sort((a, b) => a.cost - b.cost || a.bin.id - b.bin.id);
  for (const { bin } of ranked)
    yield { bin, reason: heavy && bin.level === 1 ? 'the nearest empty bin low down, for its weight' : 'the nearest empty bin' };
}

/**
 * Bins for goods until all of them have one, at most four; fewer where the house has no more room. `demandAt` is where goods
 * without a pick face are wanted, such as the packing tables. O(bins log bins).
 */
export function suggestBins(goods: PutawayGoods, bins: readonly PutawayBin[], demandAt: PlanPoint): PutawaySuggestion[] {
  const found: PutawaySuggestion[] = [];
  let left = goods.units;
  for (const { bin, reason } of candidates(goods, bins, demandAt)) {
    if (left === 0 || found.length === MOST_BINS) break;
    const units = Math.min(left, roomFor(goods, bin));
    found.push({ binId: bin.id, code: bin.code, units, reason });
    left -= units;
  }
  return found;
}

/** Bins for one lot of goods after another; each sees what those before it will have taken up. */
export function suggestAll(list: readonly PutawayGoods[], bins: readonly PutawayBin[], demandAt: PlanPoint): PutawaySuggestion[][] {
  const house = new Map(bins.map((b) => [b.id, b]));
  return list.map((goods) => {
    const found = suggestBins(goods, [...house.values()], demandAt);
    for (const { binId, units } of found) {
      const bin = house.get(binId);
      if (!bin) continue;
      house.set(binId, {
        ...bin,
        usedMl: bin.usedMl + units * (goods.unitMl ?? 0),
        usedG: bin.usedG + units * (goods.unitG ?? 0),
        stock: [...bin.stock, { itemId: goods.itemId, lotId: goods.lotId }],
      });
    }
    return found;
  });
}
