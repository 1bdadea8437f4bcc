import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import sharp from 'sharp';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, CommandLog, inTransaction, notFound, one, remove, rows, type Tx } from '../platform/index.js';
import { keyOfCode } from './code-key.js';
import type { PictureForDto } from './items.dto.js';

export const MOST_PICTURE_BYTES = 8 * 1024 * 1024;
/** What is kept, in pixels along the longer side; a picture of more pixels than MOST_PIXELS is not even decoded. */
const LARGE_PX = 1200;
const THUMB_PX = 160;
const MOST_PIXELS = 60_000_000;
const FORMATS = new Set(['jpeg', 'png', 'webp']);

/** Pictures of items: what was uploaded is decoded and written anew, so that nothing but a picture is ever kept or served. */
@Injectable()
export class PicturesService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  async keep(act: Act, sku: string, bytes: Buffer): Promise<{ mark: string }> {
    const kept = await one<{ mark: string }>(
      this.source,
      'SELECT p.mark FROM item_picture p JOIN item i ON i.id = p.item_id WHERE i.sku = ? AND p.mark = ?',
      [sku, markOf(bytes)],
    );
    // What was given out and comes back is the picture that is there: written anew it would be worse each time.
    if (kept) return kept;
    const made = await pictureOf(bytes);
    const mark = markOf(made.large);
    return this.commands.run(act, 'item.picture', { sku, mark }, (tx) => this.write(tx, act, sku, mark, made));
  }

  /** The same for a picture that was fetched by its link, with nobody at the keyboard. */
  async keepFetched(sku: string, bytes: Buffer): Promise<void> {
    const made = await pictureOf(bytes);
    await inTransaction(this.source, (tx) => this.write(tx, null, sku, markOf(made.large), made));
  }

  private async write(
    tx: Tx,
    act: Act | null,
    sku: string,
    mark: string,
    made: { large: Buffer; thumb: Buffer },
  ): Promise<{ mark: string }> {
    const item = await one<{ id: number; name: string }>(tx, 'SELECT id, name FROM item WHERE sku = ? FOR UPDATE', [sku]);
    if (!item) throw notFound(`Item ${sku}`);
    await tx.query('REPLACE INTO item_picture (item_id, type, mark, large, thumb) VALUES (?, ?, ?, ?, ?)', [
      item.id,
      'image/webp',
      mark,
      made.large,
      made.thumb,
    ]);
    await this.activity.record(tx, act, { kind: 'item', glyph: 'full', title: `Picture of ${item.name} changed`, document: sku });
    return { mark };
  }

  drop(act: Act, sku: string): Promise<void> {
    return this.commands.run(act, 'item.picture-drop', { sku }, async (tx) => {
      const item = await one<{ id: number }>(tx, 'SELECT id FROM item WHERE sku = ? FOR UPDATE', [sku]);
      if (!item) throw notFound(`Item ${sku}`);
      if ((await remove(tx, 'item_picture', { item_id: item.id })) === 0) throw notFound(`A picture of ${sku}`);
    });
  }

  /** Which items files of these names are pictures of: a name is an item's SKU or one of its barcodes. O(names). */
  async named(names: readonly string[]): Promise<PictureForDto[]> {
    if (names.length === 0) return [];
    const keys = new Map(names.map((name) => [name, keyOfCode(name)]));
    const found = await rows<{ by: string; sku: string; name: string; hasPicture: number }>(
      this.source,
      `SELECT f.code AS \`by\`, i.sku, i.name, p.item_id IS NOT NULL AS hasPicture
       FROM (SELECT sku AS code, id FROM item WHERE sku IN (?) UNION ALL SELECT b.code, u.item_id FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id WHERE b.code IN (?)) f
       JOIN item i ON i.id = f.id LEFT JOIN item_picture p ON p.item_id = i.id`,
      [names.map((n) => n.toUpperCase()), [...keys.values()]],
    );
    const of = (code: string) => found.find((f) => f.by.toUpperCase() === code.toUpperCase());
    return names.map((name) => {
      const item = of(name) ?? of(keys.get(name) ?? name);
      return { name, item: item ? { sku: item.sku, name: item.name, hasPicture: item.hasPicture === 1 } : null };
    });
  }

  /** All pictures as they are kept, by SKU, a page in memory at a time. */
  async *all(): AsyncGenerator<{ sku: string; bytes: Buffer }> {
    for (let after = ''; ;) {
      const page = await rows<{ sku: string; bytes: Buffer }>(
        this.source,
        `SELECT i.sku, p.large AS bytes FROM item i JOIN item_picture p ON p.item_id = i.id WHERE i.sku > ? ORDER BY i.sku LIMIT ${PAGE}`,
        [after],
      );
      yield* page;
      if (page.length < PAGE) return;
      after = page.at(-1)?.sku ?? '';
    }
  }

  async read(sku: string, size: 'large' | 'thumb'): Promise<{ type: string; bytes: Buffer }> {
    const found = await one<{ type: string; bytes: Buffer }>(
      this.source,
      `SELECT p.type, p.\`${size}\` AS bytes FROM item_picture p JOIN item i ON i.id = p.item_id WHERE i.sku = ?`,
      [sku],
    );
    if (!found) throw notFound(`A picture of ${sku}`);
    return found;
  }
}

const PAGE = 50;

/** What a picture is known by: equal bytes, equal mark. */
const markOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex').slice(0, 12);

/** A picture as it is kept: decoded and written anew, in two sizes. Refuses what is no picture. */
export async function pictureOf(bytes: Buffer): Promise<{ large: Buffer; thumb: Buffer }> {
  const wrong = badForm({ picture: 'This is not a JPEG, PNG or WebP picture. Choose another file' });
  try {
    const { format } = await sharp(bytes, { limitInputPixels: MOST_PIXELS }).metadata();
    if (!FORMATS.has(format)) throw wrong;
    const fit = (px: number) =>
      sharp(bytes, { limitInputPixels: MOST_PIXELS })
        .rotate()
        .resize(px, px, { fit: 'inside', withoutEnlargement: true })
        .webp({ quality: 80 })
        .toBuffer();
    return { large: await fit(LARGE_PX), thumb: await fit(THUMB_PX) };
  } catch {
    throw wrong;
  }
}
