import { Injectable } from '@nestjs/common';
import type { LeaveOutCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import { onShelfSql, Reservations, type Spot } from '../allocation/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { changeLine, changeOrder, keepChanges, OrderStates } from '../orders/index.js';
import { type Act, find, more, NEXT, one, Problem, refused, type Row, rows, type Tx } from '../platform/index.js';
import { PackingService } from './packing.service.js';

/** What a line was before some of it was left out. */
interface LineBefore {
  id: number;
  line: number;
  quantity: number;
  factor: number;
  price: string;
  units: number;
}
interface LeftOut extends Record<string, unknown> {
  order: string;
  lines: LineBefore[];
  parts: { lineId: number; itemId: number; siteId: number; placeId: number; lotId: number; units: number; shelf: number }[];
}
type Part = LeftOut['parts'][number];

/** Goods that go along where there are some, and stay behind where there are none, or nobody wants them. */
@Injectable()
export class InsertsService {
  constructor(
    private readonly packing: PackingService,
    private readonly reservations: Reservations,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('leave-out', 'pack', (tx, act, payload) => this.takeBack(tx, act, payload as LeftOut));
  }

  /** Inserts that wait at the table stay behind: the order wants them no longer, and says on its papers that they were left out. */
  async leaveOut(tx: Tx, act: Act, command: LeaveOutCommand): Promise<FloorAnswerDto> {
    const order = await this.packing.opened(tx, act, command.order);
    const undo: LeftOut = { order: order.code, lines: [], parts: [] };
    const names: string[] = [];
    for (const { line, units } of command.lines) {
      const found = await find(tx, 'sales_order_line', { order_id: order.id, line });
      const item = found && found.item_id !== null ? await find(tx, 'item', { id: found.item_id }) : undefined;
      if (!found || item?.never_holds_up !== 1)
        throw refused({
          band: 'not-this',
          title: item?.name ?? `Line ${line}`,
          detail: 'The order waits for it. Park the order, or ask the order desk',
        });
      undo.parts.push(...(await this.free(tx, { id: found.id, name: item.name }, units)));
      undo.lines.push(await this.fewer(tx, act, order.id, found, units));
      names.push(item.name);
    }
    await this.mustHoldMore(tx, order);
    await changeOrder(tx, order.id, { version: NEXT });
    await this.states.refresh(tx, [order.id]);
    const activityId = await this.activity.record(tx, act, {
      kind: 'leave-out',
      glyph: 'blocked',
      title: `${names.join(', ')} left out`,
      detail: `of ${order.code}; its packing list says so`,
      document: order.code,
      siteId: order.site_id,
      undo,
    });
    return { activityId };
  }

  private async free(tx: Tx, line: { id: number; name: string }, units: number): Promise<Part[]> {
    const waiting = await rows<Part>(
      tx,
      `SELECT v.order_line_id AS lineId, v.item_id AS itemId, v.site_id AS siteId, v.place_id AS placeId, v.lot_id AS lotId, v.units, u.id IS NULL AS shelf
       FROM reservation v JOIN place p ON p.id = v.place_id LEFT JOIN tote_use u ON u.open_tote = v.place_id AND u.set_down_at IS NOT NULL AND u.order_id IS NOT NULL
       WHERE v.order_line_id = ? AND (u.id IS NOT NULL OR ${onShelfSql('v', 'p')}) ORDER BY v.place_id, v.lot_id`,
      [line.id],
    );
    const parts: Part[] = [];
    let need = units;
    for (const goods of waiting) {
      const part = { ...goods, units: Math.min(need, goods.units) };
      if (part.units === 0) continue;
      need -= part.units;
      await this.reservations.free(tx, part, spotOf(part), part.units);
      if (!part.shelf) await this.states.progress(tx, line.id, { picked: -part.units });
      parts.push(part);
    }
    if (need > 0) throw refused({ band: 'too-many', title: line.name, detail: `Only ${units - need} of it wait here` });
    return parts;
  }

  /** The order wants so many units fewer of a line, and its history says so. Returns what the line was. */
  private async fewer(tx: Tx, act: Act, orderId: number, line: Row<'sales_order_line'>, units: number): Promise<LineBefore> {
    const left = line.units - units;
    const price = (Number(line.price) / line.factor).toFixed(6);
    await changeLine(tx, line.id, { quantity: left, factor: 1, price, units: left, left_out: more(units) });
    const change = { line: line.line, what: 'units', was: line.units, becomes: left };
    await keepChanges(tx, orderId, act.person.id, [change], 'left out at the table');
    return { id: line.id, line: line.line, quantity: line.quantity, factor: line.factor, price: line.price, units: line.units };
  }

  /** An order of inserts alone is no order once they are left out: the desk cancels it. */
  private async mustHoldMore(tx: Tx, order: { id: number; code: string }): Promise<void> {
    if (await one(tx, 'SELECT id FROM sales_order_line WHERE order_id = ? AND units > 0 LIMIT 1', [order.id])) return;
    throw refused({ band: 'not-this', title: order.code, detail: 'Nothing else is on it. Park it, and ask the order desk to cancel it' });
  }

  private async takeBack(tx: Tx, act: Act, { order: code, lines, parts }: LeftOut): Promise<void> {
    const order = await this.packing.locked(tx, act, code);
    await tx.query('SELECT id FROM place WHERE id IN (?) ORDER BY id LOCK IN SHARE MODE', [[0, ...parts.map((p) => p.placeId)]]);
    for (const { id, line, ...was } of lines) {
      const now = await find(tx, 'sales_order_line', { id });
      const units = parts.reduce((n, p) => n + (p.lineId === id ? p.units : 0), 0);
      if (now?.units !== was.units - units) throw new Problem(409, 'undo', 'The order was changed since. Add it at the order desk instead');
      await changeLine(tx, id, { ...was, left_out: more(-units) });
      await keepChanges(
        tx,
        order.id,
        act.person.id,
        [{ line, what: 'units', was: now.units, becomes: was.units }],
        'not left out after all',
      );
    }
    for (const part of parts) {
      const there = await one(tx, 'SELECT place_id FROM balance WHERE place_id = ? AND item_id = ? AND lot_id = ? AND units >= ?', [part.placeId, part.itemId, part.lotId, part.units]); // prettier-ignore
      const isOurs =
        part.shelf || (await one(tx, 'SELECT id FROM tote_use WHERE open_tote = ? AND order_id = ?', [part.placeId, order.id]));
      if (!there || !isOurs) throw new Problem(409, 'undo', 'It was put away since. Add it to the order at the desk instead');
      await this.reservations.hold(tx, part, part.units);
      await this.reservations.move(tx, part, null, spotOf(part), part.units);
      if (!part.shelf) await this.states.progress(tx, part.lineId, { picked: part.units });
    }
    await changeOrder(tx, order.id, { version: NEXT });
    await this.states.refresh(tx, [order.id]);
  }
}

const spotOf = (part: Part): Spot => ({ placeId: part.placeId, lotId: part.lotId });
