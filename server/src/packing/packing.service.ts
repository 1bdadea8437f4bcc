import { Injectable, type OnModuleInit } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import { checkPack } from '@vectrum/core/scan';
import { ActivityService } from '../activity/activity.service.js';
import { UndoService } from '../activity/undo.service.js';
import { CodebookQueries } from '../catalogue/codebook.queries.js';
import { type Act, mustBeAt } from '../platform/act.js';
import { CommandLog } from '../platform/command-log.js';
import { num, one, rows, type Tx } from '../platform/database/tx.js';
import { badState, Problem } from '../platform/problem.js';
import { refused } from '../platform/refused.js';
import { LedgerService } from '../stock/ledger.service.js';
import type { PostedDto } from '../receiving/receiving.dto.js';
import type { ProveDto } from './packing.dto.js';
import { type BenchOrder, PackingQueries } from './packing.queries.js';

interface PackUndo extends Record<string, unknown> {
  movements: number[];
  order: string;
  line: number;
  parts: { parcelLineId: number; units: number }[];
}
interface OpenParcel {
  id: number;
  code: string;
  place_id: number;
}

/** Proves goods into parcels at the packing table. */
@Injectable()
export class PackingService implements OnModuleInit {
  constructor(
    private readonly commands: CommandLog,
    private readonly queries: PackingQueries,
    private readonly ledger: LedgerService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    private readonly undo: UndoService,
  ) {}

  onModuleInit(): void {
    this.undo.register('pack', 'pack', (tx, act, payload) => this.takeBack(tx, act, payload as PackUndo));
  }

  pack(act: Act, code: string, input: ProveDto): Promise<PostedDto> {
    return this.commands.run(act, 'pack', { code, input }, async (tx) => {
      const order = await this.locked(tx, act, code);
      if (order.state !== 'picked' || order.tote_id === null)
        throw badState(`${code} is ${order.state}. Only a picked order can be packed`);
      const task = await this.queries.task(tx, order);
      const line = task.lines.find((l) => l.line === input.line);
      const item = line && (await this.codebook.items(tx, order.site_id, [line.itemId]))[line.itemId];
      const refusal = checkPack(code, item, input.units, line ? line.picked - line.packed : 0);
      if (refusal || !line || !item)
        throw refused(refusal ?? { band: 'not-this', title: 'Not on this order', detail: `${code} has no such line` });
      const parcel = await this.openParcel(tx, order);
      const lots = await this.fromTote(tx, order.tote_id, line.itemId, input.units);
      const { ids } = await this.ledger.post(
        tx,
        act,
        lots.map((l) => ({
          itemId: line.itemId,
          lotId: l.lotId,
          condition: 'good' as const,
          fromPlaceId: order.tote_id ?? 0,
          toPlaceId: parcel.place_id,
          units: l.units,
        })),
        { task: 'pack', document: code, how: input.how },
      );
      const parts = [];
      for (const lot of lots)
        parts.push({
          parcelLineId: await this.intoParcel(tx, parcel.id, order.id, input.line, lot),
          units: lot.units,
        });
      await tx.query('UPDATE sales_order_line SET packed_units = packed_units + ? WHERE order_id = ? AND line = ?', [
        input.units,
        order.id,
        input.line,
      ]);
      const activityId = await this.activity.record(tx, act, {
        kind: 'pack',
        glyph: 'full',
        title: goodsWords(input.units, item),
        detail: `into parcel ${parcel.code}`,
        document: code,
        siteId: order.site_id,
        how: input.how,
        undo: { movements: ids, order: code, line: input.line, parts } satisfies PackUndo,
      });
      return { activityId };
    });
  }

  seeNote(act: Act, code: string): Promise<PostedDto> {
    return this.commands.run(act, 'pack.note-seen', { code }, async (tx) => {
      const order = await this.locked(tx, act, code);
      await tx.query('UPDATE sales_order SET note_seen_by = COALESCE(note_seen_by, ?) WHERE id = ?', [act.person.id, order.id]);
      const activityId = await this.activity.record(tx, act, {
        kind: 'note',
        glyph: 'full',
        title: `Note on ${code} read`,
        detail: order.note_packer ?? '',
        document: code,
        siteId: order.site_id,
      });
      return { activityId };
    });
  }

  async locked(tx: Tx, act: Act, code: string): Promise<BenchOrder> {
    await one(tx, 'SELECT id FROM sales_order WHERE code = ? FOR UPDATE', [code]);
    const order = await this.queries.orderOf(tx, code);
    mustBeAt(act.person, order.site_id);
    return order;
  }

  private async openParcel(tx: Tx, order: BenchOrder): Promise<OpenParcel> {
    const open = await one<OpenParcel>(tx, `SELECT id, code, place_id FROM parcel WHERE order_id = ? AND state = 'open' FOR UPDATE`, [
      order.id,
    ]);
    if (open) return open;
    const last = await one<{ n: number | null }>(tx, 'SELECT MAX(number) AS n FROM parcel WHERE order_id = ?', [order.id]);
    const number = (last?.n ?? 0) + 1;
    const code = `${order.code}-${number}`;
    const table = await one<{ parent_id: number | null }>(tx, 'SELECT parent_id FROM place WHERE id = ?', [order.tote_id]);
    const place = await tx.query<{ insertId: number }>(`INSERT INTO place (site_id, parent_id, code, kind) VALUES (?, ?, ?, 'parcel')`, [
      order.site_id,
      table?.parent_id ?? null,
      code,
    ]);
    const made = await tx.query<{ insertId: number }>('INSERT INTO parcel (code, order_id, number, place_id) VALUES (?, ?, ?, ?)', [
      code,
      order.id,
      number,
      place.insertId,
    ]);
    return { id: made.insertId, code, place_id: place.insertId };
  }

  /** Which lots of the tote make up a quantity. The rows stay locked. */
  private async fromTote(tx: Tx, toteId: number, itemId: number, units: number): Promise<{ lotId: number; units: number }[]> {
    const found = await rows<{ lot_id: number; units: number }>(
      tx,
      `SELECT lot_id, units FROM balance WHERE item_id = ? AND place_id = ? AND stock_condition = 'good' AND units > 0 ORDER BY lot_id FOR UPDATE`,
      [itemId, toteId],
    );
    const lots: { lotId: number; units: number }[] = [];
    let need = units;
    for (const row of found) {
      const part = Math.min(need, row.units);
      if (part > 0) lots.push({ lotId: row.lot_id, units: part });
      need -= part;
    }
    if (need > 0) throw new Problem(409, 'stock', 'The tote does not hold that many. Count what is in it');
    return lots;
  }

  private async intoParcel(
    tx: Tx,
    parcelId: number,
    orderId: number,
    line: number,
    lot: { lotId: number; units: number },
  ): Promise<number> {
    const row = await one<{ id: number }>(tx, 'SELECT id FROM sales_order_line WHERE order_id = ? AND line = ?', [orderId, line]);
    await tx.query(
      'INSERT INTO parcel_line (parcel_id, order_line_id, lot_id, units) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE units = units + VALUES(units)',
      [parcelId, row?.id ?? 0, lot.lotId, lot.units],
    );
    const made = await one<{ id: number }>(tx, 'SELECT id FROM parcel_line WHERE parcel_id = ? AND order_line_id = ? AND lot_id = ?', [
      parcelId,
      row?.id ?? 0,
      lot.lotId,
    ]);
    return made?.id ?? 0;
  }

  private async takeBack(tx: Tx, act: Act, undo: PackUndo): Promise<void> {
    const order = await this.locked(tx, act, undo.order);
    if (order.state !== 'picked') throw new Problem(409, 'undo', `${undo.order} has its label. Void the parcel first`);
    await this.ledger.reverse(tx, act, undo.movements, undo.order);
    let units = 0;
    for (const part of undo.parts) {
      units += num(part.units);
      await tx.query('UPDATE parcel_line SET units = units - ? WHERE id = ?', [part.units, part.parcelLineId]);
      await tx.query('DELETE FROM parcel_line WHERE id = ? AND units = 0', [part.parcelLineId]);
    }
    await tx.query('UPDATE sales_order_line SET packed_units = packed_units - ? WHERE order_id = ? AND line = ?', [
      units,
      order.id,
      undo.line,
    ]);
  }
}
