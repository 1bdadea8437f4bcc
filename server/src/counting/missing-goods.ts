import { Injectable } from '@nestjs/common';
import type { Act, Tx } from '../platform/index.js';

/** Goods of one lot in one place. */
export interface CountedSpot {
  siteId: number;
  placeId: number;
  itemId: number;
  lotId: number;
}

/**
 * Sees to it that nobody comes for goods that are not there: what the books have in good order beyond `there` is held, and sought
 * elsewhere. Returns the units that are held by it.
 */
type OnlyThere = (tx: Tx, act: Act, spot: CountedSpot, there: number) => Promise<number>;

/** Whoever sends people to bins says here what becomes of goods that a count has not found. */
@Injectable()
export class MissingGoods {
  private handler: OnlyThere | undefined;

  register(handler: OnlyThere): void {
    this.handler = handler;
  }

  async onlyThere(tx: Tx, act: Act, spot: CountedSpot, there: number): Promise<number> {
    return (await this.handler?.(tx, act, spot, there)) ?? 0;
  }
}
