import type { LotId, PlaceId } from '../ids/index.js';

/** Goods in one bin and lot that may be taken for an order. Dates are ISO; an absent expiry is never due. */
export interface BinStock {
  placeId: PlaceId;
  lotId: LotId;
  expires?: string | null;
  received?: string | null;
  walkOrder: number;
  units: number;
}

export type Rotation = 'fefo' | 'fifo';

export interface BinChoice {
  placeId: PlaceId;
  lotId: LotId;
  units: number;
}

const LAST = '9999-12-31';

function rotationDate(row: BinStock, rotation: Rotation): string {
  return (rotation === 'fefo' ? row.expires : row.received) ?? LAST;
}

const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/**
 * The bins to empty for a quantity: earliest rotation date first; among rows of one date the row that the need empties,
 * then the first on the walk. Returns what could be found, and what was short. O(n²) in the rows of one item.
 */
export function chooseBins(rows: readonly BinStock[], units: number, rotation: Rotation): { choices: BinChoice[]; short: number } {
  const left = rows
    .filter((row) => row.units > 0)
    .sort((a, b) => compare(rotationDate(a, rotation), rotationDate(b, rotation)) || a.walkOrder - b.walkOrder || a.placeId - b.placeId);
  const choices: BinChoice[] = [];
  let need = units;
  while (need > 0 && left.length > 0) {
    const first = left[0];
    if (!first) break;
    const date = rotationDate(first, rotation);
    const sameDate = left.filter((row) => rotationDate(row, rotation) === date);
    const row = sameDate.find((r) => r.units === need) ?? first;
    const taken = Math.min(row.units, need);
    choices.push({ placeId: row.placeId, lotId: row.lotId, units: taken });
    need -= taken;
    left.splice(left.indexOf(row), 1);
  }
  return { choices, short: need };
}
