import type { Dto } from '../../../api/client';
import { byDeparture, type DepartureGroup } from '../../../ui/by-departure';

export type BoardOrder = Dto['BoardOrderDto'];

/** Which of the waiting orders are looked at, as the address says it; nothing: all of them. */
export interface BoardFilter {
  /** The departure, by its time; late ones are "late". */
  van: string;
  /** The carrier whose van it is, by its code. */
  carrier: string;
  channel: string;
  zone: string;
  /** Part of an item's name or SKU. */
  item: string;
  /** So many stops at most; nought is no limit. */
  stops: number;
}

export const NO_FILTER: BoardFilter = { van: '', carrier: '', channel: '', zone: '', item: '', stops: 0 };

export function filterOf(params: URLSearchParams): BoardFilter {
  const stops = Number(params.get('stops'));
  return {
    van: params.get('van') ?? '',
    carrier: params.get('carrier') ?? '',
    channel: params.get('channel') ?? '',
    zone: params.get('zone') ?? '',
    item: params.get('item') ?? '',
    stops: Number.isSafeInteger(stops) && stops > 0 ? stops : 0,
  };
}

/** The waiting orders by the van that they must catch, late ones first. */
export const vansOf = (orders: readonly BoardOrder[], now = Date.now()): DepartureGroup<BoardOrder>[] =>
  byDeparture(orders, ['order', 'orders'], now);

/** The orders that a filter leaves, in their order. O(orders × stops). */
export function filtered(board: Dto['ReleaseBoardDto'], filter: BoardFilter, now = Date.now()): BoardOrder[] {
  const zones = new Map(board.places.map((p) => [p.id, p.zone]));
  const words = filter.item.trim().toLowerCase();
  const items = new Set(board.items.filter((i) => `${i.sku} ${i.name}`.toLowerCase().includes(words)).map((i) => i.id));
  const carriers = new Map(board.vans.map((v) => [new Date(v.at).getTime(), v.carrier]));
  const inVan = new Map(vansOf(board.orders, now).flatMap((g) => g.list.map((o) => [o.code, g.key] as const)));
  return board.orders.filter(
    (o) =>
      (!filter.van || inVan.get(o.code) === filter.van) &&
      (!filter.carrier || carriers.get(new Date(o.leavesAt).getTime()) === filter.carrier) &&
      (!filter.channel || o.channel === filter.channel) &&
      (!filter.zone || o.stops.some((s) => zones.get(s.placeId) === filter.zone)) &&
      (!words || o.stops.some((s) => items.has(s.itemId))) &&
      (filter.stops === 0 || o.stops.length <= filter.stops),
  );
}
