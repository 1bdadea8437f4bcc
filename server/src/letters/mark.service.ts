import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import sharp from 'sharp';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, CommandLog, find, notFound, remove } from '../platform/index.js';

/** As large as it stands on a mail; papers have it smaller. */
const MOST_WIDE = 320;
const MOST_HIGH = 90;
const MOST_PIXELS = 20_000_000;
export const MOST_MARK_BYTES = 4_000_000;
const FORMATS: ReadonlySet<string | undefined> = new Set(['jpeg', 'png', 'webp']);
const ONE = 1;

/** The company's mark, for the head of papers and mails: decoded and written anew, so that nothing but a picture is ever kept. */
@Injectable()
export class MarkService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  /** The picture, as PNG; null where the company has none. */
  async read(): Promise<Buffer | null> {
    return (await find(this.source, 'company_mark', { id: ONE }))?.png ?? null;
  }

  async keep(act: Act, bytes: Buffer): Promise<void> {
    const { data, info } = await picture(bytes);
    const mark = createHash('sha256').update(data).digest('hex').slice(0, 12);
    await this.commands.run(act, 'company.mark', { mark }, async (tx) => {
      await tx.query('REPLACE INTO company_mark (id, png, width, height) VALUES (?, ?, ?, ?)', [ONE, data, info.width, info.height]);
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: 'The company’s mark', detail: 'changed' });
    });
  }

  drop(act: Act): Promise<void> {
    return this.commands.run(act, 'company.mark-drop', {}, async (tx) => {
      if ((await remove(tx, 'company_mark', { id: ONE })) === 0) throw notFound('A mark of the company');
      await this.activity.record(tx, act, { kind: 'setup', glyph: 'full', title: 'The company’s mark', detail: 'taken away' });
    });
  }
}

async function picture(bytes: Buffer) {
  const wrong = badForm({ mark: 'This is not a JPEG, PNG or WebP picture. Choose another file' });
  try {
    const { format } = await sharp(bytes, { limitInputPixels: MOST_PIXELS }).metadata();
    if (!FORMATS.has(format)) throw wrong;
    return await sharp(bytes, { limitInputPixels: MOST_PIXELS })
      .rotate()
      .resize(MOST_WIDE, MOST_HIGH, { fit: 'inside', withoutEnlargement: true })
      .png()
      .toBuffer({ resolveWithObject: true });
  } catch {
    throw wrong;
  }
}
