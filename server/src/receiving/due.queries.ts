import { Injectable } from '@nestjs/common';
import { readGs1 } from '@vectrum/core/barcode';
import { codeKey } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { num, one, rows, siteDay, siteDays } from '../platform/index.js';
import type { DueDto, FindDueDto } from './receiving.dto.js';

type DueRow = Omit<DueDto, 'late' | 'lines' | 'linesIn' | 'pallets'> &
  Record<'late' | 'lines' | 'linesIn' | 'pallets', string | number | null>;

const LINES = 'COUNT(DISTINCT l.id) AS `lines`, COUNT(DISTINCT IF(l.open_units = 0, l.id, NULL)) AS linesIn';
/** As many as a phone shows; the rest is found by words. */
const MOST = 200;

/** What a dock can receive: arrivals announced or begun, and orders that nothing was announced for. */
@Injectable()
export class DueQueries {
  constructor(private readonly source: DataSource) {}

  /** At the door first, then overdue, then by day. */
  async due(siteIds: readonly number[], only: { itemId?: number; words?: readonly string[] } = {}): Promise<DueDto[]> {
    const sites = [0, ...siteIds];
    const itemId = only.itemId ?? null;
    const patterns = (only.words ?? []).map((w) => `%${w.replace(/[\\%_]/g, '\\$&')}%`);
    // Each word is in the supplier's name, or in the name or SKU of goods that are still to come.
    const says = (order: string) =>
      patterns
        .map(
          () =>
            ` AND (COALESCE(s.name, '') LIKE ? OR EXISTS (SELECT 1 FROM purchase_order_line w JOIN item i ON i.id = w.item_id WHERE w.order_id = ${order} AND w.open_units > 0 AND (i.name LIKE ? OR i.sku LIKE ?)))`,
        )
        .join('');
    const asked = patterns.flatMap((p) => [p, p, p]);
    const days = await siteDays(this.source);
    const found = await rows<DueRow>(
      this.source,
      `SELECT a.code, 'arrival' AS kind, COALESCE(s.name, 'Without an order') AS supplier, a.expected_on AS expectedOn, a.state = 'announced' AND a.expected_on < ${days.today('a.site_id')} AS late, a.opened_at AS since, d.code AS door,
         ${LINES}, (SELECT COUNT(DISTINCT g.sscc) FROM announced_goods g WHERE g.arrival_id = a.id) AS pallets
       FROM arrival a LEFT JOIN place d ON d.id = a.door_id LEFT JOIN supplier s ON s.id = a.supplier_id LEFT JOIN arrival_order x ON x.arrival_id = a.id LEFT JOIN purchase_order_line l ON l.order_id = x.order_id
       WHERE a.state <> 'closed' AND a.site_id IN (?) AND (? IS NULL OR EXISTS (SELECT 1 FROM purchase_order_line w WHERE w.order_id = x.order_id AND w.item_id = ? AND w.open_units > 0))${says('x.order_id')} GROUP BY a.id
       UNION ALL
       SELECT o.code, 'order', s.name, o.expected_on, o.expected_on < ${days.today('o.site_id')}, o.first_received_at, d.code, ${LINES}, 0
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id LEFT JOIN place d ON d.id = o.door_id JOIN purchase_order_line l ON l.order_id = o.id
       WHERE o.state IN ('placed','part-received') AND o.site_id IN (?) AND NOT EXISTS (SELECT 1 FROM arrival_order x JOIN arrival a ON a.id = x.arrival_id WHERE x.order_id = o.id AND a.state <> 'closed')
         AND (? IS NULL OR EXISTS (SELECT 1 FROM purchase_order_line w WHERE w.order_id = o.id AND w.item_id = ? AND w.open_units > 0))${says('o.id')} GROUP BY o.id
       ORDER BY kind = 'arrival' AND since IS NOT NULL DESC, expectedOn, door, code LIMIT ${MOST}`,
      [sites, itemId, itemId, ...asked, sites, itemId, itemId, ...asked],
    );
    return found.map((d) => ({ ...d, late: num(d.late) === 1, lines: num(d.lines), linesIn: num(d.linesIn), pallets: num(d.pallets) }));
  }

  /** Where a code leads: an order's or arrival's paper, an announced pallet, or goods that are due. Words lead to what is due with them. */
  async find(siteIds: readonly number[], scanned: string): Promise<FindDueDto> {
    const { today } = await siteDay(this.source, siteIds[0] ?? null);
    const read = readGs1(scanned, { today });
    const key = codeKey(scanned, today);
    const sites = [0, ...siteIds];
    const paper = await one<{ code: string }>(
      this.source,
      `SELECT code FROM purchase_order WHERE code = ? AND site_id IN (?) AND state <> 'draft' UNION ALL SELECT code FROM arrival WHERE code = ? AND site_id IN (?)
       UNION ALL SELECT a.code FROM announced_goods g JOIN arrival a ON a.id = g.arrival_id WHERE g.sscc = ? AND a.site_id IN (?) AND a.state <> 'closed' LIMIT 1`,
      [key, sites, key, sites, read.ok ? (read.fields['00'] ?? '') : '', sites],
    );
    if (paper) return { opens: paper.code, choices: [] };
    const item = await one<{ id: number }>(
      this.source,
      'SELECT u.item_id AS id FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id WHERE b.code = ? UNION ALL SELECT id FROM item WHERE sku = ? LIMIT 1',
      [key, key],
    );
    const words = scanned.trim().split(/\s+/).filter(Boolean).slice(0, 6);
    if (!item) return { opens: null, choices: words.length > 0 ? await this.due(siteIds, { words }) : [] };
    const choices = await this.due(siteIds, { itemId: item.id });
    return { opens: choices.length === 1 ? (choices[0]?.code ?? null) : null, choices: choices.length === 1 ? [] : choices };
  }
}
