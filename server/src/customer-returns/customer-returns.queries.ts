import type { ReturnReason, ReturnState, Settlement, Wish } from '@vectrum/core/customer-returns';
import { type PackUnit, spell } from '@vectrum/core/quantity';
import type { ReturnTask } from '@vectrum/core/scan';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ItemQueries } from '../catalogue/index.js';
import { find, likeAny, mapPage, mustBeAt, notFound, num, one, type Page, pageOf, type Person, type Row, rows, type Tx, type Window } from '../platform/index.js'; // prettier-ignore
import { SettingsService } from '../settings/index.js';
import { firstPlace } from '../sites/index.js';
import { backLines } from './back.queries.js';
import type { CameBackDto, CustomerReturnDto, CustomerReturnLineDto, CustomerReturnRowDto, ReturnableDto } from './customer-returns.dto.js';
import { outLines } from './out.queries.js';
import { Settling } from './settling.service.js';

const LINE_WORDS = `(SELECT i.name FROM customer_return_line l JOIN item i ON i.id = l.item_id WHERE l.return_id = r.id ORDER BY l.line LIMIT 1)`;
const ROW = `r.code, r.state, r.customer, o.code AS \`order\`, c.name AS channel, s.name AS site, COALESCE(${LINE_WORDS}, '') AS goods, (SELECT COUNT(*) FROM customer_return_line l WHERE l.return_id = r.id) AS \`lines\`, r.wish, r.announced_at AS announcedAt, r.settled_as AS settledAs`;
const FROM =
  'FROM customer_return r JOIN site s ON s.id = r.site_id LEFT JOIN sales_order o ON o.id = r.order_id LEFT JOIN channel c ON c.id = o.channel_id';

type Piece = Omit<CameBackDto, 'words' | 'undone' | 'givenBack'> & { lineId: number; units: number; undone: number; givenBack: number };

/** Reads what customers send back. */
@Injectable()
export class CustomerReturnQueries {
  constructor(
    private readonly source: DataSource,
    private readonly items: ItemQueries,
    private readonly settling: Settling,
    private readonly settings: SettingsService,
  ) {}

  /** Those that wait for a decision first, then what is announced, then the newest. */
  async list(siteIds: readonly number[], asked: { q: string; state: string }, window: Window): Promise<Page<CustomerReturnRowDto>> {
    const open = asked.state === 'open' ? `AND r.state IN ('announced','here')` : '';
    const word = likeAny(asked.q.trim());
    const list = {
      select: ROW,
      from: `${FROM} WHERE r.site_id IN (?) ${open} ${asked.q.trim() === '' ? '' : 'AND (r.code LIKE ? OR r.customer LIKE ? OR o.code LIKE ? OR o.channel_ref LIKE ?)'}`,
      params: [[0, ...siteIds], ...(asked.q.trim() === '' ? [] : [word, word, word, word])],
      order: `FIELD(r.state, 'here', 'announced', 'settled', 'called-off'), r.id DESC`,
    };
    return mapPage(await pageOf<CustomerReturnRowDto>(this.source, list, window), (r) => ({ ...r, lines: num(r.lines) }));
  }

  async sheet(person: Person, code: string): Promise<CustomerReturnDto> {
    const row = await find(this.source, 'customer_return', { code: code.toUpperCase() });
    if (!row || !person.siteIds.includes(row.site_id)) throw notFound(`Return ${code.slice(0, 20)}`);
    const head = await one<CustomerReturnRowDto & { by: string | null; exchange: string | null; leftAt: Date | null }>(
      this.source,
      `SELECT ${ROW}, b.name AS \`by\`, x.code AS exchange, COALESCE((SELECT MAX(p.handed_over_at) FROM parcel p WHERE p.order_id = o.id), o.shipped_at) AS leftAt
       ${FROM} LEFT JOIN person b ON b.id = r.settled_by LEFT JOIN sales_order x ON x.id = r.exchange_order_id WHERE r.id = ?`,
      [row.id],
    );
    if (!head) throw notFound(`Return ${code}`);
    const { by, exchange, leftAt, ...first } = head;
    const credits = await rows<{ code: string }>(
      this.source,
      'SELECT v.code FROM return_credit k JOIN invoice v ON v.id = k.invoice_id WHERE k.return_id = ? ORDER BY v.id',
      [row.id],
    );
    const pictures = await rows<{ id: number }>(this.source, 'SELECT id FROM came_back_picture WHERE return_id = ? ORDER BY id', [row.id]);
    return {
      ...first,
      state: row.state as ReturnState,
      wish: row.wish as Wish | null,
      lines: num(first.lines),
      siteId: row.site_id,
      email: row.email,
      toldBy: row.told_by as CustomerReturnDto['toldBy'],
      channelRef: row.channel_ref,
      note: row.note,
      cameAt: row.came_at,
      settledAt: row.settled_at,
      settledAs: row.settled_as as Settlement | null,
      settledBy: by,
      settledWhy: row.settled_why,
      amount: row.amount,
      currency: await this.settings.get(this.source, 'homeCurrency'),
      exchangeOrder: exchange,
      credits: credits.map((c) => c.code),
      wentWith: row.went_with,
      leftAt,
      goodsBack: await this.lines(row),
      pictures: pictures.map((p) => p.id),
      proposed: row.state === 'here' ? await this.settling.proposal(this.source, row) : null,
      refund: row.state === 'here' ? await this.settling.refundOf(this.source, row) : null,
      version: row.version,
    };
  }

  /** What of an order can come back, for whoever announces it. */
  async returnable(person: Person, orderCode: string): Promise<ReturnableDto[]> {
    const order = await find(this.source, 'sales_order', { code: orderCode.toUpperCase() });
    if (!order || !person.siteIds.includes(order.site_id)) throw notFound(`Order ${orderCode.slice(0, 20)}`);
    const gone = await outLines(this.source, order.id);
    const packs = await this.items.packs(gone.map((l) => l.itemId));
    return gone
      .filter((l) => l.gone > l.back)
      .map((l) => {
        const units = l.gone - l.back;
        return { orderLine: l.id, sku: l.sku, name: l.name, picture: l.picture, units, words: spell(units, packs.get(l.itemId) ?? []) };
      });
  }

  /** A return as the phone works on it: what left with its order, what was announced first. */
  async task(tx: Tx, person: Person, code: string): Promise<ReturnTask> {
    const row = await find(tx, 'customer_return', { code: code.toUpperCase() });
    if (!row) throw notFound(`Return ${code.slice(0, 20)}`);
    mustBeAt(person, row.site_id);
    const order = row.order_id === null ? undefined : await find(tx, 'sales_order', { id: row.order_id });
    const said = await rows<{ orderLineId: number | null; itemId: number; announced: number; reason: ReturnReason }>(
      tx,
      'SELECT order_line_id AS orderLineId, item_id AS itemId, announced, reason FROM customer_return_line WHERE return_id = ? ORDER BY line',
      [row.id],
    );
    const gone = order ? await outLines(tx, order.id) : [];
    const goods = order
      ? gone.map((l) => {
          const line = said.find((s) => s.orderLineId === l.id);
          const { announced = 0, reason = said[0]?.reason ?? 'unsaid' } = line ?? {};
          const lots = l.lots.map(({ lot, left }) => ({ lot, left }));
          return { orderLineId: l.id, itemId: l.itemId, announced, left: l.gone - l.back, reason, lots, numbers: l.numbers };
        })
      : said.map((s) => ({ orderLineId: null, itemId: s.itemId, announced: 0, left: 100_000, reason: s.reason, lots: [], numbers: [] }));
    return {
      siteId: row.site_id,
      code: row.code,
      customer: row.customer,
      order: order?.code ?? null,
      wish: row.wish as Wish | null,
      over: row.state === 'settled' || row.state === 'called-off',
      quarantine: (await firstPlace(tx, row.site_id, 'quarantine')) ?? null,
      goods: goods.sort((a, b) => Number(b.announced > 0) - Number(a.announced > 0)),
    };
  }

  private async lines(row: Row<'customer_return'>): Promise<CustomerReturnLineDto[]> {
    const said = await rows<Row<'customer_return_line'> & { sku: string; name: string; picture: string }>(
      this.source,
      'SELECT l.*, i.sku, i.name, i.picture FROM customer_return_line l JOIN item i ON i.id = l.item_id WHERE l.return_id = ? ORDER BY l.line',
      [row.id],
    );
    const pieces = await rows<Piece>(
      this.source,
      `SELECT c.id, c.line_id AS lineId, c.units, t.code AS lot, c.number, c.came_as AS cameAs, c.fate, c.note, p.code AS place, b.name AS \`by\`, c.at, c.undone_at IS NOT NULL AS undone, c.given_back_id IS NOT NULL AS givenBack
       FROM came_back c JOIN customer_return_line l ON l.id = c.line_id JOIN place p ON p.id = c.place_id JOIN person b ON b.id = c.person_id LEFT JOIN lot t ON t.id = c.lot_id WHERE l.return_id = ? ORDER BY c.id`,
      [row.id],
    );
    const back = await backLines(this.source, row.id);
    const gone = row.order_id === null ? [] : await outLines(this.source, row.order_id);
    const packs = await this.items.packs([...said.map((l) => l.item_id), ...gone.map((l) => l.itemId)]);
    const words = (units: number, itemId: number) => (units > 0 ? spell(units, packs.get(itemId) ?? []) : '');
    const figures = (itemId: number, left: number, announced: number, came: number) => ({
      left: words(left, itemId),
      announced: words(announced, itemId),
      back: words(came, itemId),
      leftUnits: left,
      announcedUnits: announced,
      backUnits: came,
    });
    const ofReturn = said.map((l): CustomerReturnLineDto => ({
      orderLine: l.order_line_id,
      sku: l.sku,
      name: l.name,
      picture: l.picture,
      ...figures(
        l.item_id,
        gone.find((g) => g.id === l.order_line_id)?.gone ?? 0,
        l.announced,
        back.find((b) => b.id === l.id)?.units ?? 0,
      ),
      reason: l.reason as ReturnReason,
      note: l.note,
      pieces: pieces.filter((p) => p.lineId === l.id).map((p) => this.piece(p, packs.get(l.item_id) ?? [])),
    }));
    const others = gone.filter((g) => !said.some((l) => l.order_line_id === g.id));
    return [
      ...ofReturn,
      ...others.map((g) => ({
        orderLine: g.id,
        sku: g.sku,
        name: g.name,
        picture: g.picture,
        ...figures(g.itemId, g.gone, 0, 0),
        reason: null,
        note: '',
        pieces: [],
      })),
    ];
  }

  private piece({ lineId: _, units, undone, givenBack, ...p }: Piece, packs: readonly PackUnit[]): CameBackDto {
    return {
      ...p,
      cameAs: p.cameAs,
      fate: p.fate,
      words: spell(units, packs),
      undone: num(undone) === 1,
      givenBack: num(givenBack) === 1,
    };
  }
}
