import { type PackUnit, packName, spell } from '../quantity/index.js';

/** A line of a count that is off, as the search for causes sees it. Base units. */
export interface OffLine {
  id: number;
  placeId: number;
  place: string;
  itemId: number;
  item: string;
  lotId: number;
  counted: number;
  expected: number;
  packs: readonly PackUnit[];
}

/** Goods that the books have where they wait, such as at the dock. */
export interface WaitingGoods {
  placeId: number;
  place: string;
  itemId: number;
  lotId: number;
  units: number;
}

/** Units of one item that the books should have moved from one place to another. */
export interface MatchingMove {
  fromPlaceId: number;
  toPlaceId: number;
  units: number;
}

export interface Cause {
  kind: 'neighbour' | 'not-put-away' | 'pack' | 'mixed-up';
  says: string;
  /** The move that would put both right; null where somebody has to look again. */
  move: MatchingMove | null;
  /** The other line that it speaks of. */
  otherId: number | null;
}

const off = (l: OffLine) => l.counted - l.expected;

/**
 * Why a line may be off, likeliest first: the same goods are off the other way in another bin; goods that came in stand at the
 * dock in the books but lie in the bin; a pack was counted as one piece or a piece as a pack; other goods of the same bin are off
 * the other way. `lines`: all lines of the count that are off; nearest bins first where several fit. O(lines).
 */
export function causesOf(line: OffLine, lines: readonly OffLine[], waiting: readonly WaitingGoods[]): Cause[] {
  const by = off(line);
  if (by === 0) return [];
  const same = (o: { itemId: number; lotId: number }) => o.itemId === line.itemId && o.lotId === line.lotId;
  const causes: Cause[] = [];
  const other = lines.filter((o) => o.id !== line.id && same(o) && o.placeId !== line.placeId && off(o) === -by)[0];
  const units = spell(Math.abs(by), line.packs);
  if (other)
    causes.push({
      kind: 'neighbour',
      says: `${other.place} has ${units} ${by < 0 ? 'more' : 'fewer'} of the same: they may lie in the wrong bin`,
      move:
        by < 0
          ? { fromPlaceId: line.placeId, toPlaceId: other.placeId, units: -by }
          : { fromPlaceId: other.placeId, toPlaceId: line.placeId, units: by },
      otherId: other.id,
    });
  const dock = by > 0 ? waiting.find((w) => same(w) && w.units >= by && w.placeId !== line.placeId) : undefined;
  if (dock)
    causes.push({
      kind: 'not-put-away',
      says: `The books still have ${spell(dock.units, line.packs)} at ${dock.place}: they may have been put away without a scan`,
      move: { fromPlaceId: dock.placeId, toPlaceId: line.placeId, units: by },
      otherId: null,
    });
  const pack = packMistaken(line);
  if (pack) causes.push({ kind: 'pack', says: pack, move: null, otherId: null });
  const mixed = lines.find((o) => o.id !== line.id && o.placeId === line.placeId && o.itemId !== line.itemId && off(o) === -by);
  if (mixed)
    causes.push({
      kind: 'mixed-up',
      says: `${mixed.item} in the same bin is off by as much the other way: the two may have been taken for each other`,
      move: null,
      otherId: mixed.id,
    });
  return causes;
}

/** A number of packs keyed as pieces, or of pieces as packs; null where neither fits. */
function packMistaken({ counted, expected, packs }: OffLine): string | null {
  if (counted <= 0 || expected <= 0) return null;
  for (const pack of packs) {
    if (pack.factor === 1) continue;
    const base = packs.find((p) => p.factor === 1);
    if (counted * pack.factor === expected)
      return `${counted} ${packName(pack, counted)} would be as the books say: packs may have been counted as ${base?.plural ?? 'pieces'}`;
    if (expected * pack.factor === counted)
      return `${expected} ${expected === 1 ? (base?.name ?? 'piece') : (base?.plural ?? 'pieces')} would be as the books say: ${base?.plural ?? 'pieces'} may have been counted as ${packName(pack)}`;
    const packsOff = (counted - expected) / (pack.factor - 1);
    // One pack among loose pieces that was counted as one piece, or the other way about.
    if (Number.isInteger(packsOff) && Math.abs(packsOff) === 1)
      return packsOff < 0
        ? `One ${packName(pack, 1)} may have been counted as one ${base?.name ?? 'piece'}`
        : `One ${base?.name ?? 'piece'} may have been counted as one ${packName(pack, 1)}`;
  }
  return null;
}
