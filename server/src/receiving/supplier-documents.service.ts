import { Injectable } from '@nestjs/common';
import { createHash } from 'node:crypto';
import { DataSource } from 'typeorm';
import { type Act, badForm, CommandLog, insert, inTransaction, one, Problem, signatureMatches, type Tx } from '../platform/index.js';
import { AnswersService } from '../purchasing/index.js';
import { readDespatchAdvice, readOrderResponse, readXml, structureFaults, XmlFault, type XmlElement } from '../ubl/index.js';
import { AnnouncementsService } from './announcements.service.js';
import type { TakenDocumentDto } from './receiving.dto.js';

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
  ) {}

  async take(act: Act, bytes: Buffer): Promise<TakenDocumentDto> {
    const root = rootOf(bytes);
    const mark = createHash('sha256').update(bytes).digest('hex');
    return this.commands.run(act, 'supplier-document', { mark }, async (tx) => {
      const done = await this.byKind(tx, act, root);
      await this.keep(tx, act, root, done, bytes);
      return { kind: root.name, code: done.code, says: done.says };
    });
  }

  /**
   * Takes in what a supplier's own system sends: the signature over the body, made with the key it was given, stands for a
   * sign-in. It speaks for its own orders alone. The same document again is answered as the first time.
   */
  async fromSupplier(code: string, bytes: Buffer, signature: string): Promise<TakenDocumentDto> {
    const supplier = await one<{ id: number; key: string | null }>(
      this.source,
      'SELECT id, document_key AS `key` FROM supplier WHERE code = ?',
      [code],
    );
    if (!supplier?.key || !signatureMatches(supplier.key, bytes, signature))
      throw new Problem(401, 'signature', 'The signature does not match the document');
    const root = rootOf(bytes);
    return inTransaction(this.source, async (tx) => {
      const known = await this.kept(tx, supplier.id, root);
      if (known?.document.equals(bytes)) return { kind: root.name, code: known.code, says: known.says };
      const done = await this.byKind(tx, null, root);
      if (done.supplierId !== supplier.id) throw badForm({ document: `${done.code} is not an order of yours` });
      await this.keep(tx, null, root, done, bytes);
      return { kind: root.name, code: done.code, says: done.says };
    });
  }

  private kept(tx: Tx, supplierId: number, root: XmlElement): Promise<{ code: string; says: string; document: Buffer } | undefined> {
    return one(tx, 'SELECT concerns AS code, says, document FROM supplier_document WHERE supplier_id = ? AND kind = ? AND ref = ?', [
      supplierId,
      root.name,
      refOf(root),
    ]);
  }

  private async byKind(tx: Tx, act: Act | null, root: XmlElement): Promise<Taken> {
    try {
      if (root.name === 'OrderResponse') return await this.answers.take(tx, act, readOrderResponse(root));
      if (root.name === 'DespatchAdvice') return await this.announcements.take(tx, act, readDespatchAdvice(root));
    } catch (thrown) {
      throw told(thrown);
    }
    throw badForm({ document: `${root.name} is not taken in here. An OrderResponse or a DespatchAdvice is` });
  }

  private async keep(tx: Tx, act: Act | null, root: XmlElement, done: Taken, bytes: Buffer): Promise<void> {
    const ref = refOf(root);
    if (await this.kept(tx, done.supplierId, root))
      throw new Problem(409, 'state', `${ref} was taken in before. A new document needs a number of its own`);
    await insert(tx, 'supplier_document', {
      supplier_id: done.supplierId,
      kind: root.name,
      ref,
      concerns: done.code,
      says: done.says.slice(0, 200),
      document: bytes,
      person_id: act?.person.id ?? null,
    });
  }
}

/** The number that its sender gave the document. */
const refOf = (root: XmlElement) => root.children.find((c) => c.name === 'cbc:ID')?.text.slice(0, 60) ?? '';

function rootOf(bytes: Buffer): XmlElement {
  try {
    const root = readXml(bytes);
    const faults = structureFaults(root);
    if (faults.length > 0) throw new XmlFault(`This is not UBL 2.1: ${faults.slice(0, 3).join('; ')}`);
    return root;
  } catch (thrown) {
    throw told(thrown);
  }
}

const told = (thrown: unknown) => (thrown instanceof XmlFault ? badForm({ document: thrown.message }) : thrown);
