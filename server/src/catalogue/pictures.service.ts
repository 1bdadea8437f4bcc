import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import sharp from 'sharp';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, CommandLog, notFound, one, remove } from '../platform/index.js';

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
    const made = await pictureOf(bytes);
    const mark = createHash('sha256').update(made.large).digest('hex').slice(0, 12);
    return this.commands.run(act, 'item.picture', { sku, mark }, async (tx) => {
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
    });
  }

  drop(act: Act, sku: string): Promise<void> {
    return this.commands.run(act, 'item.picture-drop', { sku }, async (tx) => {
      const item = await one<{ id: number }>(tx, 'SELECT id FROM item WHERE sku = ? FOR UPDATE', [sku]);
      if (!item) throw notFound(`Item ${sku}`);
      if ((await remove(tx, 'item_picture', { item_id: item.id })) === 0) throw notFound(`A picture of ${sku}`);
    });
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
