import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { notFound, one, rows } from '../platform/index.js';
import type { OrderEventDto } from './order-desk.dto.js';

const MOST = 200;

/** All that happened to an order, newest first: the acts on the tape, and each value that was changed, with who and why. */
@Injectable()
export class HistoryQueries {
  constructor(private readonly source: DataSource) {}

  async of(code: string, siteIds: readonly number[]): Promise<OrderEventDto[]> {
    const order = await one<{ id: number }>(this.source, 'SELECT id FROM sales_order WHERE code = ? AND site_id IN (?)', [
      code,
      [0, ...siteIds],
    ]);
    if (!order) throw notFound(`Order ${code}`);
    const acts = await rows<OrderEventDto>(
      this.source,
      `SELECT a.at, p.name AS who, a.title AS what, a.detail FROM activity a LEFT JOIN person p ON p.id = a.person_id WHERE a.document = ? AND a.kind <> 'refusal' ORDER BY a.id DESC LIMIT ${MOST}`,
      [code],
    );
    const changes = await rows<{
      at: Date;
      who: string | null;
      line: number | null;
      what: string;
      was: string;
      becomes: string;
      why: string;
    }>(
      this.source,
      `SELECT c.at, p.name AS who, c.line, c.what, c.was, c.becomes, c.why FROM sales_order_change c LEFT JOIN person p ON p.id = c.person_id WHERE c.order_id = ? ORDER BY c.id DESC LIMIT ${MOST}`,
      [order.id],
    );
    const said = changes.map((c) => ({
      at: c.at,
      who: c.who,
      what: c.line === null ? capital(c.what) : `Line ${c.line}, ${c.what}`,
      detail: [`${c.was} → ${c.becomes}`, c.why].filter(Boolean).join('. '),
    }));
    return [...acts, ...said].sort((a, b) => b.at.getTime() - a.at.getTime()).slice(0, MOST);
  }
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
