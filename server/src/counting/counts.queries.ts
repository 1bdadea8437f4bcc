import { Injectable } from '@nestjs/common';
import type { TallyTask } from '@vectrum/core/scan';
import { walkOn } from '@vectrum/core/walk';
import { DataSource } from 'typeorm';
import { PeopleQueries } from '../identity/index.js';
import {
  inTransaction,
  likeAny,
  mapPage,
  mustBeAt,
  notFound,
  num,
  one,
  pageOf,
  type Person,
  rows,
  type Tx,
  type Window,
} from '../platform/index.js';
import { FloorQueries } from '../sites/index.js';
import { conditionIs, COUNTABLE } from './count-rows.js';
import type { AreaCountDto, CountBinDto, CountChoicesDto, CountCodeDto, CountDto, CountPageDto, CountRowDto } from './counts.dto.js';
import { AREA, AREA_JOINS, dueNow } from './drawing.js';
import type { OpenTallyDto } from './tally.dto.js';

/** Beyond this many the list of bins keeps the walking order, and nobody is told metres. */
const MOST_WALKED = 80;

const HEAD = `c.id, c.code, c.title, c.site_id AS siteId, s.name AS site, c.state, m.name AS madeBy, c.made_at AS madeAt, c.opened_at AS openedAt, c.ended_at AS endedAt,
  (SELECT COUNT(*) FROM count_bin b WHERE b.count_id = c.id) AS bins, (SELECT COUNT(*) FROM count_bin b WHERE b.count_id = c.id AND b.state = 'counted') AS binsDone,
  (SELECT COUNT(*) FROM count_line l WHERE l.count_id = c.id) AS \`lines\`, IF(c.state = 'review', (SELECT COUNT(*) FROM count_line l WHERE l.count_id = c.id AND l.state IN ('open','counted')), 0) AS toDecide`;
const FROM = 'FROM stock_count c JOIN site s ON s.id = c.site_id LEFT JOIN person m ON m.id = c.made_by_id';
type Head = Omit<CountRowDto, 'bins' | 'binsDone' | 'lines' | 'toDecide'> & {
  id: number;
  bins: string;
  binsDone: string;
  lines: string;
  toDecide: string;
};

const rowOf = ({ id: _, ...h }: Head): CountRowDto => ({
  ...h,
  bins: num(h.bins),
  binsDone: num(h.binsDone),
  lines: num(h.lines),
  toDecide: num(h.toDecide),
});

/** Reads counts: their list, one with its bins, and as a phone needs it. */
@Injectable()
export class CountsQueries {
  constructor(
    private readonly source: DataSource,
    private readonly people: PeopleQueries,
    private readonly floors: FloorQueries,
  ) {}

  /** What is under way first, then the newest. */
  async list(siteIds: readonly number[], filter: { q: string; all: boolean }, window: Window): Promise<CountPageDto> {
    const page = await pageOf<Head>(
      this.source,
      {
        select: HEAD,
        from: `${FROM} WHERE c.site_id IN (?) ${filter.all ? '' : `AND c.state IN ('drawn-up','open','review')`} ${filter.q ? 'AND (c.code LIKE ? OR c.title LIKE ?)' : ''}`,
        params: [[0, ...siteIds], ...(filter.q ? [likeAny(filter.q), likeAny(filter.q)] : [])],
        order: `FIELD(c.state, 'review', 'open', 'drawn-up', 'closed', 'dropped'), c.id DESC`,
      },
      window,
    );
    return mapPage(page, rowOf);
  }

  async choices(person: Person, siteId: number): Promise<CountChoicesDto> {
    mustBeAt(person, siteId);
    const areas = await rows<{ area: string; bins: string }>(
      this.source,
      `SELECT ${AREA} AS area, COUNT(*) AS bins FROM place p ${AREA_JOINS} WHERE p.site_id = ? AND p.kind IN ${COUNTABLE} GROUP BY area ORDER BY MIN(p.walk_order)`,
      [siteId],
    );
    return {
      areas: areas.filter((a) => a.area !== '').map((a): AreaCountDto => ({ area: a.area, bins: num(a.bins) })),
      due: await inTransaction(this.source, (tx) => dueNow(tx, siteId)),
      people: await this.people.allowedAt(this.source, siteId, 'count'),
    };
  }

  async one(person: Person, code: string): Promise<CountDto> {
    const head = await one<Head & { wholeBins: number; blind: number; scanEach: number; version: number }>(
      this.source,
      `SELECT ${HEAD}, c.whole_bins AS wholeBins, c.blind, c.scan_each AS scanEach, c.version ${FROM} WHERE c.code = ?`,
      [code],
    );
    if (!head) throw notFound(`Count ${code.slice(0, 20)}`);
    mustBeAt(person, head.siteId);
    const binRows = await rows<Omit<CountBinDto, 'lines' | 'linesDone'> & { lines: string; linesDone: string }>(
      this.source,
      `SELECT b.place_id AS placeId, p.code, b.area, b.state, w.name AS person, g.name AS begunBy, d.name AS device, COUNT(l.id) AS \`lines\`, COALESCE(SUM(l.counted_units IS NOT NULL), 0) AS linesDone
       FROM count_bin b JOIN place p ON p.id = b.place_id LEFT JOIN person w ON w.id = b.person_id LEFT JOIN person g ON g.id = b.begun_by_id LEFT JOIN device d ON d.id = b.device_id
         LEFT JOIN count_line l ON l.count_id = b.count_id AND l.place_id = b.place_id
       WHERE b.count_id = ? GROUP BY b.id ORDER BY b.position`,
      [head.id],
    );
    const codes = await rows<CountCodeDto>(
      this.source,
      'SELECT k.id, p.code AS place, k.code, k.units, w.name AS `by`, k.looked_at AS at FROM count_code k JOIN place p ON p.id = k.place_id LEFT JOIN person w ON w.id = k.person_id WHERE k.count_id = ? AND k.settled_at IS NULL ORDER BY k.id',
      [head.id],
    );
    return {
      ...rowOf(head),
      wholeBins: head.wholeBins === 1,
      blind: head.blind === 1,
      scanEach: head.scanEach === 1,
      version: head.version,
      binRows: binRows.map((b) => ({ ...b, lines: num(b.lines), linesDone: num(b.linesDone) })),
      codes,
    };
  }

  /** The counts at a site that this person can count bins of now. */
  async openFor(person: Person, siteId: number): Promise<OpenTallyDto[]> {
    mustBeAt(person, siteId);
    const found = await rows<{ code: string; title: string; bins: string }>(
      this.source,
      `SELECT c.code, c.title, COUNT(b.id) AS bins FROM stock_count c LEFT JOIN count_bin b ON b.count_id = c.id AND b.state <> 'counted' AND COALESCE(b.person_id, ?) = ? AND COALESCE(b.begun_by_id, ?) = ? AND COALESCE(b.not_person_id, 0) <> ?
       WHERE c.site_id = ? AND c.state IN ('open','review') GROUP BY c.id ORDER BY c.id`,
      [person.id, person.id, person.id, person.id, person.id, siteId],
    );
    return found.map((f) => ({ ...f, bins: num(f.bins) })).filter((f) => f.bins > 0);
  }

  /** A count as this person's phone has it. What the books have is not in it where it is counted blind. */
  async task(tx: Tx, person: Person, code: string): Promise<TallyTask> {
    const count = await one<{
      id: number;
      code: string;
      title: string;
      site_id: number;
      state: string;
      whole_bins: number;
      blind: number;
      scan_each: number;
    }>(tx, 'SELECT id, code, title, site_id, state, whole_bins, blind, scan_each FROM stock_count WHERE code = ?', [code]);
    if (!count) throw notFound(`Count ${code.slice(0, 20)}`);
    mustBeAt(person, count.site_id);
    const isOver = count.state !== 'open' && count.state !== 'review';
    const bins = isOver
      ? []
      : await rows<{
          placeId: number;
          code: string;
          area: string;
          state: 'open' | 'begun' | 'counted';
          personId: number | null;
          begunById: number | null;
          notPersonId: number | null;
          person: string | null;
          begunBy: string | null;
          x: string | null;
          y: string | null;
        }>(
          tx,
          `SELECT b.place_id AS placeId, p.code, b.area, b.state, b.person_id AS personId, b.begun_by_id AS begunById, b.not_person_id AS notPersonId, w.name AS person, g.name AS begunBy, p.x_m AS x, p.y_m AS y
           FROM count_bin b JOIN place p ON p.id = b.place_id LEFT JOIN person w ON w.id = b.person_id LEFT JOIN person g ON g.id = b.begun_by_id WHERE b.count_id = ? ORDER BY b.position`,
          [count.id],
        );
    const lines = await rows<{
      placeId: number;
      itemId: number;
      lotId: number;
      lot: string | null;
      damaged: number;
      counted: number | null;
      booked: string | null;
    }>(
      tx,
      `SELECT l.place_id AS placeId, l.item_id AS itemId, l.lot_id AS lotId, t.code AS lot, l.damaged, IF(l.state = 'open', NULL, l.counted_units) AS counted,
         ${count.blind ? 'NULL' : `(SELECT COALESCE(SUM(b.units), 0) FROM balance b WHERE b.item_id = l.item_id AND b.place_id = l.place_id AND b.lot_id = l.lot_id AND ${conditionIs('b.stock_condition', 'l.damaged')})`} AS booked
       FROM count_line l LEFT JOIN lot t ON t.id = l.lot_id JOIN item i ON i.id = l.item_id WHERE l.count_id = ? ORDER BY i.name, l.id`,
      [count.id],
    );
    const linesAt = new Map<number, TallyTask['bins'][number]['lines'][number][]>();
    for (const { placeId, damaged, booked, ...l } of lines) {
      const at = linesAt.get(placeId) ?? [];
      at.push({ ...l, isDamaged: damaged === 1, booked: booked === null ? null : num(booked) });
      linesAt.set(placeId, at);
    }
    const isMine = (b: (typeof bins)[number]) =>
      (b.personId ?? person.id) === person.id &&
      (b.begunById ?? person.id) === person.id &&
      b.notPersonId !== person.id &&
      (count.state === 'open' || b.state !== 'counted');
    return {
      document: count.code,
      siteId: count.site_id,
      title: count.title,
      wholeBins: count.whole_bins === 1,
      scanEach: count.scan_each === 1,
      bins: bins.map((b) => ({
        placeId: b.placeId,
        code: b.code,
        area: b.area,
        state: b.state,
        by: b.begunBy ?? b.person ?? (b.notPersonId === person.id ? 'Somebody else' : null),
        isMine: isMine(b),
        lines: linesAt.get(b.placeId) ?? [],
      })),
      metres: await this.metres(
        tx,
        count.site_id,
        bins.filter((b) => isMine(b) && b.state !== 'counted'),
      ),
    };
  }

  private async metres(tx: Tx, siteId: number, bins: readonly { x: string | null; y: string | null }[]): Promise<number> {
    if (bins.length === 0 || bins.length > MOST_WALKED) return 0;
    const start = await this.floors.start(tx, siteId);
    const at = bins.map((b) => (b.x === null || b.y === null ? start : { x: num(b.x), y: num(b.y) }));
    return Math.round(walkOn(await this.floors.floor(tx, siteId), at, start, start).metres);
  }
}
