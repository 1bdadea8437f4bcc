import { Injectable } from '@nestjs/common';
import { available } from '@vectrum/core/ledger';
import { decimalText, micro, times } from '@vectrum/core/money';
import { ordersIn, type OrderState } from '@vectrum/core/orders';
import { holdsWords } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { batches, likeAny, notFound, num, one, pageOf, promisedSql, rows, type Window } from '../platform/index.js';
import { OWN_HOLDS } from './holds.js';
import { COUNTS, GROUPED, type Narrowed, type Show, SHOWN } from './order-filter.js';
import type { OrderCountsDto, OrderDto, OrderLineDto, OrderHoldDto, OrderPageDto, OrderRowDto, ParcelDto } from './orders.dto.js';

/** What is not in the order of its vans. */
const ORDERED: Partial<Readonly<Record<Show, string>>> = {
  gone: 'o.shipped_at DESC, o.id DESC',
  cancelled: 'o.id DESC',
  quotes: 'o.id DESC',
};
/** Words of a customer's name: among the open orders any part of it, among all that ever were whole words or their beginnings. */
function customerLike(show: Show, search: string): [sql: string, value: string] {
  if (show !== 'gone' && show !== 'cancelled') return ['o.customer LIKE ?', likeAny(search)];
  const words = search.match(/[\p{L}\p{N}]+/gu) ?? [];
  return ['MATCH (o.customer) AGAINST (? IN BOOLEAN MODE)', words.map((w) => `+${w}*`).join(' ')];
}

/** The states in which no van is to be caught. */
const OVER: ReadonlySet<string> = new Set(['quote', 'shipped', 'cancelled']);

/** Reads sales orders: the list by departure, the sheet with stock for each line. */
@Injectable()
export class OrdersQueries {
  constructor(
    private readonly source: DataSource,
    private readonly calendars: CalendarQueries,
  ) {}

  /** Orders by the time that they were promised, and those that have gone the newest first; how many there are of each. */
  async list(siteIds: readonly number[], show: Show, narrowed: Narrowed, window: Window): Promise<OrderPageDto> {
    const also: [sql: string, ...params: unknown[]][] = [
      ...(narrowed.channel
        ? [['o.channel_id = (SELECT c.id FROM channel c WHERE c.code = ?)', narrowed.channel] as [string, unknown]]
        : []),
      ...(narrowed.search ? [customerLike(show, narrowed.search)] : []),
    ];
    const from = `FROM sales_order o WHERE o.site_id IN (?) AND ${[SHOWN[show], ...also.map(([sql]) => sql)].join(' AND ')}`;
    const order = ORDERED[show] ?? GROUPED[narrowed.by];
    const params = [[0, ...siteIds], ...also.flatMap(([, ...values]) => values)];
    const [page, counts] = await Promise.all([
      pageOf<{ id: number }>(this.source, { select: 'o.id', from, params, order }, window),
      this.counts(siteIds),
    ]);
    return { rows: await this.rowsOf(siteIds, page.rows), total: page.total, counts };
  }

  /** All orders of a kind, in the order of their numbers, a batch at a time. */
  each(siteIds: readonly number[], show: Show): AsyncGenerator<OrderRowDto> {
    return batches(
      (after) =>
        rows<{ id: number }>(
          this.source,
          `SELECT o.id FROM sales_order o WHERE o.site_id IN (?) AND ${SHOWN[show]} AND o.id > ? ORDER BY o.id LIMIT 500`,
          [[0, ...siteIds], after],
        ),
      (ids) => this.rowsOf(siteIds, ids),
    );
  }

  private async counts(siteIds: readonly number[]): Promise<OrderCountsDto> {
    const found = await one<Record<keyof OrderCountsDto, string>>(
      this.source,
      `SELECT ${COUNTS} FROM sales_order o WHERE o.site_id IN (?) AND ${SHOWN.all}`,
      [[0, ...siteIds]],
    );
    return {
      all: num(found?.all),
      urgent: num(found?.urgent),
      ready: num(found?.ready),
      short: num(found?.short),
      stuck: num(found?.stuck),
    };
  }

  private async rowsOf(siteIds: readonly number[], ids: readonly { id: number }[]): Promise<OrderRowDto[]> {
    if (ids.length === 0) return [];
    const found = await rows<
      Omit<OrderRowDto, 'late' | 'stock' | 'leavesAt' | 'holds'> & {
        siteId: number;
        late: number;
        stock: string | null;
        names: string | null;
      }
    >(
      this.source,
      `SELECT o.code, o.site_id AS siteId, o.customer, c.name AS channel, o.state, o.hold_reason AS holdReason, o.promised_at AS promisedAt, (o.state NOT IN ('quote','shipped','cancelled') AND o.promised_at < UTC_TIMESTAMP()) AS late,
         (SELECT GROUP_CONCAT(CASE WHEN l.item_id IS NULL THEN 'unknown' WHEN l.shipped_units >= l.units THEN 'gone' WHEN ${promisedSql('l')} >= l.units THEN 'ready' WHEN ${promisedSql('l')} > 0 THEN 'part' ELSE 'none' END ORDER BY l.line) FROM sales_order_line l WHERE l.order_id = o.id AND l.units > 0) AS stock,
         (SELECT GROUP_CONCAT(COALESCE(i.name, l.channel_sku) ORDER BY l.line SEPARATOR '\n') FROM sales_order_line l LEFT JOIN item i ON i.id = l.item_id WHERE l.order_id = o.id AND l.quantity > 0 AND l.kit_line IS NULL) AS names,
         (SELECT COALESCE(SUM(l.quantity * l.price), 0) FROM sales_order_line l WHERE l.order_id = o.id) AS worth,
         (SELECT p.name FROM round_order x JOIN \`round\` r ON r.id = x.round_id JOIN person p ON p.id = r.picker_id WHERE x.order_id = o.id ORDER BY r.id DESC LIMIT 1) AS who
       FROM sales_order o JOIN channel c ON c.id = o.channel_id
       WHERE o.id IN (?) ORDER BY FIELD(o.id, ?)`,
      [ids.map((o) => o.id), ids.map((o) => o.id)],
    );
    const boards = await this.calendars.boards(siteIds);
    return found.map(({ siteId, names, ...o }) => ({
      ...o,
      worth: decimalText(micro(o.worth)),
      holds: holdsWords((names ?? '').split('\n').filter(Boolean)),
      leavesAt: OVER.has(o.state) ? null : (boards.get(siteId)?.toCatch(o.promisedAt) ?? null),
      late: num(o.late) === 1,
      stock: o.stock ? o.stock.split(',') : [],
    }));
  }

  async sheet(code: string, siteIds: readonly number[]): Promise<OrderDto> {
    const order = await one<
      Omit<
        OrderDto,
        | 'lines'
        | 'parcels'
        | 'invoices'
        | 'returns'
        | 'holds'
        | 'late'
        | 'leavesAt'
        | 'weightG'
        | 'worth'
        | 'cannotRelease'
        | 'canFollow'
        | 'wholeOnly'
        | 'picks'
      > & {
        picks: number;
        id: number;
        late: number;
        wholeOnly: number;
      }
    >(
      this.source,
      `SELECT o.id, o.code, c.name AS channel, c.code AS channelCode, o.channel_ref AS channelRef, o.site_id AS siteId, s.name AS site, s.picks, o.state, o.hold_reason AS holdReason, o.customer, a.code AS account, o.email, o.phone, o.address_line AS addressLine, o.city, o.postcode, o.country, o.priority, o.whole_only AS wholeOnly, o.quoted_until AS quotedUntil, o.cancelled_why AS cancelledWhy,
         o.placed_at AS placedAt, o.promised_at AS promisedAt, (o.state NOT IN ('quote','shipped','cancelled') AND o.promised_at < UTC_TIMESTAMP()) AS late, o.speed, o.note_packer AS notePacker, o.note_picker AS notePicker, o.shipped_at AS shippedAt, o.version,
         (SELECT r.code FROM \`round\` r JOIN round_order x ON x.round_id = r.id WHERE x.order_id = o.id ORDER BY r.id DESC LIMIT 1) AS round
       FROM sales_order o JOIN channel c ON c.id = o.channel_id JOIN site s ON s.id = o.site_id LEFT JOIN customer a ON a.id = o.customer_id WHERE o.code = ? AND o.site_id IN (?)`,
      [code, [0, ...siteIds]],
    );
    if (!order) throw notFound(`Order ${code}`);
    const { id, ...head } = order;
    const board = order.shippedAt ? undefined : (await this.calendars.boards([order.siteId])).get(order.siteId);
    const { lines, weightG } = await this.lines(id, order.siteId);
    const waits = await one<{ units: string | null }>(
      this.source,
      'SELECT SUM(v.units) AS units FROM reservation v JOIN sales_order_line l ON l.id = v.order_line_id WHERE l.order_id = ? AND v.place_id IS NULL',
      [id],
    );
    const invoices = await rows<{ code: string }>(
      this.source,
      'SELECT DISTINCT v.code FROM invoice v JOIN invoice_line l ON l.invoice_id = v.id JOIN sales_order_line n ON n.id = l.order_line_id WHERE n.order_id = ? ORDER BY v.code DESC',
      [id],
    );
    const returns = await rows<{ code: string }>(this.source, 'SELECT code FROM customer_return WHERE order_id = ? ORDER BY id', [id]);
    return {
      ...head,
      invoices: invoices.map((v) => v.code),
      returns: returns.map((r) => r.code),
      wholeOnly: num(order.wholeOnly) === 1,
      picks: num(order.picks) === 1,
      holds: await this.holds(id),
      worth: decimalText(lines.reduce((sum, l) => sum + times(micro(l.price), l.quantity), 0n)),
      canFollow: ordersIn('at work').includes(order.state as OrderState) && num(waits?.units) > 0,
      leavesAt: board?.toCatch(order.promisedAt) ?? null,
      late: num(order.late) === 1,
      weightG,
      cannotRelease: whyNot(order.state, order.holdReason, lines),
      lines,
      parcels: await this.parcels(id),
    };
  }

  private async lines(orderId: number, siteId: number): Promise<{ lines: OrderLineDto[]; weightG: number }> {
    const found = await rows<Omit<OrderLineDto, 'free'> & { onHand: number; held: number; taken: number; weight: number | null }>(
      this.source,
      `SELECT l.line, l.channel_sku AS channelSku, l.quantity, l.factor, l.kit_line AS kit, COALESCE(i.kind = 'kit' AND l.units = 0 AND l.quantity > 0, 0) AS isKit, k.name AS pack, i.sku, i.name, i.picture, u.name AS unit, u.plural AS units, l.units AS wanted, ${promisedSql('l')} AS reserved, l.picked_units AS picked, l.packed_units AS packed, l.shipped_units AS shipped, l.price, COALESCE(i.never_holds_up, 0) AS \`insert\`, l.along, l.left_out AS leftOut,
         COALESCE(st.on_hand, 0) AS onHand, COALESCE(st.held, 0) AS held, COALESCE(st.reserved, 0) AS taken, u.weight_g AS weight
       FROM sales_order_line l LEFT JOIN item i ON i.id = l.item_id LEFT JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 LEFT JOIN pack_unit k ON k.item_id = i.id AND k.factor = l.factor LEFT JOIN site_stock st ON st.item_id = i.id AND st.site_id = ?
       WHERE l.order_id = ? ORDER BY l.line`,
      [siteId, orderId],
    );
    const weightG = found.reduce((sum, l) => sum + (l.weight ?? 0) * l.wanted, 0);
    return {
      weightG,
      lines: found.map(({ onHand, held, taken, weight: _weight, ...l }) => ({
        ...l,
        reserved: num(l.reserved),
        isKit: num(l.isKit as never) === 1,
        insert: num(l.insert as never) === 1,
        along: num(l.along as never) === 1,
        free: available({ onHand, held, reserved: taken }),
      })),
    };
  }

  private async holds(orderId: number): Promise<OrderHoldDto[]> {
    const found = await rows<Omit<OrderHoldDto, 'own'>>(
      this.source,
      'SELECT h.id, h.kind, h.reason, w.name AS owner, p.name AS setBy, h.set_at AS setAt FROM order_hold h LEFT JOIN person w ON w.id = h.owner_id LEFT JOIN person p ON p.id = h.set_by WHERE h.order_id = ? AND h.cleared_at IS NULL ORDER BY h.id',
      [orderId],
    );
    return found.map((h) => ({ ...h, own: OWN_HOLDS.some((k) => k === h.kind) }));
  }

  private async parcels(orderId: number): Promise<ParcelDto[]> {
    const found = await rows<Omit<ParcelDto, 'hasPicture'> & { hasPicture: number }>(
      this.source,
      `SELECT p.code, p.state, p.carton, p.weight_g AS weightG, c.name AS carrier, p.service, p.tracking, p.booking, p.weight_why AS weightWhy, p.travel, p.travel_at AS travelAt, EXISTS (SELECT 1 FROM parcel_picture x WHERE x.parcel_id = p.id) AS hasPicture FROM parcel p LEFT JOIN carrier c ON c.id = p.carrier_id WHERE p.order_id = ? ORDER BY p.number`,
      [orderId],
    );
    return found.map((p) => ({ ...p, hasPicture: num(p.hasPicture) === 1 }));
  }
}

function whyNot(state: string, holdReason: string | null, lines: readonly OrderLineDto[]): string | null {
  if (state === 'held') return holdReason;
  if (state !== 'open') return `It is ${state} already`;
  const short = lines.find((l) => l.reserved < l.wanted && !l.insert);
  if (lines.every((l) => l.wanted === 0)) return 'It has no lines';
  if (!short) return null;
  const lacks = short.wanted - short.reserved;
  return `Short of ${lacks} ${(lacks === 1 ? short.unit : short.units) ?? 'units'} of ${short.name ?? short.channelSku}`;
}
