import { Injectable, type OnModuleInit } from '@nestjs/common';
import { countOf } from '@vectrum/core/quantity';
import { ActivityService, UndoService } from '../activity/index.js';
import { type Act, CommandLog, marks, notFound, rows, type Tx } from '../platform/index.js';
import { refreshLacks } from './completeness.js';
import type { MadeBarcodesDto, MakeBarcodesDto } from './items.dto.js';
import { ItemsService } from './items.service.js';
import { tieBarcode } from './packs.js';

interface Undo extends Record<string, unknown> {
  items: number[];
  codes: string[];
}

/** In-house barcodes for many items at once, as one act that is taken back as one. */
@Injectable()
export class ManyBarcodes implements OnModuleInit {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly items: ItemsService,
    private readonly undo: UndoService,
  ) {}

  onModuleInit(): void {
    this.undo.register('barcodes-made', 'items', (tx, _, payload) => this.takeBack(tx, payload as Undo));
  }

  /** Those that have a barcode on any of their packs stay as they are. */
  make(act: Act, { skus, make }: MakeBarcodesDto): Promise<MadeBarcodesDto> {
    return this.commands.run(act, 'items.barcodes', { skus, make }, async (tx) => {
      const wanted = [...new Set(skus.map((s) => s.toUpperCase()))];
      const found = await rows<{ id: number; sku: string; packId: number; has: number | string }>(
        tx,
        `SELECT i.id, i.sku, u.id AS packId, EXISTS (SELECT 1 FROM barcode b JOIN pack_unit v ON v.id = b.pack_unit_id WHERE v.item_id = i.id) AS has
         FROM item i JOIN pack_unit u ON u.item_id = i.id AND u.factor = 1 WHERE i.sku IN (${marks(wanted)}) ORDER BY i.id FOR UPDATE`,
        wanted,
      );
      const missing = wanted.find((s) => !found.some((f) => f.sku === s));
      if (missing) throw notFound(`Item ${missing}`);
      const bare = found.filter((f) => Number(f.has) === 0);
      const codes: string[] = [];
      for (const { packId } of bare) codes.push(await tieBarcode(tx, packId, await this.items.inHouse(tx, make)));
      if (bare.length === 0) return { made: 0, left: found.length, activityId: null };
      const ids = bare.map((b) => b.id);
      await this.changed(tx, ids);
      const activityId = await this.activity.record(tx, act, {
        kind: 'barcodes-made',
        glyph: 'full',
        title: `${countOf(bare.length, { name: 'item', plural: 'items' })}: in-house barcodes made`,
        undo: { items: ids, codes } satisfies Undo,
      });
      return { made: bare.length, left: found.length - bare.length, activityId };
    });
  }

  private async takeBack(tx: Tx, { items, codes }: Undo): Promise<void> {
    await tx.query(`DELETE FROM barcode WHERE code IN (${marks(codes)})`, [...codes]);
    await this.changed(tx, items);
  }

  private async changed(tx: Tx, ids: readonly number[]): Promise<void> {
    await tx.query(`UPDATE item SET version = version + 1 WHERE id IN (${marks(ids)})`, [...ids]);
    await refreshLacks(tx, ids);
  }
}
