import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { pictureOf } from '../catalogue/index.js';
import { type Act, badState, CommandLog, mustBeAt, notFound, one, type Person } from '../platform/index.js';

/** Pictures of what lies in a parcel before it is closed, for the order desk where a customer says that something was missing. */
@Injectable()
export class ParcelPictures {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
  ) {}

  /** Keeps the picture of a parcel; one that it had is replaced, until it has left. */
  async keep(act: Act, code: string, bytes: Buffer): Promise<void> {
    const { large } = await pictureOf(bytes);
    const mark = createHash('sha256').update(large).digest('hex').slice(0, 12);
    await this.commands.run(act, 'parcel.picture', { code, mark }, async (tx) => {
      const parcel = await one<{ id: number; state: string; siteId: number }>(
        tx,
        'SELECT p.id, p.state, w.site_id AS siteId FROM parcel p JOIN place w ON w.id = p.place_id WHERE p.code = ? FOR UPDATE',
        [code],
      );
      if (!parcel) throw notFound(`Parcel ${code}`);
      mustBeAt(act.person, parcel.siteId);
      if (parcel.state === 'gone' || parcel.state === 'void')
        throw badState(`${code} stands here no more. It keeps the picture that it has`);
      await tx.query('REPLACE INTO parcel_picture (parcel_id, type, picture) VALUES (?, ?, ?)', [parcel.id, 'image/webp', large]);
    });
  }

  async read(person: Person, code: string): Promise<{ type: string; bytes: Buffer }> {
    const found = await one<{ type: string; bytes: Buffer }>(
      this.source,
      'SELECT x.type, x.picture AS bytes FROM parcel_picture x JOIN parcel p ON p.id = x.parcel_id JOIN place w ON w.id = p.place_id WHERE p.code = ? AND w.site_id IN (?)',
      [code, [0, ...person.siteIds]],
    );
    if (!found) throw notFound(`A picture of parcel ${code}`);
    return found;
  }
}
