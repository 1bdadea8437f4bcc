import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { pictureOf } from '../catalogue/index.js';
import { type Act, badState, CommandLog, insert, notFound, num, one, type Person } from '../platform/index.js';
import { CustomerReturns } from './customer-returns.service.js';

const MOST = 12;

/** Pictures of goods as they came back, for whoever decides, and for carrier or supplier. */
@Injectable()
export class ReturnPictures {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly returns: CustomerReturns,
  ) {}

  async add(act: Act, code: string, bytes: Buffer): Promise<void> {
    const { large } = await pictureOf(bytes);
    const mark = createHash('sha256').update(large).digest('hex').slice(0, 12);
    await this.commands.run(act, 'customer-return.picture', { code, mark }, async (tx) => {
      const found = await this.returns.locked(tx, act, code);
      const kept = await one<{ n: string }>(tx, 'SELECT COUNT(*) AS n FROM came_back_picture WHERE return_id = ?', [found.id]);
      if (num(kept?.n) >= MOST) throw badState(`${found.code} has ${MOST} pictures. That is all it keeps`);
      await insert(tx, 'came_back_picture', { return_id: found.id, type: 'image/webp', picture: large, person_id: act.person.id });
    });
  }

  async read(person: Person, code: string, id: number): Promise<{ type: string; bytes: Buffer }> {
    const found = await one<{ type: string; bytes: Buffer }>(
      this.source,
      'SELECT x.type, x.picture AS bytes FROM came_back_picture x JOIN customer_return r ON r.id = x.return_id WHERE r.code = ? AND x.id = ? AND r.site_id IN (?)',
      [code.toUpperCase(), id, [0, ...person.siteIds]],
    );
    if (!found) throw notFound(`Picture ${id} of ${code}`);
    return found;
  }
}
