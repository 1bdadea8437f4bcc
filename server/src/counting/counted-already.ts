import { Injectable } from '@nestjs/common';
import { alreadySeen } from '@vectrum/core/counting';
import { type Condition, conditionAfter, type Movement } from '@vectrum/core/ledger';
import { one, type Tx } from '../platform/index.js';
import { type Beside, LateMoves, LedgerService } from '../stock/index.js';
import { SOUND } from './count-rows.js';

/**
 * A movement that is told after a count of its place was booked, but was made before somebody looked: whoever counted has seen its
 * effect, and the books followed. What it changes is given back to the difference of the count, so that it is booked once.
 */
@Injectable()
export class CountedAlready {
  constructor(
    private readonly ledger: LedgerService,
    late: LateMoves,
  ) {
    late.register((tx, movements, madeAt) => this.beside(tx, movements, madeAt));
  }

  private async beside(tx: Tx, movements: readonly Movement[], madeAt: Date): Promise<Beside[]> {
    const found: Beside[] = [];
    for (const m of movements.filter((x) => x.fromPlaceId !== x.toPlaceId)) {
      const ends = [
        { placeId: m.fromPlaceId, condition: m.condition, change: -m.units },
        { placeId: m.toPlaceId, condition: conditionAfter(m), change: m.units },
      ];
      for (const { placeId, condition, change } of ends) {
        const seen = await this.lookAfter(tx, { ...m, placeId, condition }, madeAt);
        const units = seen ? alreadySeen({ change, movedAt: madeAt.getTime(), lookedAt: seen.at.getTime() }) : 0;
        if (!seen || units === 0) continue;
        const outside = await this.ledger.outside(tx, 'count-difference');
        const [fromPlaceId, toPlaceId] = units > 0 ? [outside, placeId] : [placeId, outside];
        const movement = { itemId: m.itemId, lotId: m.lotId, condition, fromPlaceId, toPlaceId, units: Math.abs(units) };
        found.push({ movement, document: seen.code, reason: 'told after it was counted' });
      }
    }
    return found;
  }

  /** The newest count of these goods that is booked, where somebody looked after that moment. */
  private lookAfter(
    tx: Tx,
    of: { placeId: number; itemId: number; lotId: number; condition: Condition },
    madeAt: Date,
  ): Promise<{ at: Date; code: string } | undefined> {
    const damaged = of.condition === 'damaged' ? 1 : 0;
    if (!damaged && !(SOUND as readonly Condition[]).includes(of.condition)) return Promise.resolve(undefined);
    return one<{ at: Date; code: string }>(
      tx,
      `SELECT l.looked_at AS at, c.code FROM count_line l JOIN stock_count c ON c.id = l.count_id
       WHERE l.place_id = ? AND l.item_id = ? AND l.lot_id = ? AND l.damaged = ? AND l.state = 'accepted' AND l.looked_at >= ? ORDER BY l.looked_at DESC LIMIT 1`,
      [of.placeId, of.itemId, of.lotId, damaged, madeAt],
    );
  }
}
