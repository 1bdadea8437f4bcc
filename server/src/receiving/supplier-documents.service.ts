import { Injectable } from '@nestjs/common';
import { createHash } from 'node:crypto';
import type { Act } from '../platform/act.js';
import { CommandLog } from '../platform/command-log.js';
import { one, type Tx } from '../platform/database/tx.js';
import { badForm, Problem } from '../platform/problem.js';
import { AnswersService } from '../purchasing/answers.service.js';
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
    private readonly commands: CommandLog,
    private readonly answers: AnswersService,
    private readonly announcements: AnnouncementsService,
  ) {}

  async take(act: Act, bytes: Buffer): Promise<TakenDocumentDto> {
    const root = rootOf(bytes);
    const mark = createHash('sha256').update(bytes).digest('hex');
    return this.commands.run(act, 'supplier-document', { mark }, async (tx) => {
      const ref = root.children.find((c) => c.name === 'cbc:ID')?.text.slice(0, 60) ?? '';
      const done = await this.byKind(tx, act, root);
      await this.keep(tx, act, root.name, ref, done, bytes);
      return { kind: root.name, code: done.code, says: done.says };
    });
  }

  private async byKind(tx: Tx, act: Act, root: XmlElement): Promise<Taken> {
    try {
      if (root.name === 'OrderResponse') return await this.answers.take(tx, act, readOrderResponse(root));
      if (root.name === 'DespatchAdvice') return await this.announcements.take(tx, act, readDespatchAdvice(root));
    } catch (thrown) {
      throw told(thrown);
    }
    throw badForm({ document: `${root.name} is not taken in here. An OrderResponse or a DespatchAdvice is` });
  }

  private async keep(tx: Tx, act: Act, kind: string, ref: string, done: Taken, bytes: Buffer): Promise<void> {
    const before = await one<{ at: Date }>(tx, 'SELECT at FROM supplier_document WHERE supplier_id = ? AND kind = ? AND ref = ?', [
      done.supplierId,
      kind,
      ref,
    ]);
    if (before) throw new Problem(409, 'state', `${ref} was taken in before. A new document needs a number of its own`);
    await tx.query(
      'INSERT INTO supplier_document (supplier_id, kind, ref, concerns, says, document, person_id) VALUES (?, ?, ?, ?, ?, ?, ?)',
      [done.supplierId, kind, ref, done.code, done.says.slice(0, 200), bytes, act.person.id],
    );
  }
}

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
