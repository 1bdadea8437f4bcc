import { Injectable } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import { CodebookQueries } from '../catalogue/index.js';
import { one, type Tx } from '../platform/index.js';

/** Words for what a command was about, for whoever must answer for it later. */
@Injectable()
export class AboutWords {
  constructor(private readonly codebook: CodebookQueries) {}

  async goods(tx: Tx, { itemId, units }: { itemId: number; units: number }): Promise<string> {
    const item = await this.codebook.item(tx, 0, itemId);
    return item ? goodsWords(units, item) : `${units} of something`;
  }

  async place(tx: Tx, id: number): Promise<string> {
    return (await one<{ code: string }>(tx, 'SELECT code FROM place WHERE id = ?', [id]))?.code ?? 'a place';
  }

  /** The site of a place, or of a document, by its table. */
  async siteOf(
    tx: Tx,
    of: { place: number } | { document: string; table: 'round' | 'sales_order' | 'inspection' },
  ): Promise<number | null> {
    const site =
      'place' in of
        ? await one<{ siteId: number | null }>(tx, 'SELECT site_id AS siteId FROM place WHERE id = ?', [of.place])
        : await one<{ siteId: number | null }>(tx, `SELECT site_id AS siteId FROM \`${of.table}\` WHERE code = ?`, [of.document]);
    return site?.siteId ?? null;
  }
}
