import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { ActivityKind } from '../activity/index.js';
import { pictureOf } from '../catalogue/index.js';
import { type Act, badState, clearByAge, CommandLog, find, mustBeAt, notFound, one, type Person, Retention } from '../platform/index.js';

/** Acts that change what the books say of goods, and that others may ask about. */
const PICTURED: readonly ActivityKind[] = ['move', 'count'];

/** Pictures of what somebody did with goods, beside the reason: for whoever decides on it, or reads the movements later. */
@Injectable()
export class ActPictures {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    retention: Retention,
  ) {
    retention.register({ what: 'pictures of acts', keptFor: 'keepTape', clear: (s, before) => clearByAge(s, 'act_picture', 'at', before) });
  }

  /** Keeps the picture of one's own act; another one replaces it. Throws where the act is somebody else's, or not of goods. */
  async keep(act: Act, activityId: number, bytes: Buffer): Promise<void> {
    const { large } = await pictureOf(bytes);
    const mark = createHash('sha256').update(large).digest('hex').slice(0, 12);
    await this.commands.run(act, 'act.picture', { activityId, mark }, async (tx) => {
      const done = await find(tx, 'activity', { id: activityId });
      if (!done?.site_id || !done.command_id || !PICTURED.includes(done.kind as ActivityKind)) throw notFound('That act with goods');
      mustBeAt(act.person, done.site_id);
      if (done.person_id !== act.person.id) throw badState('Only whoever did it adds a picture to it');
      await tx.query('REPLACE INTO act_picture (command_id, site_id, type, picture) VALUES (?, ?, ?, ?)', [
        done.command_id,
        done.site_id,
        'image/webp',
        large,
      ]);
    });
  }

  async read(person: Person, commandId: string): Promise<{ type: string; bytes: Buffer }> {
    const found = await one<{ type: string; bytes: Buffer }>(
      this.source,
      'SELECT type, picture AS bytes FROM act_picture WHERE command_id = ? AND site_id IN (?)',
      [commandId, [0, ...person.siteIds]],
    );
    if (!found) throw notFound('A picture of that act');
    return found;
  }
}
