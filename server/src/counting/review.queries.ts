import { Injectable } from '@nestjs/common';
import { accuracyOf, causesOf, expectedAt, judge, type OffLine, type ToleranceLevels, type WaitingGoods } from '@vectrum/core/counting';
import { decimalText, micro, type Micro, times } from '@vectrum/core/money';
import { isFor, PLACE_KINDS } from '@vectrum/core/places';
import type { PackUnit } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { marks, mustBeAt, notFound, num, one, type Person, rows, sqlList, type Tx, type Window } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { type CountRow, sinceLook } from './count-rows.js';
import { ruleJoins } from './count-rules.js';
import type { CountLineDto, EarlierLookDto, ReviewDto } from './counts.dto.js';

const WAITING = sqlList(PLACE_KINDS.filter((k) => isFor(k, 'wait')));
export const REVIEW_SHOWS = ['off', 'beyond', 'undecided', 'all'] as const;
export type ReviewShows = (typeof REVIEW_SHOWS)[number];

interface Raw {
  id: number;
  version: number;
  placeId: number;
  place: string;
  itemId: number;
  sku: string;
  item: string;
  className: string;
  lotId: number;
  lot: string | null;
  damaged: number;
  listed: number;
  state: CountLineDto['state'];
  counted: number | null;
  at: Date | null;
  by: string | null;
  personId: number | null;
  expected: number | null;
  cost: string | null;
  reason: string | null;
  settledBy: string | null;
  withinThen: number | null;
  iu: number | null;
  iv: string | null;
  iup: string | null;
  ivp: string | null;
  cu: number | null;
  cv: string | null;
  cup: string | null;
  cvp: string | null;
  hu: number | null;
  hv: string | null;
  hup: string | null;
  hvp: string | null;
}

/** A line with what should have been there, and whether it is near enough. */
export interface Judged {
  raw: Raw;
  expected: number | null;
  cameIn: number;
  wentOut: number;
  off: number | null;
  worth: Micro | null;
  isWithin: boolean;
  says: string;
  packs: readonly PackUnit[];
}

const percentOf = (text: string | null) => (text === null ? null : Number(text));
const levelsOf = (r: Raw): ToleranceLevels => ({
  item: { units: r.iu, value: r.iv, unitsPercent: percentOf(r.iup), valuePercent: percentOf(r.ivp) },
  class: { units: r.cu, value: r.cv, unitsPercent: percentOf(r.cup), valuePercent: percentOf(r.cvp) },
  company: { units: r.hu, value: r.hv, unitsPercent: percentOf(r.hup), valuePercent: percentOf(r.hvp) },
});
const limits = (of: string, as: string) =>
  `${of}.units AS ${as}u, ${of}.value AS ${as}v, ${of}.units_percent AS ${as}up, ${of}.value_percent AS ${as}vp`;

/** What a count has found, line by line: how far off, whether that is too far, and why it may be. */
@Injectable()
export class ReviewQueries {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
  ) {}

  /** All lines of a count, or those with these numbers, judged. Costs two readings of movements, whatever the number of lines. */
  async judged(
    tx: Pick<Tx, 'query'>,
    count: Pick<CountRow, 'id' | 'after_movement'>,
    lineIds: readonly number[] | null = null,
  ): Promise<Judged[]> {
    const raw = await rows<Raw>(
      tx,
      `SELECT l.id, l.version, l.place_id AS placeId, p.code AS place, l.item_id AS itemId, i.sku, i.name AS item, i.class AS className, l.lot_id AS lotId, t.code AS lot, l.damaged, l.listed, l.state,
         l.counted_units AS counted, l.looked_at AS at, w.name AS \`by\`, l.person_id AS personId, l.expected_units AS expected, COALESCE(l.unit_cost, CAST(k.value / k.units AS DECIMAL(18,6)), i.cost) AS cost, l.reason, g.name AS settledBy, l.within_limits AS withinThen,
         ${limits('ri', 'i')}, ${limits('rc', 'c')}, ${limits('rh', 'h')}
       FROM count_line l JOIN place p ON p.id = l.place_id JOIN item i ON i.id = l.item_id LEFT JOIN lot t ON t.id = l.lot_id LEFT JOIN person w ON w.id = l.person_id LEFT JOIN person g ON g.id = l.settled_by_id
         LEFT JOIN cost_pool k ON k.item_id = i.id AND k.units > 0 ${ruleJoins('i')}
       WHERE l.count_id = ? ${lineIds ? `AND l.id IN (${marks([0, ...lineIds])})` : ''} ORDER BY p.walk_order, p.id, i.name, l.id`,
      [count.id, ...(lineIds ? [0, ...lineIds] : [])],
    );
    const since = await sinceLook(tx, count, lineIds);
    const packs = await this.packs(tx, count.id);
    const currency = await this.settings.get(tx, 'homeCurrency');
    const found = raw.map((r) => {
      const { balance = 0, cameIn = 0, wentOut = 0 } = since.get(r.id) ?? {};
      const expected = r.state === 'accepted' ? r.expected : r.counted === null ? null : expectedAt({ balance, cameIn, wentOut });
      return { raw: r, expected, cameIn, wentOut };
    });
    const whole = found.reduce(
      (sum, { raw: r, expected }) => sum + (r.cost === null || expected === null ? 0n : times(micro(r.cost), expected)),
      0n,
    );
    return found.map(({ raw: r, expected, cameIn, wentOut }): Judged => {
      const ladder = packs.get(r.itemId) ?? [];
      const base = { raw: r, expected, cameIn, wentOut, packs: ladder };
      if (expected === null || r.counted === null)
        return { ...base, off: null, worth: null, isWithin: false, says: 'Nobody has counted it yet' };
      const off = r.counted - expected;
      const judgement = judge(
        { counted: r.counted, expected, unitCost: r.cost, packs: ladder, className: r.className },
        levelsOf(r),
        whole,
        currency,
      );
      return {
        ...base,
        off,
        worth: r.cost === null ? null : times(micro(r.cost), off),
        isWithin: judgement.isWithin,
        says: judgement.says,
      };
    });
  }

  /** The lines of a count as whoever decides sees them, a window at a time, with what they come to. */
  async review(person: Person, code: string, shows: ReviewShows, window: Window): Promise<ReviewDto> {
    const count = await one<Pick<CountRow, 'id' | 'after_movement' | 'site_id'>>(
      this.source,
      'SELECT id, after_movement, site_id FROM stock_count WHERE code = ?',
      [code],
    );
    if (!count) throw notFound(`Count ${code.slice(0, 20)}`);
    mustBeAt(person, count.site_id);
    const all = await this.judged(this.source, count);
    const isOpen = (j: Judged) => j.raw.state === 'open' || j.raw.state === 'counted';
    const shown = all.filter((j) => {
      switch (shows) {
        case 'all':
          return true;
        case 'undecided':
          return isOpen(j);
        case 'beyond':
          return j.off !== null && !j.isWithin;
        case 'off':
          return j.off !== null && j.off !== 0;
      }
    });
    // What is worth most stands first among what is off.
    const size = (j: Judged) => (j.worth === null ? 0n : j.worth < 0n ? -j.worth : j.worth);
    if (shows !== 'all')
      shown.sort((a, b) => (size(a) === size(b) ? Math.abs(b.off ?? 0) - Math.abs(a.off ?? 0) : size(b) > size(a) ? 1 : -1));
    const page = shown.slice(window.from, window.from + window.limit);
    const counted = all.filter((j) => j.off !== null && j.raw.state !== 'dropped');
    const sum = (sign: 1 | -1) =>
      counted.reduce((n, j) => n + (j.worth !== null && (sign > 0 ? j.worth > 0n : j.worth < 0n) ? j.worth : 0n), 0n);
    const within = counted.filter((j) => (j.raw.state === 'accepted' ? j.raw.withinThen === 1 : j.isWithin)).length;
    return {
      rows: await this.shown(person, count.id, all, page),
      total: shown.length,
      lines: all.length,
      off: counted.filter((j) => j.off !== 0).length,
      within,
      beyond: counted.length - within,
      undecided: all.filter(isOpen).length,
      more: person.seesCosts ? decimalText(sum(1)) : null,
      less: person.seesCosts ? decimalText(sum(-1)) : null,
      accuracy: accuracyOf(within, counted.length),
    };
  }

  /** The goods of counted lines that the books have where goods wait, for the search for causes. */
  async waiting(tx: Pick<Tx, 'query'>, countId: number): Promise<WaitingGoods[]> {
    const found = await rows<Omit<WaitingGoods, 'units'> & { units: string }>(
      tx,
      `SELECT b.place_id AS placeId, p.code AS place, b.item_id AS itemId, b.lot_id AS lotId, b.units FROM balance b JOIN place p ON p.id = b.place_id AND p.kind IN ${WAITING} JOIN stock_count c ON c.id = ? AND c.site_id = p.site_id
       WHERE b.stock_condition = 'good' AND b.units > 0 AND b.item_id IN (SELECT DISTINCT l.item_id FROM count_line l WHERE l.count_id = ?)`,
      [countId, countId],
    );
    return found.map((f) => ({ ...f, units: num(f.units) }));
  }

  static offLine = ({ raw: r, expected, packs }: Judged): OffLine => ({
    id: r.id,
    placeId: r.placeId,
    place: r.place,
    itemId: r.itemId,
    item: r.item,
    lotId: r.lotId,
    counted: r.counted ?? 0,
    expected: expected ?? 0,
    packs,
  });

  private async shown(person: Person, countId: number, all: readonly Judged[], page: readonly Judged[]): Promise<CountLineDto[]> {
    const open = all
      .filter((j) => j.raw.state === 'counted' && j.off !== null && j.off !== 0 && j.raw.damaged === 0)
      .map(ReviewQueries.offLine);
    const waiting = page.some((j) => j.raw.state === 'counted' && j.off !== 0) ? await this.waiting(this.source, countId) : [];
    const ids = page.map((j) => j.raw.id);
    const looks = await rows<EarlierLookDto & { lineId: number }>(
      this.source,
      `SELECT k.line_id AS lineId, w.name AS \`by\`, k.looked_at AS at, k.counted_units AS units FROM count_look k LEFT JOIN person w ON w.id = k.person_id WHERE k.line_id IN (${marks([0, ...ids])}) ORDER BY k.id`,
      [0, ...ids],
    );
    return page.map((j): CountLineDto => {
      const { raw: r } = j;
      const causes =
        r.state === 'counted' && r.damaged === 0 && j.off !== null && j.off !== 0 ? causesOf(ReviewQueries.offLine(j), open, waiting) : [];
      return {
        id: r.id,
        version: r.version,
        place: r.place,
        itemId: r.itemId,
        sku: r.sku,
        item: r.item,
        lot: r.lot,
        isDamaged: r.damaged === 1,
        isListed: r.listed === 1,
        state: r.state,
        counted: r.counted,
        expected: j.expected,
        cameIn: j.cameIn,
        wentOut: j.wentOut,
        by: r.by,
        at: r.at,
        value: person.seesCosts && j.worth !== null ? decimalText(j.worth) : null,
        percent: j.off !== null && j.expected ? Math.round((j.off / j.expected) * 1000) / 10 : null,
        isWithin: r.state === 'accepted' ? r.withinThen === 1 : j.isWithin,
        says: person.seesCosts ? j.says : j.says.replace(/, worth [^:]+/, ''),
        isOwn: r.personId === person.id,
        causes: causes.map(({ kind, says, move }) => ({ kind, says, canMove: move !== null })),
        earlier: looks.filter((k) => k.lineId === r.id).map(({ lineId: _, ...k }) => k),
        reason: r.reason,
        settledBy: r.settledBy,
      };
    });
  }

  private async packs(tx: Pick<Tx, 'query'>, countId: number): Promise<Map<number, PackUnit[]>> {
    const found = await rows<PackUnit & { itemId: number }>(
      tx,
      'SELECT u.id, u.item_id AS itemId, u.name, u.plural, u.factor FROM pack_unit u WHERE u.item_id IN (SELECT DISTINCT l.item_id FROM count_line l WHERE l.count_id = ?) ORDER BY u.factor DESC',
      [countId],
    );
    const by = new Map<number, PackUnit[]>();
    for (const { itemId, ...pack } of found) by.set(itemId, [...(by.get(itemId) ?? []), pack]);
    return by;
  }
}
