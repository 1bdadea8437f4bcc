import { Injectable } from '@nestjs/common';
import { type Act, insert, type Tx } from '../platform/index.js';

import type { ActivityKind } from './topics.js';

export type Glyph = 'full' | 'half' | 'held' | 'blocked' | 'empty' | 'fb-wrong' | 'fb-many' | 'fb-unknown' | 'undo' | 'print' | 'go';

/** One line of the tape. */
export interface Entry {
  kind: ActivityKind;
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
    const done = await insert(tx, 'activity', {
      device_at: act?.deviceAt ?? null,
      person_id: act?.person.id ?? null,
      device_id: act?.deviceId ?? null,
      site_id: entry.siteId ?? null,
      command_id: act?.key ?? null,
      kind: entry.kind,
      glyph: entry.glyph,
      title: entry.title.slice(0, 200),
      detail: (entry.detail ?? '').slice(0, 300),
      document: entry.document ?? null,
      how: entry.how ?? null,
      undo_data: entry.undo ? JSON.stringify(entry.undo) : null,
    });
    return done;
  }
}
