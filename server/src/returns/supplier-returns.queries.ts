import { kindsFor } from '@vectrum/core/places';
import { Injectable } from '@nestjs/common';
import { spell } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { ItemQueries } from '../catalogue/index.js';
import { mapPage, notFound, num, one, type Page, pageOf, type Person, rows, sqlList, type Window } from '../platform/index.js';
import { OF_CUSTOMERS } from './of-customers.js';
import type { AsideDto, SupplierReturnDto, SupplierReturnLineDto, SupplierReturnRowDto } from './returns.dto.js';

const ROW = `t.code, s.name AS supplier, p.name AS site, t.state, t.sent_at AS sentAt, (SELECT COUNT(*) FROM supplier_return_line l WHERE l.return_id = t.id) AS \`lines\`, t.currency, t.expected`;

/** Kinds of places from which goods can be sent back. */
const STANDS_IN = kindsFor('send-back');
const SHELVES = sqlList(kindsFor('shelf'));

/** How goods (row `w`) came back from a customer, where they did. */
const CAME_BACK = `(SELECT CONCAT(t.code, ', came back ', k.came_as, IF(k.note = '', '', CONCAT(': ', k.note))) FROM came_back k JOIN customer_return_line kl ON kl.id = k.line_id JOIN customer_return t ON t.id = kl.return_id
  WHERE k.place_id = w.placeId AND kl.item_id = w.itemId AND k.lot_id = w.lotId AND k.undone_at IS NULL ORDER BY k.id DESC LIMIT 1)`;

type Costed<T> = Omit<T, 'lines' | 'expected'> & { lines: string | number; expected: string };

/** Reads what stands apart, and what has gone back to suppliers. */
@Injectable()
export class SupplierReturnQueries {
  constructor(
    private readonly source: DataSource,
    private readonly items: ItemQueries,
  ) {}

  /**
   * Goods that are held, damaged or were set apart, with the newest receipt of such goods. Held goods in a bin are not among
   * them: they were reported missing there, and wait to be counted.
   */
  async aside(siteIds: readonly number[]): Promise<AsideDto[]> {
    const found = await rows<Omit<AsideDto, 'words'>>(
      this.source,
      `SELECT w.siteId, w.itemId, i.sku, i.name, i.picture, w.lotId, l.code AS lot, w.\`condition\`, w.placeId, w.place, w.units, s.code AS supplierCode, s.name AS supplier, o.code AS \`order\`, COALESCE(r.reason, (SELECT v.reason FROM inspection_verdict v JOIN inspection n ON n.id = v.inspection_id WHERE w.\`condition\` = 'held' AND n.item_id = w.itemId AND v.lot_id = w.lotId AND v.verdict = 'quarantine' AND v.undone_at IS NULL ORDER BY v.id DESC LIMIT 1), ${CAME_BACK}) AS reason
       FROM (SELECT p.site_id AS siteId, b.item_id AS itemId, b.lot_id AS lotId, b.stock_condition AS \`condition\`, p.id AS placeId, p.code AS place, b.units - ${OF_CUSTOMERS} AS units,
               (SELECT MAX(r.id) FROM receipt r WHERE r.item_id = b.item_id AND r.lot_id = b.lot_id AND r.stock_condition = IF(b.stock_condition = 'held', 'to-inspect', b.stock_condition) AND r.undone_at IS NULL) AS receiptId
             FROM balance b JOIN place p ON p.id = b.place_id WHERE b.bounded = 1 AND b.units > ${OF_CUSTOMERS} AND b.stock_condition IN ('held','damaged','apart') AND p.site_id IN (?) AND NOT (b.stock_condition = 'held' AND p.kind IN ${SHELVES})) w
         JOIN item i ON i.id = w.itemId LEFT JOIN lot l ON l.id = w.lotId LEFT JOIN receipt r ON r.id = w.receiptId LEFT JOIN arrival a ON a.id = r.arrival_id
         LEFT JOIN supplier s ON s.id = a.supplier_id LEFT JOIN purchase_order_line n ON n.id = r.order_line_id LEFT JOIN purchase_order o ON o.id = n.order_id
       ORDER BY s.name, i.name LIMIT 300`,
      [[0, ...siteIds]],
    );
    const packs = await this.items.packs(found.map((f) => f.itemId));
    return found.map((f) => ({ ...f, units: num(f.units), words: spell(num(f.units), packs.get(f.itemId) ?? []) }));
  }

  /**
   * What an arrival brought and is still in the house, wherever it stands, stock on the shelves included; of each lot no more
   * than came with it, and in the condition in which it came. Totes and parcels are left out: their goods are on their way to customers.
   */
  async ofArrival(person: Person, code: string): Promise<AsideDto[]> {
    const arrival = await one<{ id: number; siteId: number }>(
      this.source,
      'SELECT id, site_id AS siteId FROM arrival WHERE code = ? AND site_id IN (?)',
      [code, [0, ...person.siteIds]],
    );
    if (!arrival) throw notFound(`Arrival ${code}`);
    const found = await rows<Omit<AsideDto, 'words'> & { came: string; cameAs: string }>(
      this.source,
      `SELECT p.site_id AS siteId, i.id AS itemId, i.sku, i.name, i.picture, c.lotId, l.code AS lot, b.stock_condition AS \`condition\`, p.id AS placeId, p.code AS place, b.units, c.came, c.cameAs,
         s.code AS supplierCode, s.name AS supplier, o.code AS \`order\`, NULL AS reason
       FROM (SELECT r.item_id AS itemId, r.lot_id AS lotId, r.stock_condition AS cameAs, SUM(r.units) AS came, MAX(r.order_line_id) AS lineId FROM receipt r WHERE r.arrival_id = ? AND r.undone_at IS NULL AND r.taken_as <> 'apart' GROUP BY r.item_id, r.lot_id, r.stock_condition) c
         JOIN balance b ON b.item_id = c.itemId AND b.lot_id = c.lotId AND b.units > 0 AND b.stock_condition IN (IF(c.cameAs = 'damaged', 'damaged', 'good'), IF(c.cameAs = 'to-inspect', 'held', NULL)) JOIN place p ON p.id = b.place_id AND p.site_id = ? AND p.kind IN (?)
         JOIN item i ON i.id = c.itemId JOIN arrival a ON a.id = ? LEFT JOIN lot l ON l.id = c.lotId LEFT JOIN supplier s ON s.id = a.supplier_id LEFT JOIN purchase_order_line n ON n.id = c.lineId LEFT JOIN purchase_order o ON o.id = n.order_id
       ORDER BY i.name, l.code, p.kind <> 'dock', p.walk_order LIMIT 300`,
      [arrival.id, arrival.siteId, STANDS_IN, arrival.id],
    );
    const packs = await this.items.packs(found.map((f) => f.itemId));
    const given = new Map<string, number>();
    return found.flatMap(({ came, cameAs, ...f }) => {
      const lot = `${f.itemId}/${f.lotId}/${cameAs}`;
      const units = Math.min(f.units, num(came) - (given.get(lot) ?? 0));
      given.set(lot, (given.get(lot) ?? 0) + units);
      return units > 0 ? [{ ...f, units, words: spell(units, packs.get(f.itemId) ?? []) }] : [];
    });
  }

  /** Those that wait for a credit first, then the newest. */
  async list(person: Person, window: Window): Promise<Page<SupplierReturnRowDto>> {
    const list = {
      select: ROW,
      from: 'FROM supplier_return t JOIN supplier s ON s.id = t.supplier_id JOIN site p ON p.id = t.site_id WHERE t.site_id IN (?)',
      params: [[0, ...person.siteIds]],
      order: `FIELD(t.state, 'sent', 'credited', 'taken back'), t.id DESC`,
    };
    return mapPage(await pageOf<Costed<SupplierReturnRowDto>>(this.source, list, window), ({ expected, ...t }) => ({
      ...t,
      lines: num(t.lines),
      ...(person.seesCosts ? { expected } : {}),
    }));
  }

  async sheet(person: Person, code: string): Promise<SupplierReturnDto> {
    const found = await one<Costed<Omit<SupplierReturnDto, 'goods' | 'credited'>> & { id: number; credited: string | null }>(
      this.source,
      `SELECT t.id, ${ROW}, s.code AS supplierCode, s.email AS supplierEmail, t.reason, b.name AS sentBy, t.credit_ref AS creditRef, t.credited, t.credited_at AS creditedAt, c.name AS creditedBy, t.version
       FROM supplier_return t JOIN supplier s ON s.id = t.supplier_id JOIN site p ON p.id = t.site_id JOIN person b ON b.id = t.sent_by LEFT JOIN person c ON c.id = t.credited_by WHERE t.code = ? AND t.site_id IN (?)`,
      [code, [0, ...person.siteIds]],
    );
    if (!found) throw notFound(`Return ${code}`);
    const { id, expected, credited, ...head } = found;
    return {
      ...head,
      lines: num(head.lines),
      ...(person.seesCosts ? { expected, credited } : {}),
      goods: await this.goods(id, person.seesCosts),
    };
  }

  private async goods(returnId: number, seesCosts: boolean): Promise<SupplierReturnLineDto[]> {
    const found = await rows<Omit<SupplierReturnLineDto, 'words' | 'expected'> & { itemId: number; units: number; expected: string }>(
      this.source,
      `SELECT l.line, i.id AS itemId, i.sku, i.name, i.picture, l.units, t.code AS lot, l.stock_condition AS \`condition\`, o.code AS \`order\`, l.expected
       FROM supplier_return_line l JOIN item i ON i.id = l.item_id LEFT JOIN lot t ON t.id = l.lot_id LEFT JOIN purchase_order_line n ON n.id = l.order_line_id LEFT JOIN purchase_order o ON o.id = n.order_id
       WHERE l.return_id = ? ORDER BY l.line`,
      [returnId],
    );
    const packs = await this.items.packs(found.map((f) => f.itemId));
    return found.map(({ itemId, units, expected, ...l }) => ({
      ...l,
      words: spell(units, packs.get(itemId) ?? []),
      ...(seesCosts ? { expected } : {}),
    }));
  }
}
