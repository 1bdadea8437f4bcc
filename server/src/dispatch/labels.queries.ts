import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound, one } from '../platform/index.js';

/** Labels of closed parcels, to be printed again. */
@Injectable()
export class LabelsQueries {
  constructor(private readonly source: DataSource) {}

  async label(code: string, siteIds: readonly number[]): Promise<Buffer> {
    const found = await one<{ label_pdf: Buffer | null }>(
      this.source,
      'SELECT p.label_pdf FROM parcel p JOIN sales_order o ON o.id = p.order_id WHERE p.code = ? AND o.site_id IN (?)',
      [code, [0, ...siteIds]],
    );
    if (!found?.label_pdf) throw notFound(`A label for ${code}`);
    return found.label_pdf;
  }
}
