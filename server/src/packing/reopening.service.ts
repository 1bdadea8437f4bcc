import { Injectable } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import { checkRepack, type OpenParcelCommand, type ParkCommand, type RepackCommand, type SerialOutCommand } from '@vectrum/core/scan';
import { ActivityService } from '../activity/index.js';
import { Containers, Reservations } from '../allocation/index.js';
import { BoxesService } from '../carriers/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { OrderStates } from '../orders/index.js';
import { type Act, badState, notFound, one, refused, rows, type Tx, update } from '../platform/index.js';
import { LedgerService } from '../stock/index.js';
import { PackingQueries } from './packing.queries.js';
import { PackingService } from './packing.service.js';
import { ParcelSerials } from './parcel-serials.js';
import { ParcelLabels } from './parcel-labels.service.js';

interface ParcelRow {
  id: number;
  code: string;
  place_id: number;
  state: string;
  carton: string | null;
  loaded_at: Date | null;
}

/** Parcels that are opened again and packed anew, and orders that wait at the table. */
@Injectable()
export class ReopeningService {
  constructor(
    private readonly queries: PackingQueries,
    private readonly packing: PackingService,
    private readonly labels: ParcelLabels,
    private readonly serials: ParcelSerials,
    private readonly containers: Containers,
    private readonly boxes: BoxesService,
    private readonly states: OrderStates,
    private readonly ledger: LedgerService,
    private readonly reservations: Reservations,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
  ) {}

  /** Opens a parcel that has not left: back at the table, without label, service and box. Its carrier is told that the label is void. */
  async open(tx: Tx, act: Act, command: OpenParcelCommand): Promise<FloorAnswerDto> {
    const order = await this.packing.locked(tx, act, command.order);
    const parcel = await this.parcel(tx, order.id, command.parcel);
    if (!parcel || parcel.state === 'void') throw notFound(`Parcel ${command.order}-${command.parcel}`);
    if (parcel.state === 'open') throw badState(`${parcel.code} is open already`);
    if (parcel.state === 'gone') throw badState(`${parcel.code} was handed over. Take it in as a return once it comes back`);
    if (parcel.loaded_at) throw badState(`${parcel.code} is on the van. Take it off first, then open it`);
    await this.labels.drop(tx, parcel.id);
    await update(
      tx,
      'parcel',
      { id: parcel.id },
      {
        state: 'open',
        carton: null,
        weight_g: null,
        carrier_id: null,
        service: null,
        price: null,
        tracking: null,
        booking: null,
        weight_why: null,
        label_pdf: null,
        label_asked_at: null,
        labelled_at: null,
      },
    );
    if (parcel.carton) await this.boxes.putBack(tx, act, parcel.carton, order);
    const table = await this.packing.table(tx, order.site_id, parcel.place_id);
    if (table) await this.containers.move(tx, act, parcel.place_id, table);
    await this.states.refresh(tx, [order.id]);
    const activityId = await this.activity.record(tx, act, {
      kind: 'packed',
      glyph: 'undo',
      title: `Parcel ${parcel.code} opened again`,
      detail: 'its label is void',
      document: order.code,
      siteId: order.site_id,
    });
    return { activityId };
  }

  /** Takes goods of one line out of one open parcel into another. */
  async repack(tx: Tx, act: Act, command: RepackCommand): Promise<FloorAnswerDto> {
    const order = await this.packing.locked(tx, act, command.order);
    const parcels = await Promise.all(
      (await this.queries.parcels(tx, order.id)).map(async (p) => ({
        ...p,
        open: p.state === 'open',
        contents: await this.queries.contents(tx, p.id),
      })),
    );
    const [from, to] = [command.from, command.to].map((n) => parcels.find((p) => p.number === n));
    const refusal = checkRepack(order.code, from, to, command.line, command.units);
    if (refusal || !from) throw refused(refusal ?? { band: 'not-this', title: order.code, detail: 'There is no such parcel' });
    const line = await one<{ id: number; itemId: number }>(
      tx,
      'SELECT id, item_id AS itemId FROM sales_order_line WHERE order_id = ? AND line = ?',
      [order.id, command.line],
    );
    const item = line && (await this.codebook.item(tx, order.site_id, line.itemId));
    const source = await this.parcel(tx, order.id, command.from);
    if (!line || !item || !source) throw notFound(`Line ${command.line} of ${order.code}`);
    const target = await this.packing.parcel(tx, order, command.to, source.place_id);
    await this.serials.moved(tx, item, source.id, target.id, command);
    const lots = await rows<{ lot_id: number; units: number }>(
      tx,
      'SELECT lot_id, units FROM parcel_line WHERE parcel_id = ? AND order_line_id = ? ORDER BY lot_id FOR UPDATE',
      [source.id, line.id],
    );
    let need = command.units;
    for (const lot of lots) {
      const units = Math.min(need, lot.units);
      if (units === 0) continue;
      need -= units;
      const goods = { itemId: line.itemId, lotId: lot.lot_id, condition: 'good' as const, units };
      await this.ledger.post(tx, act, [{ ...goods, fromPlaceId: source.place_id, toPlaceId: target.place_id }], {
        task: 'pack',
        document: order.code,
        how: command.how,
      });
      await this.reservations.move(
        tx,
        { lineId: line.id, itemId: line.itemId, siteId: order.site_id },
        { placeId: source.place_id, lotId: lot.lot_id },
        { placeId: target.place_id, lotId: lot.lot_id },
        units,
      );
      await this.packing.contentsChange(tx, source.id, line.id, lot.lot_id, -units);
      await this.packing.contentsChange(tx, target.id, line.id, lot.lot_id, units);
    }
    const activityId = await this.activity.record(tx, act, {
      kind: 'pack',
      glyph: 'full',
      title: goodsWords(command.units, item),
      detail: `out of parcel ${source.code} into ${target.code}`,
      document: order.code,
      siteId: order.site_id,
      how: command.how,
    });
    return { activityId };
  }

  /** The number of a piece that was taken out of a parcel, since its order wants fewer. */
  async serialOut(tx: Tx, act: Act, command: SerialOutCommand): Promise<FloorAnswerDto> {
    const order = await this.packing.locked(tx, act, command.order);
    const parcel = await this.serials.cameOut(tx, order.id, command.line, command.serial);
    const activityId = await this.activity.record(tx, act, {
      kind: 'pack',
      glyph: 'half',
      title: `${command.serial.trim().toUpperCase()} is out`,
      detail: `of parcel ${parcel}`,
      document: order.code,
      siteId: order.site_id,
    });
    return { activityId };
  }

  /** The order waits at the table, and why. */
  async park(tx: Tx, act: Act, command: ParkCommand): Promise<FloorAnswerDto> {
    const order = await this.packing.locked(tx, act, command.order);
    await this.states.park(tx, order.id, command.why);
    const activityId = await this.activity.record(tx, act, {
      kind: 'pack',
      glyph: 'held',
      title: `${order.code} parked`,
      detail: command.why,
      document: order.code,
      siteId: order.site_id,
    });
    return { activityId };
  }

  private parcel(tx: Tx, orderId: number, number: number): Promise<ParcelRow | undefined> {
    return one<ParcelRow>(
      tx,
      'SELECT id, code, place_id, state, carton, loaded_at FROM parcel WHERE order_id = ? AND number = ? FOR UPDATE',
      [orderId, number],
    );
  }
}
