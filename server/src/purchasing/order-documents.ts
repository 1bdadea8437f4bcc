import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { PAPER, rows, task, Work } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import type { purchaseOrderPdf } from './purchase-order.pdf.js';
import { writeOrder } from '../ubl/index.js';
import type { PurchaseOrderDto } from './purchasing.dto.js';
import { ublOrderOf } from './ubl-order.js';

const PAPER_OF = task<typeof purchaseOrderPdf>('purchasing/purchaseOrderPdf', ...PAPER);

/** The papers of a purchase order: the PDF for people, UBL for the supplier's system. */
@Injectable()
export class OrderDocuments {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
    private readonly work: Work,
  ) {}

  async pdf(order: PurchaseOrderDto): Promise<Buffer> {
    return this.work.run(PAPER_OF, order, await this.settings.letterhead());
  }

  async ubl(order: PurchaseOrderDto): Promise<string> {
    const found = await rows<{ sku: string; factor: number; supplierSku: string | null; gtin: string | null }>(
      this.source,
      `SELECT i.sku, l.factor, MAX(x.supplier_sku) AS supplierSku, MIN(IF(b.code REGEXP '^[0-9]{14}$' AND b.code NOT LIKE '002%', b.code, NULL)) AS gtin
       FROM purchase_order o JOIN purchase_order_line l ON l.order_id = o.id JOIN item i ON i.id = l.item_id
         LEFT JOIN supplier_item x ON x.item_id = i.id AND x.supplier_id = o.supplier_id LEFT JOIN barcode b ON b.pack_unit_id = l.pack_unit_id
       WHERE o.code = ? GROUP BY l.id`,
      [order.code],
    );
    const codes = new Map(found.map((f) => [`${f.sku}/${f.factor}`, { supplierSku: f.supplierSku ?? '', gtin: f.gtin }]));
    return writeOrder(ublOrderOf(order, { house: await this.settings.letterhead(), codes }));
  }
}
