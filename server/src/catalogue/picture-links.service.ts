import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { fetchFile, inTransaction, NotToBeHad, one, Outbox, Problem, type Tx } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { MOST_PICTURE_BYTES, PicturesService } from './pictures.service.js';

const KIND = 'picture.fetch';
const TIMEOUT_MS = 15_000;
/** A server that has not answered so often is given up. */
const MOST_TRIES = 8;

/** Pictures that a file names by link: fetched one by one once the file is in, and kept like those that were uploaded. */
@Injectable()
export class PictureLinks {
  constructor(
    private readonly source: DataSource,
    private readonly outbox: Outbox,
    private readonly settings: SettingsService,
    private readonly pictures: PicturesService,
    private readonly activity: ActivityService,
  ) {
    this.outbox.handle(KIND, ({ payload, attempts }) => this.fetch(String(payload['sku']), String(payload['url']), attempts));
  }

  /** Has a picture fetched once the transaction is through. Each item's by itself, so that one slow link holds up no other. */
  ask(tx: Tx, sku: string, url: string): Promise<void> {
    return this.outbox.send(tx, `picture:${sku}`, KIND, { sku, url });
  }

  private async fetch(sku: string, url: string, attempts: number): Promise<void> {
    // The item may be gone since, with the file that brought it.
    if (!(await one(this.source, 'SELECT id FROM item WHERE sku = ?', [sku]))) return;
    try {
      const inside = await this.settings.get(this.source, 'picturesFromInside');
      await this.pictures.keepFetched(sku, await fetchFile(url, { mostBytes: MOST_PICTURE_BYTES, timeoutMs: TIMEOUT_MS, inside }));
    } catch (thrown) {
      const isFinal = thrown instanceof NotToBeHad || thrown instanceof Problem || attempts >= MOST_TRIES;
      if (!isFinal) throw thrown;
      await this.tell(sku, url, thrown instanceof Error ? thrown.message : String(thrown));
    }
  }

  private tell(sku: string, url: string, why: string): Promise<number> {
    return inTransaction(this.source, (tx) =>
      this.activity.record(tx, null, {
        kind: 'item',
        glyph: 'blocked',
        title: `Picture of ${sku} could not be fetched`,
        detail: `${why}: ${url}`.slice(0, 290),
        document: sku,
      }),
    );
  }
}
