import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  insert,
  mustBeAt,
  notFound,
  num,
  one,
  type Person,
  Problem,
  remove,
  rows,
  type Tx,
} from '../platform/index.js';
import type { OrderFileDto } from './purchasing.dto.js';

export const MOST_FILE_BYTES = 10 * 1024 * 1024;
const MOST_FILES = 20;
const MOST_NAME = 120;

interface FileRow {
  id: number;
  order: string;
  siteId: number;
  name: string;
}

/** Files kept with a purchase order: quotations, drawings, certificates. They are handed out as they came, never opened here. */
@Injectable()
export class OrderFiles {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
  ) {}

  list(orderId: number): Promise<OrderFileDto[]> {
    return rows<OrderFileDto>(
      this.source,
      'SELECT f.id, f.name, f.bytes, p.name AS `by`, f.at FROM purchase_order_file f JOIN person p ON p.id = f.person_id WHERE f.order_id = ? ORDER BY f.id',
      [orderId],
    );
  }

  add(act: Act, code: string, given: string, content: Buffer): Promise<{ id: number }> {
    const name = plainName(given);
    if (content.length === 0) throw badForm({ file: 'This file is empty. Choose another' });
    return this.commands.run(
      act,
      'purchase-order.file',
      { code, name, content: createHash('sha256').update(content).digest('hex') },
      async (tx) => {
        const order = await this.order(tx, act, code);
        const kept = await one<{ n: string }>(tx, 'SELECT COUNT(*) AS n FROM purchase_order_file WHERE order_id = ?', [order.id]);
        if (num(kept?.n) >= MOST_FILES) throw badState(`${code} holds ${MOST_FILES} files already. Take one away first`);
        const made = await insert(tx, 'purchase_order_file', {
          order_id: order.id,
          name,
          bytes: content.length,
          content,
          person_id: act.person.id,
        });
        await this.tell(tx, act, { order: code, siteId: order.siteId, name }, 'full', 'kept with');
        return { id: made };
      },
    );
  }

  /** Quotations hold prices: files are for those who may see costs. */
  async read(person: Person, id: number): Promise<{ name: string; content: Buffer }> {
    const found = await one<FileRow & { content: Buffer }>(
      this.source,
      'SELECT f.id, f.name, f.content, o.code AS `order`, o.site_id AS siteId FROM purchase_order_file f JOIN purchase_order o ON o.id = f.order_id WHERE f.id = ?',
      [id],
    );
    if (!found) throw notFound('That file');
    mustBeAt(person, found.siteId);
    if (!person.seesCosts) throw new Problem(403, 'not-allowed', 'Files of an order may hold prices. Ask somebody who may see costs');
    return found;
  }

  remove(act: Act, id: number): Promise<void> {
    return this.commands.run(act, 'purchase-order.file-remove', { id }, async (tx) => {
      const found = await one<FileRow>(
        tx,
        'SELECT f.id, f.name, o.code AS `order`, o.site_id AS siteId FROM purchase_order_file f JOIN purchase_order o ON o.id = f.order_id WHERE f.id = ? FOR UPDATE',
        [id],
      );
      if (!found) throw notFound('That file');
      mustBeAt(act.person, found.siteId);
      await remove(tx, 'purchase_order_file', { id });
      await this.tell(tx, act, found, 'empty', 'taken from');
    });
  }

  private async order(tx: Tx, act: Act, code: string): Promise<{ id: number; siteId: number }> {
    const found = await one<{ id: number; siteId: number }>(
      tx,
      'SELECT id, site_id AS siteId FROM purchase_order WHERE code = ? FOR UPDATE',
      [code],
    );
    if (!found) throw notFound(`Purchase order ${code}`);
    mustBeAt(act.person, found.siteId);
    return found;
  }

  private tell(tx: Tx, act: Act, file: Omit<FileRow, 'id'>, glyph: 'full' | 'empty', says: string): Promise<number> {
    return this.activity.record(tx, act, {
      kind: 'purchase-order',
      glyph,
      title: `${file.name} ${says} ${file.order}`,
      document: file.order,
      siteId: file.siteId,
    });
  }
}

/** The last part of a path, without what would break a header or a folder. */
function plainName(given: string): string {
  const name = (given.split(/[/\\]/).at(-1) ?? '')
    .replace(/[\p{C}"<>:|?*]/gu, '')
    .trim()
    .slice(-MOST_NAME);
  if (name === '' || /^\.+$/.test(name)) throw badForm({ file: 'Give the file a name' });
  return name;
}
