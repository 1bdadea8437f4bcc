import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { IS_UNMATCHED } from '../catalogue/index.js';
import { num, one, promisedSql, rows, type SiteDays, siteDays, sqlList } from '../platform/index.js';
import type { ExpectedDto, NowDto, PromisedOrderDto, StuckDto } from './desk.dto.js';
import { ordersIn } from '@vectrum/core/orders';
import { kindsFor } from '@vectrum/core/places';

const LIVE = sqlList(ordersIn('live'));
/** Every state but that of those that nobody waits for. */
const GOING = sqlList([...ordersIn('live'), 'shipped']);
const DAY_MS = 86_400_000;
const SHELVES = sqlList(kindsFor('shelf'));

/** What the page Now shows: today's promises, what is stuck and who can move it, what is expected. */
@Injectable()
export class NowQueries {
  constructor(
    private readonly source: DataSource,
    private readonly calendars: CalendarQueries,
  ) {}

  async now(siteIds: readonly number[]): Promise<NowDto> {
    const sites = [0, ...siteIds];
    const { ends, departures, lastLeavesAt } = await this.calendars.openDay(sites);
    const days = await siteDays(this.source);
    const [promised, stuck, expected] = await Promise.all([
      this.promised(sites, ends, days),
      this.stuck(sites, days),
      this.expected(sites, days),
    ]);
    return { promised, departures: departures.map(({ name, at }) => ({ name, at })), lastLeavesAt, stuck, expected };
  }

  /** Those of today; once the day of the next departure is another one, what is open of today and all up to the end of that day. */
  private async promised(sites: readonly number[], ends: Date, days: SiteDays): Promise<PromisedOrderDto[]> {
    const found = await rows<Omit<PromisedOrderDto, 'safe'> & { safe: number | string }>(
      this.source,
      `SELECT o.code, o.promised_at AS promisedAt, o.state,
         (o.state = 'shipped' OR (o.state <> 'held' AND o.promised_at > UTC_TIMESTAMP() AND NOT EXISTS (SELECT 1 FROM sales_order_line l WHERE l.order_id = o.id AND ${promisedSql('l')} < l.units))) AS safe
       FROM sales_order o WHERE o.state IN ${GOING} AND o.promised_at BETWEEN ? AND ? AND o.promised_at >= ${days.begins('o.site_id')}
         AND (o.promised_at < ${days.ends('o.site_id')} AND (o.state <> 'shipped' OR ${days.ends('o.site_id')} >= ?)
           OR o.promised_at >= ${days.ends('o.site_id')} AND o.promised_at < ?)
         AND o.site_id IN (?) ORDER BY o.promised_at, o.id LIMIT 1000`,
      // No day begins more than a day before now or ends more than a day after, wherever the site is.
      [new Date(Date.now() - 1.5 * DAY_MS), new Date(Math.max(ends.getTime(), Date.now() + 1.5 * DAY_MS)), ends, ends, sites],
    );
    return found.map((o) => ({ ...o, safe: num(o.safe) === 1 }));
  }

  private async stuck(sites: readonly number[], days: SiteDays): Promise<StuckDto[]> {
    const held = await rows<{
      code: string;
      customer: string;
      channel: string;
      reason: string;
      placed: Date;
      late: number;
    }>(
      this.source,
      `SELECT o.code, o.customer, c.name AS channel, o.hold_reason AS reason, o.placed_at AS placed, o.promised_at < UTC_TIMESTAMP() AS late FROM sales_order o JOIN channel c ON c.id = o.channel_id
       WHERE o.state = 'held' AND o.site_id IN (?) ORDER BY o.promised_at LIMIT 6`,
      [sites],
    );
    const late = await rows<{ code: string; supplier: string; expected: string; lines: string }>(
      this.source,
      `SELECT o.code, s.name AS supplier, o.expected_on AS expected, COUNT(l.id) AS \`lines\` FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN purchase_order_line l ON l.order_id = o.id
       WHERE o.state IN ('placed','part-received') AND o.expected_on < ${days.today('o.site_id')} AND o.site_id IN (?) GROUP BY o.id ORDER BY o.expected_on LIMIT 6`,
      [sites],
    );
    const missed = await rows<{ code: string; customer: string; state: string; promised: Date }>(
      this.source,
      `SELECT code, customer, state, promised_at AS promised FROM sales_order WHERE promised_at < UTC_TIMESTAMP() AND state IN ${LIVE} AND state <> 'held' AND site_id IN (?) ORDER BY promised_at LIMIT 6`,
      [sites],
    );
    const doubted = await rows<{ place: string; name: string; units: number; since: Date }>(
      this.source,
      `SELECT p.code AS place, i.name, b.units, (SELECT MAX(m.server_at) FROM movement m WHERE m.to_place_id = b.place_id AND m.item_id = b.item_id AND COALESCE(m.to_condition, m.stock_condition) = 'held') AS since
       FROM balance b JOIN place p ON p.id = b.place_id JOIN item i ON i.id = b.item_id WHERE b.stock_condition = 'held' AND p.kind IN ${SHELVES} AND b.units > 0 AND p.site_id IN (?) LIMIT 4`,
      [sites],
    );
    const tooLate = await rows<{ what: string; detail: string; who: string; since: Date; document: string | null }>(
      this.source,
      `SELECT q.what, q.detail, p.name AS who, q.raised_at AS since, q.document FROM floor_question q JOIN person p ON p.id = q.person_id WHERE q.answered_at IS NULL AND q.site_id IN (?) ORDER BY q.raised_at LIMIT 6`,
      [sites],
    );
    const unread = await rows<{ channel: string; why: string; since: Date; n: string }>(
      this.source,
      `SELECT c.name AS channel, MIN(m.why) AS why, MIN(m.came_at) AS since, COUNT(*) AS n FROM parked_message m JOIN channel c ON c.id = m.channel_id WHERE m.state = 'waiting' AND c.site_id IN (?) GROUP BY c.id ORDER BY since LIMIT 4`,
      [sites],
    );
    const documents = await rows<{ supplier: string; why: string; since: Date; n: string }>(
      this.source,
      `SELECT s.name AS supplier, MIN(d.why) AS why, MIN(d.came_at) AS since, COUNT(*) AS n FROM unread_document d JOIN supplier s ON s.id = d.supplier_id WHERE d.state = 'waiting' GROUP BY s.id ORDER BY since LIMIT 4`,
    );
    const codes = await one<{ n: string; times: string; code: string; since: Date }>(
      this.source,
      `SELECT COUNT(*) AS n, SUM(u.times) AS times, MAX(u.code) AS code, MIN(u.first_at) AS since FROM unmatched_code u WHERE ${IS_UNMATCHED} AND u.site_id IN (?) HAVING COUNT(*) > 0`,
      [sites],
    );
    const outside = await rows<{ id: number; to: string; why: string; since: Date }>(
      this.source,
      // What concerns no site is mail to people here, whose addresses are for those who set them up.
      `SELECT MIN(id) AS id, IF(site_id IS NULL, SUBSTRING_INDEX(receiver, ':', 1), receiver) AS \`to\`, MAX(last_error) AS why, MIN(created_at) AS since
       FROM outbox WHERE state = 'failing' AND (site_id IN (?) OR site_id IS NULL) GROUP BY \`to\` ORDER BY since LIMIT 4`,
      [sites],
    );
    const silent = await rows<{ code: string; name: string; why: string; since: Date | null }>(
      this.source,
      `SELECT code, name, COALESCE(push_error, poll_error) AS why, COALESCE(answered_at, polled_at) AS since FROM channel
       WHERE (push_error IS NOT NULL OR poll_error IS NOT NULL) AND paused = 0 AND base_url IS NOT NULL AND site_id IN (?) ORDER BY name LIMIT 4`,
      [sites],
    );
    const travels = await rows<{ parcel: string; kind: string; customer: string; carrier: string | null; id: number; since: Date }>(
      this.source,
      `SELECT k.id, p.code AS parcel, k.kind, o.customer, c.name AS carrier, k.opened_at AS since FROM claim k JOIN parcel p ON p.id = k.parcel_id JOIN sales_order o ON o.id = p.order_id LEFT JOIN carrier c ON c.id = p.carrier_id JOIN place w ON w.id = p.place_id
       WHERE k.state = 'open' AND w.site_id IN (?) ORDER BY k.opened_at LIMIT 6`,
      [sites],
    );
    const back = await rows<{ code: string; customer: string; goods: string | null; since: Date }>(
      this.source,
      `SELECT r.code, r.customer, r.came_at AS since, (SELECT i.name FROM customer_return_line l JOIN item i ON i.id = l.item_id WHERE l.return_id = r.id ORDER BY l.line LIMIT 1) AS goods
       FROM customer_return r WHERE r.state = 'here' AND r.site_id IN (?) AND EXISTS (SELECT 1 FROM customer_return_line l JOIN came_back c ON c.line_id = l.id AND c.undone_at IS NULL WHERE l.return_id = r.id) ORDER BY r.came_at LIMIT 6`,
      [sites],
    );
    return [
      ...travels.map((k): StuckDto => ({
        glyph: 'blocked',
        code: k.parcel,
        link: `/orders/claims/${k.id}`,
        title: k.customer,
        detail: `${k.carrier ?? 'The carrier'} says: ${k.kind}`,
        since: k.since,
        late: false,
        who: 'Order desk',
        whoNote: 'parcels on the road',
        action: 'See to it',
      })),
      ...silent.map((c): StuckDto => ({
        glyph: 'held',
        code: c.code,
        link: `/setup/channels/${c.code}`,
        title: c.name,
        detail: c.why,
        since: c.since ?? new Date(),
        late: false,
        who: 'Set-up',
        whoNote: 'channels',
        action: 'See the channel',
      })),
      ...held.map((o): StuckDto => ({
        glyph: 'blocked',
        code: o.code,
        link: `/orders/${o.code}`,
        title: `${o.customer}, ${o.channel}`,
        detail: o.reason,
        since: o.placed,
        late: num(o.late) === 1,
        who: 'Order desk',
        whoNote: 'held orders',
        action: 'Clear the hold',
      })),
      ...back.map((r): StuckDto => ({
        glyph: 'half',
        code: r.code,
        link: `/orders/returns/${r.code}`,
        title: r.customer,
        detail: `${r.goods ?? 'Goods'} came back`,
        since: r.since,
        late: false,
        who: 'Order desk',
        whoNote: 'what the customer gets',
        action: 'Decide it',
      })),
      ...missed.map((o): StuckDto => ({
        glyph: o.state === 'open' ? 'empty' : 'half',
        code: o.code,
        link: `/orders/${o.code}`,
        title: o.customer,
        detail: `Promised and still ${o.state}`,
        since: o.promised,
        late: true,
        who: 'Late orders',
        whoNote: 'on the floor',
        action: o.state === 'open' ? 'Send to picking' : 'See order',
      })),
      ...late.map((o): StuckDto => ({
        glyph: 'empty',
        code: o.code,
        link: `/inbound/${o.code}`,
        title: o.supplier,
        detail: `${num(o.lines)} lines, not here yet`,
        since: new Date(`${o.expected}T12:00:00Z`),
        late: true,
        who: o.supplier,
        whoNote: 'supplier',
        action: 'See order',
      })),
      ...doubted.map((d): StuckDto => ({
        glyph: 'blocked',
        code: d.place,
        link: `/shelves/places/${d.place}`,
        title: d.name,
        detail: `${d.units} reported not there. Held until the bin is checked`,
        since: d.since,
        late: false,
        who: 'Floor',
        whoNote: 'bins to check',
        action: 'See the bin',
      })),
      ...tooLate.map((q): StuckDto => ({
        glyph: 'blocked',
        code: q.document ?? '',
        link: '/late',
        title: q.what,
        detail: `Came too late. ${q.detail}`,
        since: q.since,
        late: false,
        who: q.who,
        whoNote: 'kept on a phone',
        action: 'Answer it',
      })),
      ...unread.map((u): StuckDto => ({
        glyph: 'blocked',
        code: '',
        link: '/orders/unread',
        title: `${u.channel}, ${num(u.n)} ${num(u.n) === 1 ? 'message' : 'messages'} cannot be understood`,
        detail: u.why,
        since: u.since,
        late: false,
        who: 'Order desk',
        whoNote: 'messages to mend',
        action: 'Mend it',
      })),
      ...documents.map((d): StuckDto => ({
        glyph: 'blocked',
        code: '',
        link: '/inbound/unread',
        title: `${d.supplier}, ${num(d.n)} ${num(d.n) === 1 ? 'document' : 'documents'} cannot be taken in`,
        detail: d.why,
        since: d.since,
        late: false,
        who: 'Buying',
        whoNote: 'documents to mend',
        action: 'See it',
      })),
      ...outside.map((o): StuckDto => ({
        glyph: 'held',
        code: o.to,
        link: '/setup/outbox',
        title: o.to,
        detail: o.why,
        since: o.since,
        late: false,
        who: 'Set-up',
        whoNote: 'deliveries',
        action: 'See the outbox',
      })),
      ...(codes ? [unmatched(num(codes.n), num(codes.times), codes.code, codes.since)] : []),
    ];
  }

  private async expected(sites: readonly number[], days: SiteDays): Promise<ExpectedDto[]> {
    const found = await rows<Omit<ExpectedDto, 'lines' | 'late'> & { lines: string; late: number }>(
      this.source,
      `SELECT o.code, s.name AS supplier, o.expected_on AS expectedOn, COUNT(l.id) AS \`lines\`, o.state, COALESCE(o.expected_on < ${days.today('o.site_id')}, 0) AS late
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN purchase_order_line l ON l.order_id = o.id
       WHERE o.state IN ('placed','part-received') AND o.site_id IN (?) GROUP BY o.id ORDER BY o.expected_on, o.id LIMIT 8`,
      [sites],
    );
    return found.map((e) => ({ ...e, lines: num(e.lines), late: num(e.late) === 1 }));
  }
}

const unmatched = (codes: number, times: number, code: string, since: Date): StuckDto => ({
  glyph: 'fb-unknown',
  code: codes === 1 ? code : '',
  link: '/shelves/codes',
  title: codes === 1 ? `${code} is on nothing that is known` : `${codes} codes are on nothing that is known`,
  detail: times === 1 ? 'Scanned once' : `Scanned ${times} times`,
  since,
  late: false,
  who: 'Items',
  whoNote: 'codes to match',
  action: 'Match it',
});
