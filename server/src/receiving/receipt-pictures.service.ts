import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { pictureOf } from '../catalogue/index.js';
import { type Act, CommandLog, mustBeAt, notFound, one, type Person } from '../platform/index.js';

/** Pictures of goods that came in damaged or wrong, for the supplier and for whoever decides about them. */
@Injectable()
export class ReceiptPictures {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
  ) {}

  async keep(act: Act, receiptId: number, bytes: Buffer): Promise<void> {
    const { large } = await pictureOf(bytes);
    const mark = createHash('sha256').update(large).digest('hex').slice(0, 12);
    await this.commands.run(act, 'receipt.picture', { receiptId, mark }, async (tx) => {
      const receipt = await one<{ siteId: number }>(
        tx,
        'SELECT a.site_id AS siteId FROM receipt r JOIN arrival a ON a.id = r.arrival_id WHERE r.id = ? FOR UPDATE',
        [receiptId],
      );
      if (!receipt) throw notFound('That receipt');
      mustBeAt(act.person, receipt.siteId);
      await tx.query('REPLACE INTO receipt_picture (receipt_id, type, picture) VALUES (?, ?, ?)', [receiptId, 'image/webp', large]);
    });
  }

  async read(person: Person, receiptId: number): Promise<{ type: string; bytes: Buffer }> {
    const found = await one<{ type: string; bytes: Buffer }>(
      this.source,
      'SELECT p.type, p.picture AS bytes FROM receipt_picture p JOIN receipt r ON r.id = p.receipt_id JOIN arrival a ON a.id = r.arrival_id WHERE r.id = ? AND a.site_id IN (?)',
      [receiptId, [0, ...person.siteIds]],
    );
    if (!found) throw notFound('A picture of that receipt');
    return found;
  }
}
