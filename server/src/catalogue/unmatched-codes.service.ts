import { Injectable } from '@nestjs/common';
import { type How, resolve } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badState,
  CommandLog,
  dayIn,
  find,
  mustBeAt,
  notFound,
  NOW,
  pageOf,
  type Row,
  type Tx,
  update,
  type Window,
} from '../platform/index.js';
import { keyOfCode } from './code-key.js';
import { ItemsService } from './items.service.js';
import type { MatchCodeDto, UnmatchedCodePageDto } from './unmatched-codes.dto.js';

/** As long as a barcode may be. What is longer is none that could be tied. */
const MOST_CODE = 60;
/** Of `unmatched_code u`: what was not set aside, and is no barcode's, SKU's or place's. What was tied meanwhile is left out by itself. */
export const IS_UNMATCHED = `u.aside_at IS NULL AND NOT EXISTS (SELECT 1 FROM barcode b WHERE b.code = u.code)
  AND NOT EXISTS (SELECT 1 FROM item i WHERE i.sku = u.code) AND NOT EXISTS (SELECT 1 FROM place q WHERE q.code = u.code)`;

/** As many digits as a number of goods has at least; fewer are typed by mistake. */
const TYPED_CODE = /^\d{8,14}$/;

/** Codes that the floor left for the office: each is tied to goods once for all, or set aside for good. */
@Injectable()
export class UnmatchedCodes {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly items: ItemsService,
  ) {}

  /** Keeps a code that a scan was refused for, one row a code and site. What is damaged, a pallet's, a command or words could not be tied. */
  async note(tx: Tx, act: Act, scan: { code: string; how: How; siteId: number; document: string | null }): Promise<void> {
    const known = resolve(scan.code, { today: dayIn('UTC', new Date()), codes: {}, items: {}, places: {} });
    const code = keyOfCode(scan.code);
    if (known.kind !== 'unknown' || code === '' || code.length > MOST_CODE || (scan.how === 'typed' && !TYPED_CODE.test(code))) return;
    await tx.query(
      `INSERT INTO unmatched_code (site_id, code, last_by, document) VALUES (?, ?, ?, ?)
       ON DUPLICATE KEY UPDATE times = times + 1, last_at = UTC_TIMESTAMP(3), last_by = VALUES(last_by), document = VALUES(document)`,
      [scan.siteId, code, act.person.id, scan.document],
    );
  }

  /** Those that wait, the most often scanned first. */
  list(siteIds: readonly number[], window: Window): Promise<UnmatchedCodePageDto> {
    const select = 'u.id, u.code, s.name AS site, u.times, u.first_at AS firstAt, u.last_at AS lastAt, p.name AS lastBy, u.document';
    const from = `FROM unmatched_code u JOIN site s ON s.id = u.site_id JOIN person p ON p.id = u.last_by WHERE ${IS_UNMATCHED} AND u.site_id IN (?)`;
    return pageOf(this.source, { select, from, params: [[0, ...siteIds]], order: 'u.times DESC, u.last_at DESC, u.id' }, window);
  }

  /** Ties it to a pack of an item. */
  match(act: Act, id: number, input: MatchCodeDto): Promise<{ code: string }> {
    return this.commands.run(act, 'unmatched-code.match', { id, input }, async (tx) => {
      const { code } = await this.waiting(tx, act, id);
      await this.items.tie(tx, act, input.sku, { factor: input.factor, code });
      return { code: input.sku };
    });
  }

  /** Says that it is on nothing that the house keeps. Scanned again, it is refused again, and no longer asked about. */
  setAside(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'unmatched-code.set-aside', { id }, async (tx) => {
      const { code, site_id: siteId } = await this.waiting(tx, act, id);
      await update(tx, 'unmatched_code', { id }, { aside_at: NOW, aside_by: act.person.id });
      await this.activity.record(tx, act, {
        kind: 'barcode',
        glyph: 'held',
        title: `${code} set aside`,
        detail: 'on nothing that the house keeps',
        siteId,
      });
    });
  }

  private async waiting(tx: Tx, act: Act, id: number): Promise<Row<'unmatched_code'>> {
    const kept = await find(tx, 'unmatched_code', { id }, 'lock');
    if (!kept) throw notFound('That code');
    mustBeAt(act.person, kept.site_id);
    if (kept.aside_at) throw badState(`${kept.code} was set aside already`);
    return kept;
  }
}
