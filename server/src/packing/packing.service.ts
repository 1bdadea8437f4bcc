import { Injectable } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import {
  checkPack,
  type How,
  type ItemFacts,
  type NoteSeenCommand,
  type PackAllCommand,
  type PackCommand,
  type PackKitCommand,
} from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { onShelfSql, Reservations } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { OrderStates } from '../orders/index.js';
import { type Act, badState, insert, mustBeAt, num, one, Problem, refused, rows, type Tx } from '../platform/index.js';
import { addPlace, standsAtSql } from '../sites/index.js';
import { LedgerService } from '../stock/index.js';
import { type BenchOrder, PackingQueries } from './packing.queries.js';
import { ParcelSerials } from './parcel-serials.js';

interface PackUndo extends Record<string, unknown> {
  serial?: string;
  movements: number[];
  order: string;
  lineId: number;
  itemId: number;
  parcelId: number;
  parts: { toteId: number; lotId: number; units: number; parcelPlaceId: number; shelf?: number }[];
}
interface PackAllUndo extends Record<string, unknown> {
  order: string;
  all: PackUndo[];
}
interface OpenParcel {
  id: number;
  code: string;
  place_id: number;
  state: string;
}
interface LineAtTable {
  id: number;
  itemId: number;
  left: number;
}
interface Part {
  /** The tote that it stands in, or its bin. */
  toteId: number;
  lotId: number;
  units: number;
  /** 1 where it is taken out of its bin: it was picked by nobody before. */
  shelf: number;
}

const isOfAll = (undo: PackUndo | PackAllUndo): undo is PackAllUndo => Array.isArray(undo['all']);

/** What stands in totes at a table for one line of an order, or waits on the shelf where nobody walks rounds. */
const AT_TABLE = `FROM reservation v JOIN place p ON p.id = v.place_id LEFT JOIN tote_use u ON u.open_tote = v.place_id AND u.set_down_at IS NOT NULL AND u.order_id IS NOT NULL WHERE v.order_line_id = ? AND (u.id IS NOT NULL OR ${onShelfSql('v', 'p')})`;

/** Proves goods into parcels at the packing table; an order may have several open. */
@Injectable()
export class PackingService {
  constructor(
    private readonly queries: PackingQueries,
    private readonly ledger: LedgerService,
    private readonly reservations: Reservations,
    private readonly codebook: CodebookQueries,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
    private readonly serials: ParcelSerials,
    undo: UndoService,
  ) {
    undo.register('pack', 'pack', (tx, act, payload) => this.takeBack(tx, act, payload as PackUndo | PackAllUndo));
  }

  /** Goods of one line into one parcel of the order. Loads that line and that parcel. */
  async pack(tx: Tx, act: Act, command: PackCommand): Promise<FloorAnswerDto> {
    const order = await this.opened(tx, act, command.order);
    const { undo, item } = await this.put(tx, act, order, command, command.how);
    const activityId = await this.activity.record(tx, act, {
      kind: 'pack',
      glyph: 'full',
      title: goodsWords(command.units, item),
      detail: `into parcel ${order.code}-${command.parcel}`,
      document: order.code,
      siteId: order.site_id,
      how: command.how,
      undo,
    });
    return { activityId };
  }

  /** What was scanned at its bins, into one parcel, line by line, where the house trusts those scans. All of it, or none. */
  async packAll(tx: Tx, act: Act, command: PackAllCommand): Promise<FloorAnswerDto> {
    const order = await this.opened(tx, act, command.order);
    const known = await this.queries.lines(tx, order);
    const all: PackUndo[] = [];
    for (const { line, units } of command.lines) {
      if (!known.find((l) => l.line === line)?.trusted)
        throw refused({ band: 'not-this', title: `Line ${line}`, detail: 'It was not proved by scans at its bins. Scan each of it' });
      all.push((await this.put(tx, act, order, { line, units, parcel: command.parcel }, null)).undo);
    }
    const units = command.lines.reduce((n, l) => n + l.units, 0);
    const activityId = await this.activity.record(tx, act, {
      kind: 'pack',
      glyph: 'full',
      title: `${units} ${units === 1 ? 'piece' : 'pieces'}, as scanned at their bins`,
      detail: `into parcel ${order.code}-${command.parcel}`,
      document: order.code,
      siteId: order.site_id,
      undo: { order: order.code, all } satisfies PackAllUndo,
    });
    return { activityId };
  }

  /** Whole kits into one parcel, by the code on the kit: so many of each part as the order says. All of it, or none. */
  async packKit(tx: Tx, act: Act, command: PackKitCommand): Promise<FloorAnswerDto> {
    const order = await this.opened(tx, act, command.order);
    const kit = (await this.queries.kits(tx, order.id)).find((k) => k.line === command.kit);
    const item = kit && (await this.codebook.item(tx, order.site_id, kit.itemId));
    const isWhole =
      kit?.parts.length === command.lines.length &&
      kit.parts.every((p) => command.lines.some((l) => l.line === p.line && l.units === p.each * command.kits));
    if (!item || !isWhole)
      throw refused({
        band: 'not-this',
        title: item?.name ?? `Line ${command.kit}`,
        detail: 'The order has changed. Scan its parts one by one',
      });
    const all: PackUndo[] = [];
    for (const { line, units } of command.lines) {
      const part = await this.put(tx, act, order, { line, units, parcel: command.parcel }, command.how);
      if (part.item.asksSerial || part.item.scanEach)
        throw refused({ band: 'not-this', title: part.item.name, detail: 'Each piece of it is scanned. Scan the parts one by one' });
      all.push(part.undo);
    }
    const activityId = await this.activity.record(tx, act, {
      kind: 'pack',
      glyph: 'full',
      title: `${goodsWords(command.kits, item)}, whole`,
      detail: `into parcel ${order.code}-${command.parcel}`,
      document: order.code,
      siteId: order.site_id,
      how: command.how,
      undo: { order: order.code, all } satisfies PackAllUndo,
    });
    return { activityId };
  }

  async opened(tx: Tx, act: Act, code: string): Promise<BenchOrder> {
    const order = await this.locked(tx, act, code);
    if (order.state !== 'picked') throw badState(`${order.code} is ${order.state}. Only a picked order can be packed`);
    return order;
  }

  /** Posts goods of one line out of totes, or off the shelf, into a parcel; line, parcel and what is promised follow. */
  private async put(
    tx: Tx,
    act: Act,
    order: BenchOrder,
    goods: Pick<PackCommand, 'line' | 'units' | 'parcel' | 'serial'>,
    how: How | null,
  ): Promise<{ undo: PackUndo; item: ItemFacts }> {
    const line = await this.line(tx, order.id, goods.line);
    const item = line && (await this.codebook.item(tx, order.site_id, line.itemId));
    const refusal = checkPack(order.code, item, goods.units, line?.left ?? 0);
    if (refusal || !line || !item)
      throw refused(refusal ?? { band: 'not-this', title: 'Not on this order', detail: `${order.code} has no such line` });
    const parts = await this.fromTotes(tx, line.id, goods.units);
    const parcel = await this.parcel(tx, order, goods.parcel, parts[0]?.toteId ?? 0);
    const serial = await this.serials.packed(tx, item, { parcelId: parcel.id, lineId: line.id }, goods);
    if (order.parked_why !== null) await this.states.park(tx, order.id, null);
    const { ids } = await this.ledger.post(
      tx,
      act,
      parts.map((p) => ({
        itemId: line.itemId,
        lotId: p.lotId,
        condition: 'good' as const,
        fromPlaceId: p.toteId,
        toPlaceId: parcel.place_id,
        units: p.units,
      })),
      { task: 'pack', document: order.code, how },
    );
    const undo: PackUndo = {
      movements: ids,
      order: order.code,
      lineId: line.id,
      itemId: line.itemId,
      parcelId: parcel.id,
      ...(serial ? { serial } : {}),
      parts: parts.map((p) => ({ ...p, parcelPlaceId: parcel.place_id })),
    };
    await this.follow(tx, order.site_id, undo, 1);
    return { undo, item };
  }

  async seeNote(tx: Tx, act: Act, { order: code, badge }: NoteSeenCommand): Promise<FloorAnswerDto> {
    const order = await this.locked(tx, act, code);
    const own = await this.queries.noteBadge(tx, act.person.id);
    if (own !== null && badge?.toUpperCase() !== own.toUpperCase())
      throw refused({ band: 'not-this', title: 'Your badge', detail: 'Read the note, then scan your own badge' });
    await this.states.noteSeen(tx, order.id, act.person.id);
    const activityId = await this.activity.record(tx, act, {
      kind: 'note',
      glyph: 'full',
      title: `Note on ${order.code} read`,
      detail: order.note_packer ?? '',
      document: order.code,
      siteId: order.site_id,
    });
    return { activityId };
  }

  /** An order as it is, with its row held; refused for who does not work at its site. */
  async locked(tx: Tx, act: Act, code: string): Promise<BenchOrder> {
    await one(tx, 'SELECT id FROM sales_order WHERE code = ? FOR UPDATE', [code.toUpperCase()]);
    const order = await this.queries.orderOf(tx, code.toUpperCase());
    mustBeAt(act.person, order.site_id);
    return order;
  }

  private async line(tx: Tx, orderId: number, line: number): Promise<LineAtTable | undefined> {
    const found = await one<{ id: number; itemId: number }>(
      tx,
      'SELECT id, item_id AS itemId FROM sales_order_line WHERE order_id = ? AND line = ? AND item_id IS NOT NULL',
      [orderId, line],
    );
    if (!found) return undefined;
    const at = await one<{ units: string | null }>(tx, `SELECT SUM(v.units) AS units ${AT_TABLE}`, [found.id]);
    return { ...found, left: num(at?.units) };
  }

  /** The parcel of that number, begun if there is none yet at the table where the tote or parcel stands out of which goods come; otherwise at the site's first. */
  async parcel(tx: Tx, order: BenchOrder, number: number, nearId: number): Promise<OpenParcel> {
    const known = await one<OpenParcel>(tx, 'SELECT id, code, place_id, state FROM parcel WHERE order_id = ? AND number = ? FOR UPDATE', [
      order.id,
      number,
    ]);
    if (known && known.state !== 'open') throw badState(`Parcel ${known.code} is closed already. Begin another one`);
    if (known) return known;
    const code = `${order.code}-${number}`;
    const table = await this.table(tx, order.site_id, nearId);
    const place = await addPlace(tx, { site_id: order.site_id, parent_id: table, code, kind: 'parcel' });
    const made = await insert(tx, 'parcel', { code, order_id: order.id, number, place_id: place });
    return { id: made, code, place_id: place, state: 'open' };
  }

  /** The table where a tote or parcel stands; the first of the site where it stands at none. */
  async table(tx: Tx, siteId: number, containerId: number): Promise<number | null> {
    const found = await one<{ id: number | null }>(
      tx,
      `SELECT COALESCE((SELECT b.id FROM place t ${standsAtSql('t', 'b')} WHERE t.id = ? AND b.kind = 'packing-table'), (SELECT MIN(id) FROM place WHERE site_id = ? AND kind = 'packing-table' AND blocked = 0)) AS id`,
      [containerId, siteId],
    );
    return found?.id ?? null;
  }

  /** So many units of a line more, or less, are in a parcel. */
  async contentsChange(tx: Tx, parcelId: number, lineId: number, lotId: number, units: number): Promise<void> {
    const key = [parcelId, lineId, lotId];
    if (units > 0)
      await tx.query(
        'INSERT INTO parcel_line (parcel_id, order_line_id, lot_id, units) VALUES (?, ?, ?, ?) ON DUPLICATE KEY UPDATE units = units + VALUES(units)',
        [...key, units],
      );
    else {
      await tx.query('UPDATE parcel_line SET units = units - ? WHERE parcel_id = ? AND order_line_id = ? AND lot_id = ?', [-units, ...key]);
      await tx.query('DELETE FROM parcel_line WHERE parcel_id = ? AND order_line_id = ? AND lot_id = ? AND units = 0', key);
    }
  }

  /** Which totes and lots make up a quantity of a line. Its order is locked, and nobody else packs it. */
  private async fromTotes(tx: Tx, lineId: number, units: number): Promise<Part[]> {
    const found = await rows<Part>(
      tx,
      `SELECT v.place_id AS toteId, v.lot_id AS lotId, v.units, u.id IS NULL AS shelf ${AT_TABLE} ORDER BY v.place_id, v.lot_id`,
      [lineId],
    );
    const parts: Part[] = [];
    let need = units;
    for (const row of found) {
      const part = Math.min(need, row.units);
      if (part > 0) parts.push({ ...row, units: part, shelf: num(row.shelf) });
      need -= part;
    }
    if (need > 0) throw new Problem(409, 'stock', 'The tote does not hold that many. Count what is in it');
    return parts;
  }

  /** Parcel, line and what is promised go with the goods (1), or back with them (−1). */
  private async follow(tx: Tx, siteId: number, undo: PackUndo, sign: 1 | -1): Promise<void> {
    const holder = { lineId: undo.lineId, itemId: undo.itemId, siteId };
    for (const { toteId, lotId, units, parcelPlaceId } of undo.parts) {
      const [tote, parcel] = [
        { placeId: toteId, lotId },
        { placeId: parcelPlaceId, lotId },
      ];
      await this.reservations.move(tx, holder, sign === 1 ? tote : parcel, sign === 1 ? parcel : tote, units);
      await this.contentsChange(tx, undo.parcelId, undo.lineId, lotId, sign * units);
    }
    const units = undo.parts.reduce((n, p) => n + p.units, 0) * sign;
    const picked = undo.parts.reduce((n, p) => n + (p.shelf ? p.units : 0), 0) * sign;
    await this.states.progress(tx, undo.lineId, { packed: units, ...(picked === 0 ? {} : { picked }) });
  }

  /** Goods go back only into a tote that still is this order's. */
  private async totesMustWait(tx: Tx, order: BenchOrder, undo: PackUndo): Promise<void> {
    for (const { toteId, shelf } of undo.parts) {
      if (shelf) continue;
      const isOurs = await one(tx, 'SELECT id FROM tote_use WHERE open_tote = ? AND order_id = ?', [toteId, order.id]);
      if (!isOurs)
        throw new Problem(
          409,
          'undo',
          `The tote is in use elsewhere by now. Take the goods out into another parcel of ${order.code} instead`,
        );
    }
  }

  private async takeBack(tx: Tx, act: Act, undo: PackUndo | PackAllUndo): Promise<void> {
    const order = await this.locked(tx, act, undo.order);
    for (const part of isOfAll(undo) ? undo.all : [undo]) {
      const parcel = await one<{ state: string }>(tx, 'SELECT state FROM parcel WHERE id = ? FOR UPDATE', [part.parcelId]);
      if (parcel?.state !== 'open') throw new Problem(409, 'undo', `${undo.order} has its label. Open the parcel again first`);
      await this.totesMustWait(tx, order, part);
      if (part.serial) await this.serials.out(tx, part.itemId, part.serial);
      await this.ledger.reverse(tx, act, part.movements, part.order);
      await this.follow(tx, order.site_id, part, -1);
    }
    await this.states.refresh(tx, [order.id]);
  }
}
