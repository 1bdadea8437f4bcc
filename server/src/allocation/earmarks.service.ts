import { Injectable } from '@nestjs/common';
import { available } from '@vectrum/core/ledger';
import type { ItemId, LineId, SiteId } from '@vectrum/core/ids';
import { find, findAll, insertMany, marks, more, one, remove, rows, type Tx, update } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';

/** What a line of a document within the house still wants of a site's goods. */
export interface EarmarkLine {
  lineId: LineId;
  itemId: ItemId;
  units: number;
}

interface Goods {
  site_id: SiteId;
  item_id: ItemId;
}
/** A line that wants more than it holds. */
export interface Waiting extends Goods {
  id: number;
  lacks: number;
}

/**
 * Goods of a site that transfers and assemblies hold until they are gathered, so that no order is promised them meanwhile, and none
 * of what orders are promised is gathered. They come after orders where too little is there. The site's reserved figure is the sum
 * of reservations and of these. Whoever changes one holds that figure first, which keeps two from waiting for each other.
 */
@Injectable()
export class Earmarks {
  constructor(private readonly ledger: LedgerService) {}

  /** A document wants goods; what is free is given to it when the site is settled. */
  async want(tx: Tx, document: string, siteId: SiteId, lines: readonly EarmarkLine[]): Promise<void> {
    await this.holdFigures(
      tx,
      lines.map((l) => ({ site_id: siteId, item_id: l.itemId })),
    );
    await insertMany(
      tx,
      'earmark',
      ['document', 'line_id', 'site_id', 'item_id', 'wanted_units', 'units'],
      lines.map((l) => [document, l.lineId, siteId, l.itemId, l.units, 0]),
    );
  }

  /** How many units of a line may be gathered: what it holds, and what nobody does. */
  async within(tx: Tx, document: string, line: Pick<EarmarkLine, 'lineId' | 'itemId'>, siteId: SiteId): Promise<number> {
    const stock = await one<{ on_hand: number; held: number; reserved: number }>(
      tx,
      'SELECT on_hand, held, reserved FROM site_stock WHERE site_id = ? AND item_id = ? FOR UPDATE',
      [siteId, line.itemId],
    );
    const own = await find(tx, 'earmark', { document, line_id: line.lineId }, 'lock');
    const free = stock ? available({ onHand: stock.on_hand, held: stock.held, reserved: stock.reserved }) : 0;
    return Math.max(0, (own?.units ?? 0) + free);
  }

  /** So many units of a line are gathered: they are in hand, and no longer held or wanted. */
  async gathered(tx: Tx, document: string, lineId: LineId, units: number): Promise<void> {
    const own = await find(tx, 'earmark', { document, line_id: lineId }, 'lock');
    if (!own) return;
    const held = Math.min(own.units, units);
    await this.change(tx, own.id, own, -held);
    await update(tx, 'earmark', { id: own.id }, { wanted_units: Math.max(own.units - held, own.wanted_units - units) });
  }

  /** Units that were gathered are back where they were, and the line wants them again. */
  async putBack(tx: Tx, document: string, siteId: SiteId, { lineId, itemId, units }: EarmarkLine): Promise<void> {
    const own = await find(tx, 'earmark', { document, line_id: lineId }, 'lock');
    if (!own) return this.want(tx, document, siteId, [{ lineId, itemId, units }]);
    await update(tx, 'earmark', { id: own.id }, { wanted_units: more(units) });
  }

  /** The document wants nothing more: what it held is free. */
  async drop(tx: Tx, document: string): Promise<void> {
    await this.holdFigures(tx, await rows<Goods>(tx, 'SELECT DISTINCT site_id, item_id FROM earmark WHERE document = ?', [document]));
    for (const own of await findAll(tx, 'earmark', { document }, 'item_id', 'lock')) await this.change(tx, own.id, own, -own.units);
    await remove(tx, 'earmark', { document });
  }

  /** What documents want of a site's goods and do not hold, the oldest first; held until the transaction ends. */
  async waiting(tx: Tx, siteId: SiteId, items: readonly ItemId[]): Promise<Waiting[]> {
    return rows<Waiting>(
      tx,
      `SELECT id, item_id, site_id, wanted_units - units AS lacks FROM earmark WHERE site_id = ? AND item_id IN (${marks(items)}) AND wanted_units > units ORDER BY id FOR UPDATE`,
      [siteId, ...items],
    );
  }

  /** Gives them what orders have left free. What is given is taken from `free`. */
  async grant(tx: Tx, waiting: readonly Waiting[], free: Map<ItemId, number>): Promise<void> {
    for (const w of waiting) {
      const part = Math.min(w.lacks, free.get(w.item_id) ?? 0);
      if (part <= 0) continue;
      await this.change(tx, w.id, w, part);
      free.set(w.item_id, (free.get(w.item_id) ?? 0) - part);
    }
  }

  /** Takes back up to so many units that nothing stands behind, the newest document's first. Returns the units freed. */
  async takeBack(tx: Tx, siteId: SiteId, itemId: ItemId, units: number): Promise<number> {
    const held = await rows<{ id: number; item_id: number; site_id: number; units: number }>(
      tx,
      'SELECT id, item_id, site_id, units FROM earmark WHERE site_id = ? AND item_id = ? AND units > 0 ORDER BY id DESC FOR UPDATE',
      [siteId, itemId],
    );
    let freed = 0;
    for (const h of held) {
      const part = Math.min(h.units, units - freed);
      if (part <= 0) break;
      await this.change(tx, h.id, h, -part);
      freed += part;
    }
    return freed;
  }

  /** Nobody changes earmarks of these goods until the transaction ends. */
  private async holdFigures(tx: Tx, goods: readonly Goods[]): Promise<void> {
    for (const { site_id, item_id } of [...goods].sort((a, b) => a.site_id - b.site_id || a.item_id - b.item_id))
      await one(tx, 'SELECT reserved FROM site_stock WHERE site_id = ? AND item_id = ? FOR UPDATE', [site_id, item_id]);
  }

  private async change(tx: Tx, id: number, of: Goods, units: number): Promise<void> {
    if (units === 0) return;
    await this.ledger.reserved(tx, of.site_id, of.item_id, units);
    await update(tx, 'earmark', { id }, { units: more(units) });
  }
}
