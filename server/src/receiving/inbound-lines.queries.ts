import { Injectable } from '@nestjs/common';
import { spell } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { ItemQueries } from '../catalogue/index.js';
import { dayIn, dayOf, num, pageOf, siteDays, siteSpan, type Window } from '../platform/index.js';
import type { InboundLinePageDto } from './inbound-lines.dto.js';

/** What is asked of the list: lines that are due or goods that came, between two days, of a supplier or of goods. */
export interface InboundAsked {
  what: 'due' | 'received';
  /** ISO dates; empty where that end is open. */
  from: string;
  to: string;
  /** Words that the supplier's or the goods' name, SKU or the order's code holds. */
  search: string;
}

type Row = Record<'units' | 'late' | 'itemId', number | string> &
  Omit<InboundLinePageDto['rows'][number], 'units' | 'late'> & {
    /** Of what came in: when, and in whose time. */
    at?: Date;
    timeZone?: string;
  };
const FIRST = '2000-01-01';
const LAST = '2099-12-31';

/** What a request asks, checked. */
export function inboundAsked(query: Readonly<Record<string, unknown>>): InboundAsked {
  const text = (name: string) => (typeof query[name] === 'string' ? query[name].trim() : '');
  return {
    what: text('what') === 'received' ? 'received' : 'due',
    from: dayOf(query, 'from'),
    to: dayOf(query, 'to'),
    search: text('search').slice(0, 80),
  };
}

/** Lines of purchase orders that are due, and goods that came in, by the day. */
@Injectable()
export class InboundLinesQueries {
  constructor(
    private readonly source: DataSource,
    private readonly items: ItemQueries,
  ) {}

  async list(siteIds: readonly number[], asked: InboundAsked, window: Window): Promise<InboundLinePageDto> {
    const words = asked.search.split(/\s+/).filter(Boolean).slice(0, 6);
    const said = {
      due: "CONCAT_WS(' ', s.name, i.name, i.sku, o.code)",
      received: "CONCAT_WS(' ', s.name, i.name, i.sku, o.code, a.code)",
    };
    const like = words.map(() => ` AND ${said[asked.what]} LIKE ?`).join('');
    const patterns = words.map((w) => `%${w.replace(/[\\%_]/g, '\\$&')}%`);
    const list = asked.what === 'due' ? await this.due(siteIds, asked) : await this.received(siteIds, asked);
    const { rows, total } = await pageOf<Row>(
      this.source,
      { ...list, from: `${list.from}${like}`, params: [...list.params, ...patterns] },
      window,
    );
    const packs = await this.items.packs([...new Set(rows.map((r) => num(r.itemId)))]);
    return {
      rows: rows.map(({ itemId, units, late, at, timeZone, ...r }) => ({
        ...r,
        day: at && timeZone ? dayIn(timeZone, at) : r.day,
        units: num(units),
        words: spell(num(units), packs.get(num(itemId)) ?? []),
        late: num(late) === 1,
      })),
      total,
    };
  }

  private async due(siteIds: readonly number[], { from, to }: InboundAsked) {
    const days = await siteDays(this.source);
    const day = 'COALESCE(l.expected_on, o.expected_on)';
    return {
      select: `${day} AS day, o.code AS \`order\`, l.line, NULL AS arrival, s.name AS supplier, t.name AS site, i.id AS itemId, i.sku, i.name, i.picture, l.open_units AS units,
        ${day} < ${days.today('o.site_id')} AS late, NULL AS \`by\`, '' AS takenAs, '' AS \`condition\``,
      from: `FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id JOIN site t ON t.id = o.site_id JOIN item i ON i.id = l.item_id
        WHERE o.state IN ('placed','part-received') AND l.open_units > 0 AND o.site_id IN (?) AND (? = '' OR ${day} >= ?) AND (? = '' OR ${day} <= ?)`,
      params: [[0, ...siteIds], from, from || FIRST, to, to || LAST],
      order: `${day} IS NULL, ${day}, s.name, o.id, l.line`,
    };
  }

  private async received(siteIds: readonly number[], { from, to }: InboundAsked) {
    const span = await siteSpan(this.source, from || FIRST, to || LAST);
    return {
      select: `r.at, t.time_zone AS timeZone, NULL AS day, o.code AS \`order\`, n.line, a.code AS arrival,
        COALESCE(s.name, 'No supplier') AS supplier, t.name AS site, i.id AS itemId, i.sku, i.name, i.picture, r.units, 0 AS late, p.name AS \`by\`, r.taken_as AS takenAs, r.stock_condition AS \`condition\``,
      from: `FROM receipt r JOIN arrival a ON a.id = r.arrival_id JOIN site t ON t.id = a.site_id LEFT JOIN supplier s ON s.id = a.supplier_id JOIN item i ON i.id = r.item_id JOIN person p ON p.id = r.person_id
        LEFT JOIN purchase_order_line n ON n.id = r.order_line_id LEFT JOIN purchase_order o ON o.id = n.order_id
        WHERE r.undone_at IS NULL AND a.site_id IN (?) AND r.at >= ${span.begins('a.site_id')} AND r.at < ${span.ends('a.site_id')}`,
      params: [[0, ...siteIds]],
      order: 'r.at DESC, r.id DESC',
    };
  }
}
