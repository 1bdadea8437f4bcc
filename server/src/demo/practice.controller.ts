import { Controller, Get, Query } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { Access } from '../identity/index.js';
import { mustBeAt, type Person, Reader, rows } from '../platform/index.js';
import { PracticeCodeDto, PracticeGroupDto } from './practice.dto.js';

const BARCODES = `(SELECT b.code FROM barcode b JOIN pack_unit q ON q.id = b.pack_unit_id WHERE q.item_id = i.id ORDER BY q.factor`;

const CARDS: PracticeGroupDto = {
  title: 'Command cards',
  codes: [
    { code: 'VX-CONFIRM', says: 'book it in, put it there, seen' },
    { code: 'VX-UNDO', says: 'take the last act back' },
    { code: 'VX-NOT-HERE', says: 'nothing there, or too few' },
    { code: 'VX-DAMAGED', says: 'what is in hand is damaged' },
    { code: 'VX-APART', says: 'set it apart' },
    { code: 'VX-TAKE', says: 'take it in all the same' },
    { code: 'VX-LABEL', says: 'print the label' },
    { code: 'VX-WEIGH', says: 'take the weight from the scale' },
    { code: 'VX-SERVICE', says: 'the next service' },
    { code: 'VX-PARCEL', says: 'another parcel' },
    { code: 'VX-OPEN', says: 'open the parcel again' },
    { code: 'VX-PARK', says: 'park the order' },
    { code: 'VX-ALL', says: 'all of it is in' },
    { code: 'VX-LEAVE-OUT', says: 'leave the inserts out' },
  ],
};

/** The practice scanner: the codes that lie around, for those who try the demo without a scanner. */
@Controller('api/practice')
export class PracticeController {
  constructor(private readonly source: DataSource) {}

  @Get('codes')
  @Access('signed-in')
  async codes(@Reader() person: Person, @Query('site') site: string, @Query('document') document?: string): Promise<PracticeGroupDto[]> {
    mustBeAt(person, Number(site));
    const groups = await Promise.all([
      this.goods(String(document ?? '')),
      this.bins(Number(site), String(document ?? '')),
      this.fixtures(Number(site), String(document ?? '')),
      this.papers(Number(site)),
      this.pallets(Number(site), String(document ?? '')),
    ]);
    groups.push(CARDS);
    return groups.filter((g) => g.codes.length > 0);
  }

  private async goods(document: string): Promise<PracticeGroupDto> {
    const codes = await rows<PracticeCodeDto>(
      this.source,
      `SELECT DISTINCT b.code, CONCAT(i.name, ', ', u.name, IF(u.factor = 1, '', CONCAT(' of ', u.factor))) AS says
       FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id JOIN item i ON i.id = u.item_id
       WHERE i.id IN (SELECT l.item_id FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.code = ?
                      UNION SELECT l.item_id FROM purchase_order_line l JOIN arrival_order x ON x.order_id = l.order_id JOIN arrival a ON a.id = x.arrival_id WHERE a.code = ?
                      UNION SELECT l.item_id FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id LEFT JOIN round_order x ON x.order_id = o.id LEFT JOIN \`round\` r ON r.id = x.round_id WHERE o.code = ? OR r.code = ?
                      UNION SELECT l.item_id FROM sales_order_line l JOIN customer_return t ON t.order_id = l.order_id WHERE t.code = ?
                      UNION SELECT b2.item_id FROM balance b2 JOIN place p2 ON p2.id = b2.place_id WHERE p2.kind IN ('dock','inspection') AND b2.units > 0 AND ? = '')
       ORDER BY i.name, u.factor LIMIT 60`,
      [document, document, document, document, document, document],
    );
    const stranger = await rows<PracticeCodeDto>(
      this.source,
      `SELECT ${BARCODES} LIMIT 1) AS code, CONCAT(i.name, ' (a stray one)') AS says FROM item i WHERE i.sku IN ('BRSH-BEE') LIMIT 1`,
    );
    return {
      title: 'Goods within reach',
      codes: [...codes, ...stranger, { code: '5099999999994', says: 'a label nobody knows' }],
    };
  }

  private async pallets(siteId: number, document: string): Promise<PracticeGroupDto> {
    const codes = await rows<PracticeCodeDto>(
      this.source,
      `SELECT DISTINCT CONCAT(']C100', g.sscc) AS code, CONCAT('pallet of ', a.code) AS says FROM announced_goods g JOIN arrival a ON a.id = g.arrival_id LEFT JOIN arrival_order x ON x.arrival_id = a.id LEFT JOIN purchase_order o ON o.id = x.order_id
       WHERE a.site_id = ? AND a.state <> 'closed' AND g.sscc IS NOT NULL AND (? = '' OR a.code = ? OR o.code = ?) LIMIT 8`,
      [siteId, document, document, document],
    );
    return { title: 'Pallets', codes };
  }

  private async bins(siteId: number, document: string): Promise<PracticeGroupDto> {
    const codes = await rows<PracticeCodeDto>(
      this.source,
      `SELECT p.code, IF(s.id IS NULL, 'bin', 'bin of this round') AS says FROM place p LEFT JOIN (SELECT s.id, s.place_id FROM round_stop s JOIN \`round\` r ON r.id = s.round_id WHERE r.code = ?) s ON s.place_id = p.id
       WHERE p.site_id = ? AND (s.id IS NOT NULL OR p.id IN (SELECT i.home_place_id FROM item_site i JOIN balance b ON b.item_id = i.item_id JOIN place d ON d.id = b.place_id AND d.kind = 'dock' WHERE b.units > 0)) ORDER BY s.id IS NULL, p.walk_order LIMIT 24`,
      [document, siteId],
    );
    return { title: 'Bins', codes };
  }

  private async fixtures(siteId: number, document: string): Promise<PracticeGroupDto> {
    const codes = await rows<PracticeCodeDto>(
      this.source,
      `SELECT p.code, REPLACE(p.kind, '-', ' ') AS says FROM place p LEFT JOIN tote_use u ON u.open_tote = p.id WHERE p.site_id = ? AND (p.kind IN ('dock','packing-table','sorting-wall') OR (p.kind = 'tote' AND u.id IS NULL) OR (p.kind = 'wall-slot' AND ? <> ''))
       ORDER BY p.kind = 'wall-slot' AND EXISTS (SELECT 1 FROM \`round\` r WHERE r.code = ? AND r.pooled = 1 AND r.state = 'set-down') DESC, p.kind = 'wall-slot', p.walk_order LIMIT 14`,
      [siteId, document, document],
    );
    return { title: 'Dock, tables, walls, empty totes', codes };
  }

  private async papers(siteId: number): Promise<PracticeGroupDto> {
    const codes = await rows<PracticeCodeDto>(
      this.source,
      `(SELECT o.code, CONCAT('order paper, ', s.name) AS says FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id WHERE o.site_id = ? AND o.state IN ('placed','part-received') ORDER BY o.id DESC LIMIT 6)
       UNION ALL (SELECT r.code, CONCAT('round for ', o.customer) FROM \`round\` r JOIN round_order x ON x.round_id = r.id JOIN sales_order o ON o.id = x.order_id WHERE r.site_id = ? AND r.state IN ('waiting','picking') ORDER BY r.id DESC LIMIT 6)
       UNION ALL (SELECT g.code, CONCAT('return of ', g.customer) FROM customer_return g WHERE g.site_id = ? AND g.state IN ('announced','here') ORDER BY g.id DESC LIMIT 6)
       UNION ALL (SELECT t.code, CONCAT('tote of ', o.customer) FROM tote_use u JOIN sales_order o ON o.id = u.order_id JOIN place t ON t.id = u.tote_id WHERE t.site_id = ? AND u.ended_at IS NULL AND u.set_down_at IS NOT NULL AND o.state = 'picked' LIMIT 6)`,
      [siteId, siteId, siteId, siteId],
    );
    return { title: 'Papers', codes };
  }
}
