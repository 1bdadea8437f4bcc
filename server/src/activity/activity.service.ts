import { Injectable } from '@nestjs/common';
import type { Act, Tx } from '../platform/index.js';

export type Glyph = 'full' | 'half' | 'held' | 'blocked' | 'empty' | 'fb-wrong' | 'fb-many' | 'fb-unknown' | 'undo' | 'print' | 'go';

/** One line of the tape. */
export interface Entry {
  kind: string;
  glyph: Glyph;
  title: string;
  detail?: string;
  document?: string | null;
  siteId?: number | null;
  how?: string | null;
  /** What the undoing of this act needs; absent where it cannot be undone. */
  undo?: Record<string, unknown>;
}

/** Writes the tape: who did what, when, where and how, in the transaction that did it. */
@Injectable()
export class ActivityService {
  async record(tx: Tx, act: Act | null, entry: Entry): Promise<number> {
    const done = await tx.query<{ insertId: number }>(
      `INSERT INTO activity (device_at, person_id, device_id, site_id, command_id, kind, glyph, title, detail, document, how, undo_data) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      [
        act?.deviceAt ?? null,
        act?.person.id ?? null,
        act?.deviceId ?? null,
        entry.siteId ?? null,
        act?.key ?? null,
        entry.kind,
        entry.glyph,
        entry.title.slice(0, 200),
        (entry.detail ?? '').slice(0, 300),
        entry.document ?? null,
        entry.how ?? null,
        entry.undo ? JSON.stringify(entry.undo) : null,
      ],
    );
    return done.insertId;
  }
}
