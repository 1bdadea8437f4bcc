import { Injectable } from '@nestjs/common';
import { kindsFor } from '@vectrum/core/places';
import { type Holder, Reservations } from '../allocation/index.js';
import { OrderStates } from '../orders/index.js';
import { ParcelsService } from '../packing/index.js';
import { RecallService } from '../picking/index.js';
import { rows, sqlList, type Tx } from '../platform/index.js';

/** Units that a line holds somewhere, on their way from the site's stock to the customer. */
export interface HeldGoods extends Holder {
  placeId: number | null;
  lotId: number;
  units: number;
  /** Promised at the site, sought in a bin, in a tote or in a slot of a wall, in a parcel that is open, or in one that is closed. */
  at: 'site' | 'bin' | 'tote' | 'open parcel' | 'closed parcel';
  /** The bin, tote or parcel. */
  code: string;
  parcelId: number | null;
}

const HELD = `SELECT v.order_line_id AS lineId, v.item_id AS itemId, v.site_id AS siteId, v.place_id AS placeId, v.lot_id AS lotId, v.units, COALESCE(p.code, '') AS code, c.id AS parcelId,
    CASE WHEN p.id IS NULL THEN 'site' WHEN p.kind IN ${sqlList(kindsFor('picked'))} THEN 'tote' WHEN p.kind <> 'parcel' THEN 'bin' WHEN c.state IN ('open','void') THEN 'open parcel' ELSE 'closed parcel' END AS at
  FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id LEFT JOIN place p ON p.id = v.place_id LEFT JOIN parcel c ON c.place_id = v.place_id`;
const BY_HAND = `ORDER BY v.item_id, v.site_id, v.order_line_id, FIELD(at, 'site', 'bin', 'tote', 'open parcel', 'closed parcel'), v.place_id, v.lot_id`;

/**
 * Takes from orders what they want no longer, first what costs nobody a step: what is only promised, then what nobody has
 * picked yet, then what lies in a tote or an open parcel, which the floor is asked to put away. The rounds of the order, the
 * order and its parcels are held.
 */
@Injectable()
export class TakingBack {
  constructor(
    private readonly reservations: Reservations,
    private readonly recalls: RecallService,
    private readonly parcels: ParcelsService,
    private readonly states: OrderStates,
  ) {}

  /** All that an order holds, in the order in which it is taken back. */
  held(tx: Pick<Tx, 'query'>, orderId: number): Promise<HeldGoods[]> {
    return rows<HeldGoods>(tx, `${HELD} WHERE l.order_id = ? ${BY_HAND}`, [orderId]);
  }

  /** Takes so many units from what a line holds, as far as they are not in a closed parcel. Returns where they were. */
  async take(tx: Tx, held: readonly HeldGoods[], units: number): Promise<HeldGoods[]> {
    const taken: HeldGoods[] = [];
    let need = units;
    for (const goods of held) {
      const part = goods.at === 'closed parcel' ? 0 : Math.min(need, goods.units);
      if (part <= 0) continue;
      await this.free(tx, { ...goods, units: part });
      taken.push({ ...goods, units: part });
      need -= part;
    }
    return taken;
  }

  private async free(tx: Tx, goods: HeldGoods): Promise<void> {
    const { lineId, placeId, lotId, units } = goods;
    const spot = placeId === null ? null : { placeId, lotId };
    await this.reservations.free(tx, goods, spot, units);
    if (goods.at === 'bin' && spot) await this.recalls.fewer(tx, lineId, spot, units);
    if (goods.at === 'tote') await this.states.progress(tx, lineId, { picked: -units });
    if (goods.at === 'open parcel' && goods.parcelId !== null) {
      await this.parcels.takeOut(tx, goods.parcelId, lineId, lotId, units);
      await this.states.progress(tx, lineId, { packed: -units });
      await this.states.progress(tx, lineId, { picked: -units });
    }
  }
}

/** What the floor is asked to put away, in words; empty where nothing is. */
export function toPutAway(taken: readonly HeldGoods[]): string {
  const places = new Map<string, number>();
  for (const t of taken) if (t.at === 'tote' || t.at === 'open parcel') places.set(t.code, (places.get(t.code) ?? 0) + t.units);
  return [...places].map(([code, units]) => `${units} to put away from ${code}`).join(', ');
}
