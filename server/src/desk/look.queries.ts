import { Injectable } from '@nestjs/common';
import { readGs1 } from '@vectrum/core/barcode';
import { codeKey } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { ItemQueries } from '../catalogue/index.js';
import { num, one, type Person, rows, siteDay } from '../platform/index.js';
import type { LookContentDto, LookDto, LookItemDto, LookStockDto } from './look.dto.js';

interface Hit {
  itemId: number;
  /** Text where the driver makes it so, in a union. */
  holds: number | string;
}
const MOST = 60;
const nothing = (code: string): LookDto => ({
  kind: 'unknown',
  code,
  title: code,
  detail: 'Nothing here has this code',
  go: null,
  lot: null,
  expires: null,
  item: null,
  stock: [],
  contents: [],
});

/** Look-up on the floor: whatever is scanned, what it is and where it lies. */
@Injectable()
export class LookQueries {
  constructor(
    private readonly source: DataSource,
    private readonly items: ItemQueries,
  ) {}

  async look(person: Person, scanned: string): Promise<LookDto> {
    const { today } = await siteDay(this.source, person.siteIds[0] ?? null);
    const read = readGs1(scanned, { today });
    const key = codeKey(scanned, today);
    const hit = await this.item(key);
    if (hit) {
      const lot = read.ok ? (read.fields['21'] ?? read.fields['10'] ?? null) : null;
      return this.ofItem(person, key, hit, lot, read.ok ? (read.dates['17'] ?? read.dates['15'] ?? null) : null);
    }
    return (
      (await this.place(person, key)) ??
      (await this.lot(person, key)) ??
      (await this.document(person, key)) ??
      (await this.badge(key)) ??
      nothing(key)
    );
  }

  private item(key: string): Promise<Hit | undefined> {
    return one<Hit>(
      this.source,
      `SELECT u.item_id AS itemId, u.factor AS holds FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id WHERE b.code = ?
       UNION ALL SELECT id, 1 FROM item WHERE sku = ? LIMIT 1`,
      [key, key],
    );
  }

  private async ofItem(person: Person, code: string, hit: Hit, lot: string | null, expires: string | null): Promise<LookDto> {
    const [item, stock] = await Promise.all([this.facts(person, hit), this.stockOf(person, hit.itemId, lot)]);
    return {
      ...nothing(code),
      kind: 'item',
      title: item.name,
      detail: item.sku,
      lot,
      expires: expires ?? stock.find((s) => s.expires)?.expires ?? null,
      item,
      stock,
    };
  }

  private async facts(person: Person, hit: Hit): Promise<LookItemDto> {
    const item = await one<
      Omit<LookItemDto, 'packs' | 'holds' | 'onHand' | 'available'> & { onHand: string; held: string; reserved: string }
    >(
      this.source,
      `SELECT i.sku, i.name, i.picture, p.mark AS pictureMark, i.tracking,
         (SELECT q.code FROM item_site h JOIN place q ON q.id = h.home_place_id WHERE h.item_id = i.id AND h.site_id IN (?) ORDER BY FIELD(h.site_id, ?) LIMIT 1) AS home,
         COALESCE(SUM(s.on_hand), 0) AS onHand, COALESCE(SUM(s.held), 0) AS held, COALESCE(SUM(s.reserved), 0) AS reserved
       FROM item i LEFT JOIN item_picture p ON p.item_id = i.id LEFT JOIN site_stock s ON s.item_id = i.id AND s.site_id IN (?) WHERE i.id = ? GROUP BY i.id`,
      [[0, ...person.siteIds], [0, ...person.siteIds], [0, ...person.siteIds], hit.itemId],
    );
    const packs = (await this.items.packs([hit.itemId])).get(hit.itemId) ?? [];
    const { onHand, held, reserved, ...facts } = item ?? {
      sku: '',
      name: '',
      picture: 'box',
      pictureMark: null,
      tracking: 'none',
      home: null,
      onHand: '0',
      held: '0',
      reserved: '0',
    };
    return { ...facts, packs, holds: num(hit.holds), onHand: num(onHand), available: num(onHand) - num(held) - num(reserved) };
  }

  private stockOf(person: Person, itemId: number, lot: string | null): Promise<LookStockDto[]> {
    return rows<LookStockDto>(
      this.source,
      `SELECT p.code AS place, p.kind, s.name AS site, l.code AS lot, l.expires_on AS expires, b.stock_condition AS \`condition\`, b.units
       FROM balance b JOIN place p ON p.id = b.place_id JOIN site s ON s.id = p.site_id LEFT JOIN lot l ON l.id = b.lot_id
       WHERE b.item_id = ? AND b.units > 0 AND p.site_id IN (?) AND (? IS NULL OR l.code = ?) ORDER BY FIELD(p.site_id, ?), p.walk_order LIMIT ?`,
      [itemId, [0, ...person.siteIds], lot, lot, [0, ...person.siteIds], MOST],
    );
  }

  private async place(person: Person, key: string): Promise<LookDto | undefined> {
    const place = await one<{
      id: number;
      code: string;
      kind: string;
      site: string;
      zone: string | null;
      parent: string | null;
      blocked: number;
    }>(
      this.source,
      `SELECT p.id, p.code, p.kind, s.name AS site, z.name AS zone, IF(z.id IS NULL, q.code, NULL) AS parent, p.blocked FROM place p JOIN site s ON s.id = p.site_id
       LEFT JOIN place q ON q.id = p.parent_id LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone' WHERE p.code = ? AND p.site_id IN (?)`,
      [key, [0, ...person.siteIds]],
    );
    if (!place) return undefined;
    const within = await rows<{ id: number }>(this.source, 'SELECT id FROM place WHERE parent_id = ?', [place.id]);
    const contents = await rows<LookContentDto>(
      this.source,
      `SELECT i.sku, i.name, i.picture, l.code AS lot, b.stock_condition AS \`condition\`, b.units, IF(b.units = 1, u.name, u.plural) AS unit
       FROM balance b JOIN item i ON i.id = b.item_id JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 LEFT JOIN lot l ON l.id = b.lot_id
       WHERE b.units > 0 AND b.place_id IN (?) ORDER BY i.name LIMIT ?`,
      [[place.id, ...within.map((w) => w.id)], MOST],
    );
    const where = [
      place.kind.replace('-', ' '),
      place.zone ?? (place.parent ? `at ${place.parent}` : ''),
      place.site,
      place.blocked === 1 ? 'blocked' : '',
    ]
      .filter(Boolean)
      .join(', ');
    return { ...nothing(place.code), kind: 'place', title: place.code, detail: where, contents };
  }

  /** A lot or a serial number by itself: it names its item only where no other item has the same. */
  private async lot(person: Person, key: string): Promise<LookDto | undefined> {
    const lots = await rows<{ item_id: number; code: string; expires: string | null }>(
      this.source,
      'SELECT item_id, code, expires_on AS expires FROM lot WHERE code = ? ORDER BY id LIMIT 2',
      [key],
    );
    const only = lots.length === 1 ? lots[0] : undefined;
    if (!only)
      return lots.length > 1 ? { ...nothing(key), detail: 'Several items have a lot of this number. Scan the item as well' } : undefined;
    return this.ofItem(person, key, { itemId: only.item_id, holds: 1 }, only.code, only.expires);
  }

  private async document(person: Person, key: string): Promise<LookDto | undefined> {
    const sites = [0, ...person.siteIds];
    const paper = await one<{ code: string; kind: string; title: string; state: string }>(
      this.source,
      `SELECT o.code, 'purchase order' AS kind, s.name AS title, o.state FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id WHERE o.code = ? AND o.site_id IN (?)
       UNION ALL SELECT a.code, 'arrival', COALESCE(s.name, 'Sender not known'), a.state FROM arrival a LEFT JOIN supplier s ON s.id = a.supplier_id WHERE a.code = ? AND a.site_id IN (?)
       UNION ALL SELECT r.code, 'round', o.customer, r.state FROM \`round\` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id WHERE r.code = ? AND r.site_id IN (?)
       UNION ALL SELECT o.code, 'order', o.customer, o.state FROM sales_order o WHERE o.code = ? AND o.site_id IN (?)`,
      [key, sites, key, sites, key, sites, key, sites],
    );
    if (!paper) return undefined;
    const go =
      (paper.kind === 'purchase order' || (paper.kind === 'arrival' && paper.state !== 'closed')) && person.rights.has('receive')
        ? `/floor/receive/${paper.code}`
        : paper.kind === 'round' && person.rights.has('pick')
          ? `/floor/pick/${paper.code}`
          : null;
    return { ...nothing(paper.code), kind: 'document', title: paper.title, detail: `${paper.kind} ${paper.code}, ${paper.state}`, go };
  }

  private async badge(key: string): Promise<LookDto | undefined> {
    const person = await one<{ name: string }>(this.source, 'SELECT name FROM person WHERE badge_code = ? AND active = 1', [key]);
    return person && { ...nothing(key), kind: 'person', title: person.name, detail: `badge ${key}` };
  }
}
