import { Injectable } from '@nestjs/common';
import type { Condition, Movement } from '@vectrum/core/ledger';
import { type Act, badState, num, rows, type Tx } from '../platform/index.js';
import { type CountedSpot, type Instead, MissingGoods, type TakenAway } from './missing-goods.js';

/** Goods that a count has not found where the books have them go out of the books there. */
@Injectable()
export class TakingOut {
  constructor(private readonly missing: MissingGoods) {}

  /** What is missing of good goods beyond those held there already is taken out of the books, and sought elsewhere for those who would come for it. */
  async leaveOthers(tx: Tx, act: Act, spot: CountedSpot, units: number, instead: Instead): Promise<TakenAway> {
    const found = await rows<{ is: Condition; units: number }>(
      tx,
      'SELECT stock_condition AS `is`, units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND units > 0',
      [spot.itemId, spot.placeId, spot.lotId],
    );
    const of = (condition: Condition) => num(found.find((f) => f.is === condition)?.units);
    const short = units - of('held') - of('to-inspect');
    if (short <= 0) return NOTHING;
    if (short > of('good')) throw badState('The books have fewer than that there by now. Have the bin counted again');
    return this.missing.onlyThere(tx, act, spot, of('good') - short, instead);
  }

  /**
   * Movements that take so many units out of a place, whatever their condition: first what is held there already, then what is
   * good. Throws where the books have fewer by now.
   */
  async take(
    tx: Tx,
    spot: CountedSpot,
    units: number,
    to: Pick<Movement, 'toPlaceId' | 'toCondition'>,
    isDamaged = false,
  ): Promise<Movement[]> {
    const have = new Map(
      (
        await rows<{ is: Condition; units: number }>(
          tx,
          'SELECT stock_condition AS `is`, units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND units > 0 ORDER BY stock_condition FOR UPDATE',
          [spot.itemId, spot.placeId, spot.lotId],
        )
      ).map((b) => [b.is, num(b.units)]),
    );
    const kinds: Condition[] = isDamaged ? ['damaged'] : ['held', 'to-inspect', 'good'];
    let rest = units;
    const movements: Movement[] = [];
    for (const condition of kinds) {
      const some = Math.min(rest, have.get(condition) ?? 0);
      rest -= some;
      const { toCondition, toPlaceId } = to;
      const becomes = toCondition === undefined || toCondition === condition ? {} : { toCondition };
      if (some > 0)
        movements.push({
          itemId: spot.itemId,
          lotId: spot.lotId,
          condition,
          fromPlaceId: spot.placeId,
          toPlaceId,
          units: some,
          ...becomes,
        });
    }
    if (rest > 0) throw badState('The books have fewer than that there by now. Have the bin counted again');
    return movements;
  }
}

export const NOTHING: TakenAway = { units: 0, movements: [] };
