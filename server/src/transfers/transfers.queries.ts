import { Injectable } from '@nestjs/common';
import { ordersIn } from '@vectrum/core/orders';
import type { GatherTask, TakeInTask } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import {
  badState,
  likeAny,
  mapPage,
  mustBeAt,
  notFound,
  num,
  one,
  pageOf,
  type Person,
  rows,
  sqlList,
  type Tx,
  type Window,
} from '../platform/index.js';
import { dockOf, firstPlace } from '../sites/index.js';
import { parcelsOf } from './parcels.queries.js';
import { binsFor } from './bins-for.js';
import { mustBeAtEither, type TransferRow } from './transfer-rows.js';
import type {
  NeededDto,
  OpenTransferDto,
  TransferDto,
  TransferGoodsDto,
  TransferLineDto,
  TransferPageDto,
  TransferRowDto,
} from './transfers.dto.js';

const PROMISABLE = sqlList(ordersIn('promisable'));
const HEAD = `t.id, t.code, f.name AS fromSite, o.name AS toSite, t.state, t.expected_on AS expectedOn, m.name AS madeBy, t.made_at AS madeAt, t.sent_at AS sentAt,
  (SELECT COUNT(*) FROM transfer_line l WHERE l.transfer_id = t.id) AS \`lines\`, (SELECT COALESCE(SUM(l.units), 0) FROM transfer_line l WHERE l.transfer_id = t.id) AS units,
  (SELECT COALESCE(SUM(g.units - g.received_units - g.lost_units), 0) FROM transfer_goods g WHERE g.transfer_id = t.id) AS missing`;
const FROM =
  'FROM transfer t JOIN site f ON f.id = t.from_site_id JOIN site o ON o.id = t.to_site_id LEFT JOIN person m ON m.id = t.made_by_id';
type Head = Omit<TransferRowDto, 'lines' | 'units' | 'missing'> & { id: number; lines: string; units: string; missing: string };
const rowOf = ({ id: _, ...h }: Head): TransferRowDto => ({ ...h, lines: num(h.lines), units: num(h.units), missing: num(h.missing) });

/** Reads what goes between sites. */
@Injectable()
export class TransfersQueries {
  constructor(private readonly source: DataSource) {}

  /** What is under way first, the newest first. */
  async list(siteIds: readonly number[], filter: { q: string; all: boolean }, window: Window): Promise<TransferPageDto> {
    const sites = [0, ...siteIds];
    const page = await pageOf<Head>(
      this.source,
      {
        select: HEAD,
        from: `${FROM} WHERE (t.from_site_id IN (?) OR t.to_site_id IN (?)) ${filter.all ? '' : `AND (t.state NOT IN ('received','cancelled') OR EXISTS (SELECT 1 FROM transfer_goods g WHERE g.transfer_id = t.id AND g.units > g.received_units + g.lost_units))`} ${filter.q ? 'AND (t.code LIKE ? OR t.note LIKE ? OR f.name LIKE ? OR o.name LIKE ?)' : ''}`,
        params: [sites, sites, ...(filter.q ? Array.from({ length: 4 }, () => likeAny(filter.q)) : [])],
        order: `t.state IN ('received','cancelled'), t.id DESC`,
      },
      window,
    );
    return mapPage(page, rowOf);
  }

  async sheet(person: Person, code: string): Promise<TransferDto> {
    const t = await one<TransferRow>(this.source, 'SELECT * FROM transfer WHERE code = ?', [code]);
    if (!t) throw notFound(`Transfer ${code.slice(0, 20)}`);
    mustBeAtEither(person, t);
    const head = await one<Head & { sentBy: string | null }>(
      this.source,
      `SELECT ${HEAD}, w.name AS sentBy ${FROM} LEFT JOIN person w ON w.id = t.sent_by_id WHERE t.id = ?`,
      [t.id],
    );
    if (!head) throw notFound(`Transfer ${code.slice(0, 20)}`);
    const { sentBy, ...row } = head;
    const lineRows = await rows<Omit<TransferLineDto, 'spare' | 'thereFree'> & { spare: string; thereFree: string }>(
      this.source,
      `SELECT l.id AS lineId, l.item_id AS itemId, i.sku, i.name AS item, i.picture, l.units, l.gathered_units AS gathered,
         COALESCE(a.on_hand - a.held - a.reserved, 0) AS spare, COALESCE(b.on_hand - b.held - b.reserved, 0) AS thereFree
       FROM transfer_line l JOIN item i ON i.id = l.item_id LEFT JOIN site_stock a ON a.item_id = i.id AND a.site_id = ? LEFT JOIN site_stock b ON b.item_id = i.id AND b.site_id = ? WHERE l.transfer_id = ? ORDER BY l.line`,
      [t.from_site_id, t.to_site_id, t.id],
    );
    const goods = await rows<Omit<TransferGoodsDto, 'missing' | 'value'> & { value: string }>(
      this.source,
      `SELECT g.id AS goodsId, g.item_id AS itemId, i.sku, i.name AS item, t.code AS lot, g.units AS sent, g.received_units AS received, g.damaged_units AS damaged, g.lost_units AS lost, g.owes, g.settled_note AS settledNote, g.value
       FROM transfer_goods g JOIN item i ON i.id = g.item_id LEFT JOIN lot t ON t.id = g.lot_id WHERE g.transfer_id = ? ORDER BY i.name, t.code`,
      [t.id],
    );
    return {
      ...rowOf(row),
      parcels: (await parcelsOf(this.source, t.id)).map((p) => ({ ...p, price: person.seesCosts ? p.price : null })),
      fromSiteId: t.from_site_id,
      toSiteId: t.to_site_id,
      note: t.note,
      carrier: t.carrier,
      tracking: t.tracking,
      sentBy,
      receivedAt: t.received_at,
      version: t.version,
      lineRows: lineRows.map((l) => ({ ...l, spare: Math.max(0, num(l.spare)), thereFree: num(l.thereFree) })),
      goods: goods.map((g) => ({ ...g, missing: g.sent - g.received - g.lost, value: person.seesCosts ? g.value : null })),
    };
  }

  /** What the orders of one site wait for and another has free. */
  async needed(person: Person, fromSiteId: number, toSiteId: number): Promise<NeededDto[]> {
    mustBeAt(person, fromSiteId);
    mustBeAt(person, toSiteId);
    const found = await rows<{ sku: string; item: string; units: string; free: string; orders: string }>(
      this.source,
      `SELECT i.sku, i.name AS item, SUM(w.lacks) AS units, s.on_hand - s.held - s.reserved AS free, COUNT(DISTINCT w.order_id) AS orders
       FROM (SELECT l.order_id, l.item_id, l.units - l.shipped_units - COALESCE((SELECT SUM(v.units) FROM reservation v WHERE v.order_line_id = l.id), 0) AS lacks
             FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id AND o.site_id = ? AND o.state IN ${PROMISABLE} WHERE l.item_id IS NOT NULL) w
         JOIN item i ON i.id = w.item_id JOIN site_stock s ON s.item_id = i.id AND s.site_id = ?
       WHERE w.lacks > 0 AND s.on_hand - s.held - s.reserved > 0 GROUP BY i.id ORDER BY i.name LIMIT 500`,
      [toSiteId, fromSiteId],
    );
    return found.map((f) => ({ ...f, units: num(f.units), free: num(f.free), orders: num(f.orders) }));
  }

  /** What a phone can do at a site: gather what goes, take in what comes. */
  async openAt(person: Person, siteId: number): Promise<OpenTransferDto[]> {
    mustBeAt(person, siteId);
    const found = await rows<Omit<OpenTransferDto, 'lines'> & { lines: string }>(
      this.source,
      `SELECT t.code, IF(t.from_site_id = ?, 'gather', 'take-in') AS kind, IF(t.from_site_id = ?, o.name, f.name) AS site, COUNT(l.id) AS \`lines\`
       FROM transfer t JOIN site f ON f.id = t.from_site_id JOIN site o ON o.id = t.to_site_id JOIN transfer_line l ON l.transfer_id = t.id
       WHERE (t.from_site_id = ? AND t.state IN ('requested','gathering')) OR (t.to_site_id = ? AND t.state IN ('on-the-road','arriving')) GROUP BY t.id ORDER BY t.expected_on IS NULL, t.expected_on, t.id`,
      [siteId, siteId, siteId, siteId],
    );
    return found.map((f) => ({ ...f, lines: num(f.lines) }));
  }

  /** What is to be gathered, each line with the bins that it is due from. */
  async gather(tx: Tx, code: string): Promise<GatherTask> {
    const t = await one<TransferRow & { toSite: string }>(
      tx,
      'SELECT t.*, o.name AS toSite FROM transfer t JOIN site o ON o.id = t.to_site_id WHERE t.code = ?',
      [code],
    );
    if (!t) throw notFound(`Transfer ${code.slice(0, 20)}`);
    if (t.state !== 'requested' && t.state !== 'gathering')
      throw badState(t.state === 'cancelled' ? `${code} was called off` : `${code} is on the road already`);
    const lines = await rows<{ lineId: number; itemId: number; units: number; gathered: number }>(
      tx,
      'SELECT l.id AS lineId, l.item_id AS itemId, l.units, l.gathered_units AS gathered FROM transfer_line l JOIN item i ON i.id = l.item_id WHERE l.transfer_id = ? ORDER BY l.line',
      [t.id],
    );
    const bins = await binsFor(
      tx,
      code,
      t.from_site_id,
      lines.map((l) => l.itemId),
    );
    return {
      document: t.code,
      siteId: t.from_site_id,
      to: t.toSite,
      note: t.note,
      lines: lines.map((l) => ({ ...l, bins: bins.get(l.itemId) ?? [] })),
      parcels: (await parcelsOf(tx, t.id)).map(({ code: parcel, carrier, state }) => ({
        code: parcel,
        carrier,
        isReady: state !== 'label-asked',
      })),
    };
  }

  /** What is on the road to a site, for the dock there. */
  async takeIn(tx: Tx, code: string): Promise<TakeInTask> {
    const t = await one<TransferRow & { fromSite: string }>(
      tx,
      'SELECT t.*, f.name AS fromSite FROM transfer t JOIN site f ON f.id = t.from_site_id WHERE t.code = ?',
      [code],
    );
    if (!t) throw notFound(`Transfer ${code.slice(0, 20)}`);
    if (t.state !== 'on-the-road' && t.state !== 'arriving')
      throw badState(
        t.state === 'received' ? `${code} is closed. What comes late is settled by the office` : `${code} has not been sent yet`,
      );
    const dock = await dockOf(tx, t.to_site_id, null);
    if (!dock) throw badState('This site has no dock. Make one in Shelves first');
    const goods = await rows<TakeInTask['goods'][number]>(
      tx,
      `SELECT g.id AS goodsId, g.item_id AS itemId, g.lot_id AS lotId, l.code AS lot, g.units - g.lost_units AS sent, g.received_units AS received
       FROM transfer_goods g JOIN item i ON i.id = g.item_id LEFT JOIN lot l ON l.id = g.lot_id WHERE g.transfer_id = ? ORDER BY i.name, l.code`,
      [t.id],
    );
    return {
      document: t.code,
      siteId: t.to_site_id,
      from: t.fromSite,
      dock,
      apart: (await firstPlace(tx, t.to_site_id, 'quarantine')) ?? null,
      goods: goods.map((g) => ({ ...g, sent: num(g.sent) })),
      parcels: (await parcelsOf(tx, t.id)).map(({ code: parcel, tracking, hereAt }) => ({
        code: parcel,
        tracking,
        isHere: hereAt !== null,
      })),
    };
  }
}
