import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badState,
  CommandLog,
  countOf,
  find,
  inTransaction,
  mustMatch,
  NEXT,
  notFound,
  NOW,
  one,
  pageOf,
  type Row,
  type Tx,
  update,
  type Window,
} from '../platform/index.js';
import type { UnreadDocumentDto, UnreadDocumentPageDto, UnreadDocumentRowDto } from './unread-documents.dto.js';

const FIELDS = 'd.id, s.code AS supplierCode, s.name AS supplier, d.came_at AS cameAt, d.why, d.state';
const FROM = 'FROM unread_document d JOIN supplier s ON s.id = d.supplier_id';

/**
 * Documents that a supplier's own system sent with its signature, and that could not be taken in. The sender is told at once;
 * here they wait for a buyer, who takes them in once what stood in the way is gone, or sets them aside.
 */
@Injectable()
export class UnreadDocuments {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  /** Keeps a document with what is against it. The same bytes are kept once, however often they come. */
  async keep(supplier: { id: number; name: string }, bytes: Buffer, why: string): Promise<void> {
    await inTransaction(this.source, async (tx) => {
      const hash = createHash('sha256').update(bytes).digest('hex');
      const known = await one(tx, 'SELECT id FROM unread_document WHERE supplier_id = ? AND hash = ?', [supplier.id, hash]);
      await tx.query(
        `INSERT INTO unread_document (supplier_id, hash, document, why) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE why = VALUES(why), came_at = UTC_TIMESTAMP(3)`,
        [supplier.id, hash, bytes, why.slice(0, 300)],
      );
      if (!known)
        await this.activity.record(tx, null, {
          kind: 'unread-document',
          glyph: 'blocked',
          title: `A document of ${supplier.name} cannot be taken in`,
          detail: why.slice(0, 200),
        });
    });
  }

  /** Those that wait, the oldest first, then the newest of the settled. */
  async list(window: Window): Promise<UnreadDocumentPageDto> {
    const list = { select: FIELDS, from: FROM, params: [], order: `d.state <> 'waiting', IF(d.state = 'waiting', d.id, 0), d.id DESC` };
    const [page, waiting] = await Promise.all([
      pageOf<UnreadDocumentRowDto>(this.source, list, window),
      countOf(this.source, { from: `${FROM} WHERE d.state = 'waiting'`, params: [] }),
    ]);
    return { ...page, waiting };
  }

  async sheet(id: number): Promise<UnreadDocumentDto> {
    const found = await one<Omit<UnreadDocumentDto, 'text'> & { document: Buffer }>(
      this.source,
      `SELECT ${FIELDS}, d.document, d.settled_why AS settledWhy, d.settled_at AS settledAt, p.name AS settledBy, d.version ${FROM} LEFT JOIN person p ON p.id = d.settled_by WHERE d.id = ?`,
      [id],
    );
    if (!found) throw notFound('That document');
    const { document, ...rest } = found;
    return { ...rest, text: new TextDecoder('utf-8').decode(document) };
  }

  async bytes(id: number): Promise<Buffer> {
    const found = await find(this.source, 'unread_document', { id });
    if (!found) throw notFound('That document');
    return found.document;
  }

  setAside(act: Act, id: number, version: number, why: string): Promise<void> {
    return this.commands.run(act, 'unread-document.set-aside', { id, version, why }, async (tx) => {
      await this.settle(tx, act, await this.waiting(tx, id, version), 'set-aside', why.trim());
    });
  }

  /** A document that waits still, held so that nobody else settles it meanwhile. */
  async waiting(tx: Tx, id: number, version: number): Promise<Row<'unread_document'>> {
    const kept = await find(tx, 'unread_document', { id }, 'lock');
    if (!kept) throw notFound('That document');
    mustMatch(kept.version, version);
    if (kept.state !== 'waiting') throw badState('That document is settled already');
    return kept;
  }

  async settle(tx: Tx, act: Act, kept: Row<'unread_document'>, state: 'set-aside' | 'taken-in', why: string): Promise<void> {
    await update(
      tx,
      'unread_document',
      { id: kept.id },
      { state, settled_by: act.person.id, settled_at: NOW, settled_why: why.slice(0, 200), version: NEXT },
    );
    await this.activity.record(tx, act, {
      kind: 'unread-document',
      glyph: state === 'taken-in' ? 'full' : 'held',
      title: state === 'taken-in' ? 'A document that could not be read was taken in' : 'A document that cannot be read was set aside',
      detail: why.slice(0, 200),
    });
  }
}
