import { Injectable } from '@nestjs/common';
import type { BinStock } from '@vectrum/core/allocation';
import { AllocationService, type Holder, onShelfSql, Reservations } from '../allocation/index.js';
import { type CountedSpot, type Instead, MissingGoods, type TakenAway } from '../counting/index.js';
import { OrderStates } from '../orders/index.js';
import { type Act, more, one, rows, type Tx, update } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import { pickable, takeFrom } from './pickable.js';
import { RecallService } from './recall.service.js';
import { ReleaseService } from './release.service.js';
import { type RoundRow, type StopRow, stopOf } from './rounds.js';

/** Units of a stop that were sought elsewhere, as stops of the same round. */
export interface Sought {
  stopId: number;
  units: number;
}
interface Shelved extends Holder {
  units: number;
  orderId: number;
  rotation: 'fifo' | 'fefo';
}
export type StopOnRound = StopRow & { round: RoundRow };

/** What becomes of goods that are not where the books have them: they are held, and those who would come for them are sent elsewhere. */
@Injectable()
export class MissingService {
  constructor(
    private readonly releases: ReleaseService,
    private readonly recalls: RecallService,
    private readonly ledger: LedgerService,
    private readonly reservations: Reservations,
    private readonly allocation: AllocationService,
    private readonly states: OrderStates,
    missing: MissingGoods,
  ) {
    missing.register((tx, act, spot, there, instead) => this.onlyThere(tx, act, spot, there, instead));
  }

  /** Only so many are there: nobody comes for more. The rest is held, or goes where it is said to. */
  async onlyThere(tx: Tx, act: Act, spot: CountedSpot, there: number, instead?: Instead): Promise<TakenAway> {
    const stops = await this.stopsAt(tx, spot);
    const shelved = await this.shelvedAt(tx, spot);
    const orders = [...stops, ...shelved].map((s) => s.orderId);
    await this.states.lock(tx, orders);
    const bins = ((await pickable(tx, spot.siteId, [spot.itemId], 'locked')).get(spot.itemId) ?? []).filter(
      (b) => b.placeId !== spot.placeId,
    );
    const { units, stays, movements } = await this.hold(tx, act, spot, there, null, instead);
    if (units === 0) return { units, movements };
    await this.sendOthers(tx, stops, bins, stays);
    const wanted = stops.reduce((n, s) => n + s.units - s.picked - s.short, 0);
    await this.elsewhereOnShelf(tx, spot, shelved, bins, stays - wanted);
    await this.allocation.settle(tx, [spot]);
    await this.states.refresh(tx, orders);
    return { units, movements };
  }

  /** What waits at a spot to be packed from the shelf, those that were promised soonest first. */
  private shelvedAt(tx: Tx, spot: CountedSpot): Promise<Shelved[]> {
    return rows<Shelved>(
      tx,
      `SELECT v.order_line_id AS lineId, v.item_id AS itemId, v.site_id AS siteId, v.units, l.order_id AS orderId, i.rotation
       FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id JOIN sales_order o ON o.id = l.order_id JOIN item i ON i.id = v.item_id JOIN place p ON p.id = v.place_id
       WHERE v.place_id = ? AND v.item_id = ? AND v.lot_id = ? AND ${onShelfSql('v', 'p')} ORDER BY o.promised_at, o.id, l.line`,
      [spot.placeId, spot.itemId, spot.lotId],
    );
  }

  /** What is packed from the shelf and is not there is packed from other bins; what no bin has waits to be sent again. */
  private async elsewhereOnShelf(tx: Tx, spot: CountedSpot, shelved: readonly Shelved[], bins: BinStock[], stays: number): Promise<void> {
    let rest = Math.max(0, stays);
    const here = { placeId: spot.placeId, lotId: spot.lotId };
    for (const line of shelved) {
      const keeps = Math.min(line.units, rest);
      rest -= keeps;
      if (keeps === line.units) continue;
      await this.reservations.move(tx, line, here, null, line.units - keeps);
      const { choices } = takeFrom(new Map([[line.itemId, bins]]), { ...line, units: line.units - keeps });
      for (const { placeId, lotId, units } of choices) await this.reservations.move(tx, line, null, { placeId, lotId }, units);
    }
  }

  /** The open stops that would come for goods of a bin, but for those given, with their rounds, which are held. */
  async stopsAt(tx: Tx, spot: Omit<CountedSpot, 'siteId'>, but: readonly number[] = []): Promise<(StopRow & { round: RoundRow })[]> {
    const found = await rows<{ id: number; roundId: number; code: string }>(
      tx,
      `SELECT s.id, s.round_id AS roundId, r.code FROM round_stop s JOIN \`round\` r ON r.id = s.round_id
       WHERE s.place_id = ? AND s.item_id = ? AND s.lot_id = ? AND s.id NOT IN (?) AND s.units > s.picked_units + s.short_units AND r.state IN ('waiting','picking') ORDER BY r.id, s.id`,
      [spot.placeId, spot.itemId, spot.lotId, [0, ...but]],
    );
    const others: (StopRow & { round: RoundRow })[] = [];
    for (const { id, roundId } of found) {
      const round = await one<RoundRow>(
        tx,
        'SELECT id, code, site_id, state, picker_id, pooled FROM `round` WHERE id = ? LOCK IN SHARE MODE',
        [roundId],
      );
      const other = await stopOf(tx, roundId, id);
      if (round && other) others.push({ ...other, round });
    }
    return others;
  }

  /**
   * Holds all that the books have there beyond what was seen, until somebody has counted the bin. What the books have taken from
   * there meanwhile is missing to nobody's surprise, and needs no count. Tells how many units may still be taken there.
   */
  async hold(
    tx: Tx,
    act: Act,
    spot: CountedSpot,
    there: number,
    document: string | null,
    instead?: Instead,
  ): Promise<{ movements: number[]; units: number; stays: number }> {
    const booked = await one<{ units: number }>(
      tx,
      `SELECT units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND stock_condition = 'good' FOR UPDATE`,
      [spot.itemId, spot.placeId, spot.lotId],
    );
    const units = Math.max(0, (booked?.units ?? 0) - there);
    const stays = (booked?.units ?? 0) - units;
    // The site's figures are locked before what is promised of them, also where nothing is held.
    if (units === 0) {
      await this.ledger.reserved(tx, spot.siteId, spot.itemId, 0);
      return { movements: [], units, stays };
    }
    const goods = { itemId: spot.itemId, lotId: spot.lotId, condition: 'good' as const, fromPlaceId: spot.placeId, units };
    const { ids } = instead
      ? await this.ledger.post(
          tx,
          act,
          [{ ...goods, toPlaceId: instead.toPlaceId, ...(instead.toPlaceId === spot.placeId ? { toCondition: 'held' as const } : {}) }],
          instead.posting,
        )
      : await this.ledger.post(tx, act, [{ ...goods, toPlaceId: spot.placeId, toCondition: 'held' }], {
          task: 'pick',
          document: document ?? 'COUNT',
          reason: 'reported not there',
        });
    return { movements: ids, units, stays };
  }

  /** What others would have come for and is not there goes to other bins for them too, the latest stops first. */
  async sendOthers(tx: Tx, others: readonly (StopRow & { round: RoundRow })[], bins: BinStock[], stays: number): Promise<void> {
    let rest = Math.max(0, stays);
    for (const other of others) {
      const wanted = other.units - other.picked - other.short;
      const keeps = Math.min(wanted, rest);
      rest -= keeps;
      if (keeps === wanted) continue;
      await update(tx, 'round_stop', { id: other.id }, { units: more(keeps - wanted) });
      await this.elsewhere(tx, other.round, other, wanted - keeps, bins);
      // A round of which nothing is left to walk for is over.
      await this.recalls.endEmpty(tx, other.orderId);
    }
  }

  /** Seeks units in other bins, as stops of the same round; what no bin has is promised no longer. Returns what was found. */
  async elsewhere(tx: Tx, round: RoundRow, stop: StopRow, units: number, bins: BinStock[]): Promise<Sought[]> {
    const holder = { lineId: stop.lineId, itemId: stop.itemId, siteId: round.site_id };
    await this.reservations.move(tx, holder, { placeId: stop.placeId, lotId: stop.lotId }, null, units);
    const { choices, short } = takeFrom(new Map([[stop.itemId, bins]]), { itemId: stop.itemId, units, rotation: stop.rotation });
    const sought: Sought[] = [];
    for (const choice of choices)
      sought.push({ stopId: await this.releases.addStop(tx, round.id, holder, choice, stop.personId), units: choice.units });
    if (short > 0) await this.reservations.free(tx, holder, null, short);
    return sought;
  }
}
