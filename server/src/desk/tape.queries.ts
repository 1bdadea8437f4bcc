import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { num, one, rows, siteDays } from '../platform/index.js';
import { type Topic, topicsOf } from '../activity/index.js';
import type { TapeDto, TapeEntryDto } from './desk.dto.js';

/** A new line of the tape, what its act has changed, and the site that it concerns; null for the whole house. */
export interface LiveLine {
  entry: TapeEntryDto;
  changed: readonly Topic[];
  siteId: number | null;
}

const FIELDS = `a.id, a.at, COALESCE(p.name, 'Vectrum') AS who, a.kind, a.glyph, a.title, a.detail, a.document, a.how,
  a.undo_data IS NOT NULL AND a.undone_by IS NULL AS undoable, a.undone_by IS NOT NULL AS undone,
  (SELECT x.command_id FROM act_picture x WHERE x.command_id = a.command_id) AS picture`;

interface Row extends Omit<TapeEntryDto, 'undoable' | 'undone'> {
  undoable: number;
  undone: number;
}

const entry = (row: Row): TapeEntryDto => ({
  ...row,
  undoable: num(row.undoable) === 1,
  undone: num(row.undone) === 1,
});

/** Reads the tape, newest first. */
@Injectable()
export class TapeQueries {
  constructor(private readonly source: DataSource) {}

  async newest(
    siteIds: readonly number[],
    filter: { document?: string; mine?: number; kinds?: readonly string[]; limit: number },
  ): Promise<TapeDto> {
    const where = ['(a.site_id IS NULL OR a.site_id IN (?))'];
    const params: unknown[] = [[0, ...siteIds]];
    if (filter.document) {
      where.push('a.document = ?');
      params.push(filter.document);
    }
    if (filter.mine) {
      where.push('a.person_id = ?');
      params.push(filter.mine);
    }
    if (filter.kinds) {
      where.push('a.kind IN (?)');
      params.push(filter.kinds);
    }
    const found = await rows<Row>(
      this.source,
      `SELECT ${FIELDS} FROM activity a LEFT JOIN person p ON p.id = a.person_id WHERE ${where.join(' AND ')} ORDER BY a.id DESC LIMIT ?`,
      [...params, filter.limit],
    );
    const today = await one<{ n: string }>(
      this.source,
      `SELECT COUNT(*) AS n FROM activity WHERE at >= ${(await siteDays(this.source)).begins('site_id')} AND at > UTC_TIMESTAMP() - INTERVAL 2 DAY AND how IS NOT NULL AND (site_id IS NULL OR site_id IN (?))`,
      [[0, ...siteIds]],
    );
    return { entries: found.map(entry), scansToday: num(today?.n) };
  }

  /**
   * Lines with ids above `after`, and any of the last few below it that were committed late: ids are given out before
   * transactions end, so a lower id may appear after a higher one.
   */
  async since(after: number, lookBack: number): Promise<LiveLine[]> {
    const found = await rows<Row & { siteId: number | null; undid: string | null }>(
      this.source,
      `SELECT ${FIELDS}, a.site_id AS siteId, IF(a.kind = 'undo', (SELECT u.kind FROM activity u WHERE u.undone_by = a.id LIMIT 1), NULL) AS undid FROM activity a LEFT JOIN person p ON p.id = a.person_id WHERE a.id > ? ORDER BY a.id LIMIT 500`,
      [Math.max(0, after - lookBack)],
    );
    return found.map(({ siteId, undid, ...row }) => ({ siteId, entry: entry(row), changed: topicsOf(undid ?? row.kind) }));
  }

  async lastId(): Promise<number> {
    return num((await one<{ id: number | null }>(this.source, 'SELECT MAX(id) AS id FROM activity'))?.id);
  }
}
