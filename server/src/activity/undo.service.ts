import { Injectable } from '@nestjs/common';
import { type Act, CommandLog, mustBeAt, notFound, one, parsed, Problem, type Tx, update } from '../platform/index.js';
import { ActivityService } from './activity.service.js';

export type UndoWork = (tx: Tx, act: Act, payload: Record<string, unknown>) => Promise<void>;

interface Undoable {
  id: number;
  kind: string;
  title: string;
  document: string | null;
  site_id: number | null;
  person_id: number | null;
  undo_data: string | Record<string, unknown> | null;
  undone_by: number | null;
}

/** Takes an act back by an opposite one. Each module says how its own acts are taken back. */
@Injectable()
export class UndoService {
  private readonly works = new Map<string, { right: string; work: UndoWork }>();

  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  /** `right` is what the undoing person must have, unless the act was their own. */
  register(kind: string, right: string, work: UndoWork): void {
    this.works.set(kind, { right, work });
  }

  undo(act: Act, activityId: number): Promise<{ title: string }> {
    return this.commands.run(act, 'tape.undo', { activityId }, async (tx) => {
      const entry = await one<Undoable>(tx, 'SELECT * FROM activity WHERE id = ? FOR UPDATE', [activityId]);
      if (!entry) throw notFound('That line of the tape');
      if (entry.site_id) mustBeAt(act.person, entry.site_id);
      const known = this.works.get(entry.kind);
      if (!known || !entry.undo_data) throw new Problem(409, 'undo', 'This cannot be undone here');
      if (entry.undone_by) throw new Problem(409, 'undo', 'This was undone already');
      if (!act.person.rights.has(known.right)) throw new Problem(403, 'not-allowed', `Undoing this needs the duty of ${known.right}`);
      await known.work(tx, act, parsed<Record<string, unknown>>(entry.undo_data));
      const undoneBy = await this.activity.record(tx, act, {
        kind: 'undo',
        glyph: 'undo',
        title: `Undone: ${entry.title}`,
        document: entry.document,
        siteId: entry.site_id,
      });
      await update(tx, 'activity', { id: activityId }, { undone_by: undoneBy });
      return { title: entry.title };
    });
  }
}
