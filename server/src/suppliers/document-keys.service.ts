import { randomBytes } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import { type Act, CommandLog, notFound, one, update } from '../platform/index.js';

const KEY_BYTES = 24;

/** Keys with which suppliers' own systems sign the documents that they send. */
@Injectable()
export class DocumentKeys {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  /** Gives a supplier a new key; the one before is void from then on. */
  give(act: Act, code: string): Promise<{ key: string }> {
    return this.commands.run(act, 'supplier.document-key', { code }, async (tx) => {
      const found = await one<{ id: number; name: string }>(tx, 'SELECT id, name FROM supplier WHERE code = ? FOR UPDATE', [code]);
      if (!found) throw notFound(`Supplier ${code}`);
      const key = randomBytes(KEY_BYTES).toString('base64url');
      await update(tx, 'supplier', { id: found.id }, { document_key: key });
      await this.activity.record(tx, act, {
        kind: 'supplier',
        glyph: 'full',
        title: `${found.name} can send documents by its own system`,
        detail: 'a new key was given out',
        document: code,
      });
      return { key };
    });
  }
}
