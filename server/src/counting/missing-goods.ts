import { Injectable } from '@nestjs/common';
import type { Act, Tx } from '../platform/index.js';
import type { Posting } from '../stock/index.js';

/** Goods of one lot in one place. */
export interface CountedSpot {
  siteId: number;
  placeId: number;
  itemId: number;
  lotId: number;
}

/** Where goods go that nobody may come for, and what for; they are held where they are where it is their own place, or nothing is said. */
export interface Instead {
  toPlaceId: number;
  posting: Posting;
}

/** What became of goods that are not there. */
export interface TakenAway {
  units: number;
  movements: number[];
}

/**
 * Sees to it that nobody comes for goods that are not there: what the books have in good order beyond `there` is held or put
 * elsewhere, and sought in other bins.
 */
type OnlyThere = (tx: Tx, act: Act, spot: CountedSpot, there: number, instead?: Instead) => Promise<TakenAway>;

/** Whoever sends people to bins says here what becomes of goods that a count has not found. */
@Injectable()
export class MissingGoods {
  private handler: OnlyThere | undefined;

  register(handler: OnlyThere): void {
    this.handler = handler;
  }

  async onlyThere(tx: Tx, act: Act, spot: CountedSpot, there: number, instead?: Instead): Promise<TakenAway> {
    return (await this.handler?.(tx, act, spot, there, instead)) ?? { units: 0, movements: [] };
  }
}
