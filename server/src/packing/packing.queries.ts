import { Injectable } from '@nestjs/common';
import type { Bundle, PackTask } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { inSnapshot, num, one, rows, type Tx } from '../platform/database/tx.js';
import { appliedTo } from '../activity/applied.js';
import { notFound } from '../platform/problem.js';
import type { BenchDto, BenchRowDto, CartonDto } from './packing.dto.js';

/** A box is not filled to its last corner: goods rarely tile it. */
const USABLE_PER_CENT = 85;

interface SizedLine {
  units: number;
  weight_g: number | null;
  length_mm: number | null;
  width_mm: number | null;
  height_mm: number | null;
}

export interface BenchOrder {
  id: number;
  code: string;
  site_id: number;
  state: string;
  customer: string;
  note_packer: string | null;
  note_seen_by: number | null;
  tote_id: number | null;
  round_id: number | null;
}

/** Reads what waits to be packed, and the task of one order. */
@Injectable()
export class PackingQueries {
  constructor(private readonly source: DataSource) {}

  async queue(siteIds: readonly number[]): Promise<BenchRowDto[]> {
    const found = await rows<Omit<BenchRowDto, 'pieces' | 'note'> & { pieces: string; note: number }>(
      this.source,
      `SELECT o.code AS \`order\`, o.customer, t.code AS tote, b.code AS \`table\`, o.promised_at AS promisedAt, (o.note_packer IS NOT NULL) AS note, r.finished_at AS since, SUM(l.picked_units - l.packed_units) AS pieces
       FROM sales_order o JOIN pick_round r ON r.order_id = o.id AND r.state = 'set-down' LEFT JOIN place t ON t.id = r.tote_id LEFT JOIN place b ON b.id = t.parent_id JOIN sales_order_line l ON l.order_id = o.id
       WHERE o.state = 'picked' AND o.site_id IN (?) GROUP BY o.id, r.id ORDER BY o.promised_at, o.id LIMIT 200`,
      [[0, ...siteIds]],
    );
    return found.map((o) => ({ ...o, pieces: num(o.pieces), note: num(o.note) === 1 }));
  }

  /** The order behind a scanned docket, order number, tote or parcel. */
  async orderOf(tx: Pick<Tx, 'query'>, code: string): Promise<BenchOrder> {
    const order = await one<BenchOrder>(
      tx,
      `SELECT o.id, o.code, o.site_id, o.state, o.customer, o.note_packer, o.note_seen_by, r.tote_id, r.id AS round_id
       FROM sales_order o LEFT JOIN pick_round r ON r.order_id = o.id AND r.state = 'set-down' LEFT JOIN place t ON t.id = r.tote_id
       WHERE o.code = ? OR t.code = ? OR o.id = (SELECT p.order_id FROM parcel p WHERE p.code = ?) ORDER BY r.id DESC LIMIT 1`,
      [code, code, code],
    );
    if (!order) throw notFound(`${code} holds no order to pack. It`);
    return order;
  }

  /** The task for a bench, as it stands at one moment. */
  bundle(code: string): Promise<PackTask & Bundle & { siteId: number }> {
    return inSnapshot(this.source, async (tx) => {
      const order = await this.orderOf(tx, code);
      return { ...(await this.task(tx, order)), siteId: order.site_id, applied: await appliedTo(tx, [order.code]) };
    });
  }

  async task(tx: Pick<Tx, 'query'>, order: BenchOrder): Promise<PackTask> {
    const lines = await rows<PackTask['lines'][number]>(
      tx,
      'SELECT line, item_id AS itemId, picked_units - shipped_units AS picked, packed_units - shipped_units AS packed FROM sales_order_line WHERE order_id = ? AND item_id IS NOT NULL AND picked_units > shipped_units ORDER BY line',
      [order.id],
    );
    return {
      order: order.code,
      customer: order.customer,
      note: order.note_packer,
      noteSeen: order.note_seen_by !== null,
      lines: lines.map((l) => ({ ...l, picked: num(l.picked), packed: num(l.packed) })),
    };
  }

  async bench(order: BenchOrder): Promise<BenchDto> {
    const head = await one<{ channel: string; promisedAt: Date; tote: string | null }>(
      this.source,
      `SELECT c.name AS channel, o.promised_at AS promisedAt, t.code AS tote FROM sales_order o JOIN channel c ON c.id = o.channel_id LEFT JOIN place t ON t.id = ? WHERE o.id = ?`,
      [order.tote_id, order.id],
    );
    const parcel = await one<{
      code: string;
      state: string;
      tracking: string | null;
      carrier: string | null;
    }>(
      this.source,
      'SELECT p.code, p.state, p.tracking, c.name AS carrier FROM parcel p LEFT JOIN carrier c ON c.id = p.carrier_id WHERE p.order_id = ? ORDER BY p.number DESC LIMIT 1',
      [order.id],
    );
    const sizes = await this.sizes(this.source, order.id);
    return {
      order: order.code,
      customer: order.customer,
      channel: head?.channel ?? '',
      tote: head?.tote ?? null,
      promisedAt: head?.promisedAt ?? new Date(),
      state: order.state,
      parcel: parcel && parcel.state !== 'gone' ? parcel.code : `${order.code}-1`,
      parcelState: parcel?.state ?? 'none',
      cartons: await this.cartons(sizes),
      goodsG: goodsWeight(sizes),
      tracking: parcel?.tracking ?? null,
      carrier: parcel?.carrier ?? null,
    };
  }

  sizes(tx: Pick<Tx, 'query'>, orderId: number): Promise<SizedLine[]> {
    return rows<SizedLine>(
      tx,
      `SELECT l.picked_units - l.shipped_units AS units, u.weight_g, u.length_mm, u.width_mm, u.height_mm FROM sales_order_line l JOIN pack_unit u ON u.item_id = l.item_id AND u.factor = 1
       WHERE l.order_id = ? AND l.picked_units > l.shipped_units`,
      [orderId],
    );
  }

  private async cartons(lines: readonly SizedLine[]): Promise<CartonDto[]> {
    const found = await rows<Omit<CartonDto, 'fill' | 'proposed'>>(
      this.source,
      'SELECT code, length_mm AS lengthMm, width_mm AS widthMm, height_mm AS heightMm, tare_g AS tareG, most_g AS mostG FROM carton ORDER BY length_mm * width_mm * height_mm',
    );
    const volume = lines.reduce((sum, l) => sum + num(l.units) * (l.length_mm ?? 0) * (l.width_mm ?? 0) * (l.height_mm ?? 0), 0);
    const longest = Math.max(0, ...lines.map((l) => Math.max(l.length_mm ?? 0, l.width_mm ?? 0, l.height_mm ?? 0)));
    const weight = goodsWeight(lines) ?? 0;
    const filled = found.map((c) => ({
      ...c,
      fill: Math.ceil((volume * 100) / (c.lengthMm * c.widthMm * c.heightMm)),
    }));
    const fits = (c: (typeof filled)[number]) =>
      c.fill <= USABLE_PER_CENT && longest <= Math.max(c.lengthMm, c.widthMm, c.heightMm) && weight + c.tareG <= c.mostG;
    const proposed = filled.find(fits) ?? filled.at(-1);
    return filled.map((c) => ({ ...c, proposed: c.code === proposed?.code }));
  }
}

/** What the goods weigh in grams; null where one weight is not known. */
export function goodsWeight(lines: readonly SizedLine[]): number | null {
  if (lines.some((l) => l.weight_g === null)) return null;
  return lines.reduce((sum, l) => sum + num(l.units) * (l.weight_g ?? 0), 0);
}
