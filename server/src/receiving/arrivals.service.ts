import { Injectable } from '@nestjs/common';
import { countOf } from '@vectrum/core/quantity';
import type { CloseArrivalCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import type { FloorAnswerDto, MissingLineDto } from '../floor/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  insert,
  mustBeAt,
  NEXT,
  nextCode,
  notFound,
  NOW,
  num,
  one,
  Problem,
  rows,
  siteDay,
  type Tx,
  update,
} from '../platform/index.js';
import { doorId } from '../sites/index.js';
import { type Delivery, deliveryOf } from './delivery.js';
import type { NewArrivalDto } from './receiving.dto.js';

/** Opens and closes arrivals: what comes on a day, from one order, from several or from none. */
@Injectable()
export class ArrivalsService {
  constructor(
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('arrival', 'receive', (tx, _act, payload) => this.comesAfterAll(tx, Number(payload['arrival'])));
  }

  /** The arrival that goods of a locked delivery are booked in with: the open or announced one, or a new one. */
  async opened(tx: Tx, act: Act, delivery: Delivery): Promise<{ id: number; code: string }> {
    if (delivery.arrival) {
      await tx.query(
        `UPDATE arrival SET state = 'open', opened_at = COALESCE(opened_at, UTC_TIMESTAMP(3)), opened_by = COALESCE(opened_by, ?) WHERE id = ?`,
        [act.person.id, delivery.arrival.id],
      );
      return delivery.arrival;
    }
    return this.make(tx, act, delivery.siteId, delivery.supplierId, delivery.orders);
  }

  private async make(
    tx: Tx,
    act: Act,
    siteId: number,
    supplierId: number | null,
    orders: readonly { id: number }[],
  ): Promise<{ id: number; code: string }> {
    const code = await nextCode(tx, 'A');
    const made = await tx.query<{ insertId: number }>(
      `INSERT INTO arrival (code, site_id, supplier_id, expected_on, door_id, opened_at, opened_by) VALUES (?, ?, ?, ?, (SELECT door_id FROM purchase_order WHERE id = ?), UTC_TIMESTAMP(3), ?)`,
      [code, siteId, supplierId, (await siteDay(tx, siteId)).today, orders[0]?.id ?? 0, act.person.id],
    );
    for (const order of orders) await insert(tx, 'arrival_order', { arrival_id: made.insertId, order_id: order.id });
    return { id: made.insertId, code };
  }

  /** An arrival for goods that stand at the door with no order. */
  add(act: Act, input: NewArrivalDto): Promise<{ code: string }> {
    mustBeAt(act.person, input.siteId);
    return this.commands.run(act, 'arrival.add', input, async (tx) => {
      const supplier = input.supplier
        ? await one<{ id: number; name: string }>(tx, 'SELECT id, name FROM supplier WHERE code = ?', [input.supplier.toUpperCase()])
        : undefined;
      if (input.supplier && !supplier) throw badForm({ supplier: `There is no supplier ${input.supplier}` });
      const { code } = await this.make(tx, act, input.siteId, supplier?.id ?? null, []);
      await this.activity.record(tx, act, {
        kind: 'arrival',
        glyph: 'empty',
        title: `${code} stands at the door without an order`,
        detail: supplier?.name ?? 'sender not known',
        document: code,
        siteId: input.siteId,
      });
      return { code };
    });
  }

  /** Says at which dock an arrival is expected, or stands. */
  setDoor(act: Act, code: string, door: string | null): Promise<{ code: string }> {
    return this.commands.run(act, 'arrival.door', { code, door }, async (tx) => {
      const found = await one<{ id: number; siteId: number; state: string }>(
        tx,
        'SELECT id, site_id AS siteId, state FROM arrival WHERE code = ? FOR UPDATE',
        [code],
      );
      if (!found) throw notFound(`Arrival ${code}`);
      mustBeAt(act.person, found.siteId);
      if (found.state === 'closed') throw badState(`${code} is closed. Its door does not matter any more`);
      await update(tx, 'arrival', { id: found.id }, { door_id: await doorId(tx, found.siteId, door), version: NEXT });
      await this.activity.record(tx, act, {
        kind: 'arrival',
        glyph: 'go',
        title: door ? `${code} comes to ${door.toUpperCase()}` : `${code} comes to any dock`,
        document: code,
        siteId: found.siteId,
      });
      return { code };
    });
  }

  /** What was announced does not come: it is waited for no longer, and its pallets may be announced again. */
  notComing(act: Act, code: string): Promise<{ code: string }> {
    return this.commands.run(act, 'arrival.not-coming', { code }, async (tx) => {
      const found = await one<{ id: number; siteId: number; state: string; supplier: string | null }>(
        tx,
        'SELECT a.id, a.site_id AS siteId, a.state, s.name AS supplier FROM arrival a LEFT JOIN supplier s ON s.id = a.supplier_id WHERE a.code = ? FOR UPDATE',
        [code],
      );
      if (!found) throw notFound(`Arrival ${code}`);
      mustBeAt(act.person, found.siteId);
      if (found.state === 'open') throw badState(`${code} stands at the door. Book in what is there, then close it`);
      if (found.state !== 'announced') throw badState(`${code} is closed already`);
      await update(tx, 'arrival', { id: found.id }, { state: 'closed', closed_at: NOW, closed_by: act.person.id, version: NEXT });
      await this.activity.record(tx, act, {
        kind: 'arrival',
        glyph: 'empty',
        title: `${code} does not come`,
        detail: found.supplier ?? '',
        document: code,
        siteId: found.siteId,
        undo: { arrival: found.id },
      });
      return { code };
    });
  }

  private async comesAfterAll(tx: Tx, id: number): Promise<void> {
    const found = await one<{ code: string; state: string; opened: Date | null }>(
      tx,
      'SELECT code, state, opened_at AS opened FROM arrival WHERE id = ? FOR UPDATE',
      [id],
    );
    if (!found || found.state !== 'closed' || found.opened) throw badState(`${found?.code ?? 'It'} is waited for already`);
    await update(tx, 'arrival', { id }, { state: 'announced', closed_at: null, closed_by: null, version: NEXT });
  }

  /** Closes the arrival of a delivery, keeps the supplier's paper number, and tells what is short. */
  async close(tx: Tx, act: Act, command: CloseArrivalCommand): Promise<FloorAnswerDto> {
    const paper = command.paper.trim();
    const delivery = await deliveryOf(tx, command.document.toUpperCase(), true);
    mustBeAt(act.person, delivery.siteId);
    if (delivery.arrival?.state !== 'open') throw badState('Nothing was booked in yet. Scan the goods first, then close');
    const { id, code } = delivery.arrival;
    await this.noOtherPaper(tx, delivery, paper);
    await update(tx, 'arrival', { id }, { state: 'closed', paper, closed_at: NOW, closed_by: act.person.id, version: NEXT });
    const short = await this.short(tx, id);
    const activityId = await this.activity.record(tx, act, {
      kind: 'arrival',
      glyph: short.length === 0 ? 'full' : 'half',
      title: `${code} closed`,
      detail: short.length === 0 ? 'all that was due is here' : `short: ${short.map((s) => `${s.missing} ${s.name}`).join(', ')}`,
      document: code,
      siteId: delivery.siteId,
    });
    return { activityId, arrival: code, short };
  }

  /** The same paper twice from one supplier is one delivery booked in twice. */
  private async noOtherPaper(tx: Tx, delivery: Delivery, paper: string): Promise<void> {
    if (paper === '' || delivery.supplierId === null) return;
    const other = await one<{ code: string }>(tx, 'SELECT code FROM arrival WHERE supplier_id = ? AND paper = ? AND id <> ? LIMIT 1', [
      delivery.supplierId,
      paper,
      delivery.arrival?.id,
    ]);
    if (other)
      throw new Problem(400, 'form', `Paper ${paper} came with ${other.code} already. Check the number on the paper`, {
        fields: { paper: `Came with ${other.code} already` },
      });
  }

  private async short(tx: Tx, arrivalId: number): Promise<MissingLineDto[]> {
    const lines = await rows<{ order: string; line: number; name: string; unit: string; units: string; missing: string }>(
      tx,
      `SELECT o.code AS \`order\`, l.line, i.name, b.name AS unit, b.plural AS units, l.open_units AS missing
       FROM arrival_order x JOIN purchase_order o ON o.id = x.order_id JOIN purchase_order_line l ON l.order_id = o.id JOIN item i ON i.id = l.item_id JOIN pack_unit b ON b.item_id = i.id AND b.factor = 1
       WHERE x.arrival_id = ? AND o.state NOT IN ('cancelled','closed') AND l.open_units > 0 ORDER BY o.id, l.line`,
      [arrivalId],
    );
    return lines.map((l) => ({
      order: l.order,
      line: l.line,
      name: l.name,
      units: num(l.missing),
      missing: countOf(num(l.missing), { name: l.unit, plural: l.units }),
    }));
  }
}
