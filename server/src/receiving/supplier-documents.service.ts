import { Injectable } from '@nestjs/common';
import { createHash } from 'node:crypto';
import { DataSource } from 'typeorm';
import {
  type Act,
  badForm,
  CommandLog,
  Fault,
  insert,
  inTransaction,
  one,
  Problem,
  signatureMatches,
  task,
  type Tx,
  Work,
} from '../platform/index.js';
import { AnswersService } from '../purchasing/index.js';
import { type readSupplierDocument, type SupplierDocument, XmlFault } from '../ubl/index.js';
import { AnnouncementsService } from './announcements.service.js';
import type { TakenDocumentDto } from './receiving.dto.js';
import { UnreadDocuments } from './unread-documents.service.js';

const DOCUMENT = task<typeof readSupplierDocument>(
  'ubl/readSupplierDocument',
  10_000,
  'This document takes too long to read. Send it in parts',
);

interface Taken {
  supplierId: number;
  code: string;
  says: string;
}

/** Takes in what suppliers send as UBL 2.1: answers to orders, and advices of what is on its way. Each is taken once. */
@Injectable()
export class SupplierDocuments {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly answers: AnswersService,
    private readonly announcements: AnnouncementsService,
    private readonly work: Work,
    private readonly unread: UnreadDocuments,
  ) {}

  /** Takes in once more, as it came, what could not be taken in before. */
  async takeUnread(act: Act, id: number, version: number): Promise<void> {
    const bytes = await this.unread.bytes(id);
    const document = await this.read(bytes);
    await this.commands.run(act, 'unread-document.take-in', { id, version }, async (tx) => {
      const kept = await this.unread.waiting(tx, id, version);
      const done = await this.byKind(tx, act, document);
      if (done.supplierId !== kept.supplier_id) throw badForm({ document: `${done.code} is not an order of theirs` });
      await this.keep(tx, act, document, done, bytes);
      await this.unread.settle(tx, act, kept, 'taken-in', `${done.code}: ${done.says}`);
    });
  }

  async take(act: Act, bytes: Buffer): Promise<TakenDocumentDto> {
    const document = await this.read(bytes);
    const mark = createHash('sha256').update(bytes).digest('hex');
    return this.commands.run(act, 'supplier-document', { mark }, async (tx) => {
      const done = await this.byKind(tx, act, document);
      await this.keep(tx, act, document, done, bytes);
      return { kind: document.kind, code: done.code, says: done.says };
    });
  }

  /**
   * Takes in what a supplier's own system sends: the signature over the body, made with the key it was given, stands for a
   * sign-in. It speaks for its own orders alone. The same document again is answered as the first time.
   */
  async fromSupplier(code: string, bytes: Buffer, signature: string): Promise<TakenDocumentDto> {
    const supplier = await one<{ id: number; name: string; key: string | null }>(
      this.source,
      'SELECT id, name, document_key AS `key` FROM supplier WHERE code = ?',
      [code],
    );
    if (!supplier?.key || !signatureMatches(supplier.key, bytes, signature))
      throw new Problem(401, 'signature', 'The signature does not match the document');
    try {
      return await this.fromKnown(supplier.id, bytes);
    } catch (thrown) {
      // The sender is told, and so is the house: whoever waits for the answer would not know that it came.
      if (thrown instanceof Problem && thrown.status < 500) await this.unread.keep(supplier, bytes, thrown.detail);
      throw thrown;
    }
  }

  private async fromKnown(supplierId: number, bytes: Buffer): Promise<TakenDocumentDto> {
    const document = await this.read(bytes);
    return inTransaction(this.source, async (tx) => {
      const known = await this.kept(tx, supplierId, document);
      if (known?.document.equals(bytes)) return { kind: document.kind, code: known.code, says: known.says };
      const done = await this.byKind(tx, null, document);
      if (done.supplierId !== supplierId) throw badForm({ document: `${done.code} is not an order of yours` });
      await this.keep(tx, null, document, done, bytes);
      return { kind: document.kind, code: done.code, says: done.says };
    });
  }

  private read(bytes: Buffer): Promise<SupplierDocument> {
    return this.work.run(DOCUMENT, bytes).catch((thrown: unknown) => {
      throw told(thrown);
    });
  }

  private kept(
    tx: Tx,
    supplierId: number,
    document: SupplierDocument,
  ): Promise<{ code: string; says: string; document: Buffer } | undefined> {
    return one(tx, 'SELECT concerns AS code, says, document FROM supplier_document WHERE supplier_id = ? AND kind = ? AND ref = ?', [
      supplierId,
      document.kind,
      document.ref,
    ]);
  }

  private async byKind(tx: Tx, act: Act | null, document: SupplierDocument): Promise<Taken> {
    try {
      if (document.response) return await this.answers.take(tx, act, document.response);
      if (document.advice) return await this.announcements.take(tx, act, document.advice);
    } catch (thrown) {
      throw told(thrown);
    }
    throw badForm({ document: `${document.kind} is not taken in here. An OrderResponse or a DespatchAdvice is` });
  }

  private async keep(tx: Tx, act: Act | null, document: SupplierDocument, done: Taken, bytes: Buffer): Promise<void> {
    const { ref } = document;
    if (await this.kept(tx, done.supplierId, document))
      throw new Problem(409, 'state', `${ref} was taken in before. A new document needs a number of its own`);
    await insert(tx, 'supplier_document', {
      supplier_id: done.supplierId,
      kind: document.kind,
      ref,
      concerns: done.code,
      says: done.says.slice(0, 200),
      document: bytes,
      person_id: act?.person.id ?? null,
    });
  }
}

const told = (thrown: unknown) =>
  thrown instanceof XmlFault || (thrown instanceof Fault && thrown.of === 'XmlFault') ? badForm({ document: thrown.message }) : thrown;
