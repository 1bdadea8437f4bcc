import { Injectable } from '@nestjs/common';
import { weightSlackG } from '@vectrum/core/cartons';
import { checkClose, type CloseParcelCommand, goodsWeightG, numberToScan } from '@vectrum/core/scan';
import { ActivityService } from '../activity/index.js';
import { BoxesService, CarriersQueries } from '../carriers/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { OrderStates } from '../orders/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  mustBeAt,
  notFound,
  NOW,
  one,
  Outbox,
  Problem,
  refused,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import { freeTotes, holdRounds } from '../picking/index.js';
import { SettingsService } from '../settings/index.js';
import type { PackLineDto } from './packing.dto.js';
import { type BenchOrder, PackingQueries } from './packing.queries.js';
import { PackingService } from './packing.service.js';
import { ParcelSerials } from './parcel-serials.js';
import { ParcelLabels } from './parcel-labels.service.js';

/** Closes parcels: contents and note proved, weight checked, the label asked for through the outbox. */
@Injectable()
export class ParcelsService {
  constructor(
    private readonly queries: PackingQueries,
    private readonly packing: PackingService,
    private readonly outbox: Outbox,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
    private readonly settings: SettingsService,
    private readonly carriers: CarriersQueries,
    private readonly boxes: BoxesService,
    private readonly commands: CommandLog,
    private readonly labels: ParcelLabels,
    private readonly serials: ParcelSerials,
  ) {}

  /** Closes an open parcel. Refused while goods, the note or an odd weight want looking at. */
  async close(tx: Tx, act: Act, command: CloseParcelCommand): Promise<FloorAnswerDto> {
    await holdRounds(tx, command.order.toUpperCase());
    const order = await this.packing.locked(tx, act, command.order);
    const lines = await this.queries.lines(tx, order);
    const parcels = await Promise.all(
      (await this.queries.parcels(tx, order.id)).map(async (p) => ({
        ...p,
        open: p.state === 'open',
        contents: await this.queries.contents(tx, p.id),
      })),
    );
    const parcel = parcels.find((p) => p.number === command.parcel);
    const left = lines.reduce((sum, l) => sum + l.picked - l.packed, 0);
    const refusal = checkClose(parcels, command.parcel, left, !order.note_packer || order.note_seen_by !== null, command.more);
    if (refusal || !parcel)
      throw refused(refusal ?? { band: 'not-this', title: `Parcel ${command.parcel}`, detail: 'Nothing is in it yet' });
    await this.mustBeOnlyItsOwn(tx, order.id, parcel.code);
    const over = await this.serials.over(tx, parcel.id);
    if (over > 0) throw refused(numberToScan(over));
    const isOdd = await this.isOddWeight(tx, lines, parcel.contents, command);
    const carrier = command.service && (await this.carriers.byCode(tx, command.service.carrier));
    await update(
      tx,
      'parcel',
      { id: parcel.id },
      {
        state: 'label-asked',
        carton: command.carton,
        weight_g: command.weightG,
        weight_why: isOdd ? (command.weightWhy?.trim() ?? 'looked into') : null,
        carrier_id: carrier?.id ?? null,
        service: command.service?.code ?? null,
        label_asked_at: NOW,
      },
    );
    await this.boxes.taken(tx, act, command.carton, order);
    await this.freeTotes(tx, order);
    await this.states.refresh(tx, [order.id]);
    await this.outbox.send(
      tx,
      `carrier:${carrier?.code ?? 'any'}/${parcel.code}`,
      'carrier.label',
      { parcel: parcel.code },
      { siteId: order.site_id, document: order.code },
    );
    const activityId = await this.activity.record(tx, act, {
      kind: 'packed',
      glyph: 'full',
      title: `${order.code} packed`,
      detail: `Parcel ${parcel.number}, ${(command.weightG / 1000).toFixed(2)} kg${isOdd ? ` (${command.weightWhy?.trim() ?? 'looked into'})` : ''}, ${carrier?.name ?? 'the cheapest service'}`,
      document: order.code,
      siteId: order.site_id,
    });
    return { activityId };
  }

  /** Has the label of a closed parcel asked for by another service. What was asked before is let go; whichever comes is its label. */
  sendBy(act: Act, code: string, service: CloseParcelCommand['service']): Promise<void> {
    return this.commands.run(act, 'parcel.send-by', { code, service }, async (tx) => {
      const parcel = await one<{ id: number; state: string; order: string; site_id: number }>(
        tx,
        'SELECT p.id, p.state, (SELECT o.code FROM sales_order o WHERE o.id = p.order_id) AS `order`, (SELECT w.site_id FROM place w WHERE w.id = p.place_id) AS site_id FROM parcel p WHERE p.code = ? FOR UPDATE',
        [code],
      );
      if (!parcel) throw notFound(`Parcel ${code}`);
      mustBeAt(act.person, parcel.site_id);
      if (parcel.state !== 'label-asked')
        throw badState(parcel.state === 'open' ? `${code} is still open. Close it first` : `${code} has its label. Go on with it`);
      const carrier = service && (await this.carriers.byCode(tx, service.carrier));
      await this.labels.drop(tx, parcel.id);
      await update(
        tx,
        'parcel',
        { id: parcel.id },
        { carrier_id: carrier?.id ?? null, service: service?.code ?? null, label_asked_at: NOW },
      );
      await this.outbox.hurry(tx, 'carrier.label', parcel.order);
      await this.activity.record(tx, act, {
        kind: 'packed',
        glyph: 'half',
        title: `${code} goes another way`,
        detail: carrier?.name ?? 'the cheapest service',
        document: parcel.order,
        siteId: parcel.site_id,
      });
    });
  }

  /** The number under which a carrier without a system of its own knows a parcel: typed from its paper. */
  numbered(act: Act, code: string, tracking: string): Promise<void> {
    return this.commands.run(act, 'parcel.number', { code, tracking }, async (tx) => {
      const parcel = await one<{
        id: number;
        state: string;
        order: string;
        site_id: number;
        carrier: string | null;
        system: string | null;
      }>(
        tx,
        'SELECT p.id, p.state, (SELECT o.code FROM sales_order o WHERE o.id = p.order_id) AS `order`, (SELECT w.site_id FROM place w WHERE w.id = p.place_id) AS site_id, (SELECT c.name FROM carrier c WHERE c.id = p.carrier_id) AS carrier, (SELECT c.base_url FROM carrier c WHERE c.id = p.carrier_id) AS `system` FROM parcel p WHERE p.code = ? FOR UPDATE',
        [code],
      );
      if (!parcel) throw notFound(`Parcel ${code}`);
      mustBeAt(act.person, parcel.site_id);
      if (parcel.system !== null) throw badState(`${parcel.carrier ?? 'Its carrier'} gives its numbers itself`);
      if (parcel.state !== 'labelled') throw badState(`${code} has no label, or has left with the number that it has`);
      const taken = await one<{ code: string }>(tx, 'SELECT code FROM parcel WHERE tracking = ? AND id <> ? LIMIT 1', [
        tracking,
        parcel.id,
      ]);
      if (taken) throw badForm({ tracking: `${taken.code} has this number. Look at the paper again` });
      await update(tx, 'parcel', { id: parcel.id }, { tracking });
      await this.activity.record(tx, act, {
        kind: 'label',
        glyph: 'full',
        title: `${code} goes as ${tracking}`,
        detail: parcel.carrier ?? '',
        document: parcel.order,
        siteId: parcel.site_id,
      });
    });
  }

  /** Whether a weight is not as expected. Refused unless somebody has looked and says that it is right. */
  private async isOddWeight(
    tx: Tx,
    lines: readonly PackLineDto[],
    contents: readonly { line: number; units: number }[],
    command: CloseParcelCommand,
  ): Promise<boolean> {
    const carton = await one<{ tare_g: number; most_g: number }>(tx, 'SELECT tare_g, most_g FROM carton WHERE code = ?', [command.carton]);
    if (!carton) throw notFound(`Box ${command.carton}`);
    if (command.weightG > carton.most_g)
      throw badForm({
        weightG: `Box ${command.carton} carries ${(carton.most_g / 1000).toFixed(1)} kg at most. Take a larger one or a second box`,
      });
    const goods = goodsWeightG({ lines }, contents);
    if (goods === null) return false;
    const expected = goods + carton.tare_g;
    const off = command.weightG - expected;
    const slack = weightSlackG(expected, await this.settings.get(tx, 'weightPercent'), await this.settings.get(tx, 'weightGrams'));
    if (Math.abs(off) <= slack) return false;
    if (!command.weightSeen)
      throw new Problem(
        409,
        'refused',
        `${Math.abs(off)} g ${off > 0 ? 'heavier' : 'lighter'} than its goods should be. Look into the box, then weigh again or say that it is right`,
        { band: off > 0 ? 'too-many' : 'not-this', title: 'Weight is off' },
      );
    return true;
  }

  /** What the order wants no longer must be out of the box before it is closed. */
  private async mustBeOnlyItsOwn(tx: Tx, orderId: number, code: string): Promise<void> {
    const spare = (await this.queries.spare(tx, orderId)).find((s) => s.code === code);
    if (!spare) return;
    const item = await one<{ name: string }>(tx, 'SELECT name FROM item WHERE id = ?', [spare.itemId]);
    throw new Problem(409, 'refused', `The order has changed. Take ${spare.units} of ${item?.name ?? 'these'} out and put them away`, {
      band: 'too-many',
      title: 'Not in this parcel',
    });
  }

  /** Units of a line are wanted no longer in an open parcel; they lie there until somebody puts them away. */
  async takeOut(tx: Tx, parcelId: number, lineId: number, lotId: number, units: number): Promise<void> {
    await this.serials.fewer(tx, parcelId, lineId, units);
    return this.packing.contentsChange(tx, parcelId, lineId, lotId, -units);
  }

  /** Takes the parcels of an order that have not left apart: their labels are void, and carriers who sold one are told. */
  async takeApart(tx: Tx, order: { id: number; code: string }): Promise<{ id: number; code: string }[]> {
    const parcels = await rows<{ id: number; code: string }>(
      tx,
      `SELECT id, code FROM parcel WHERE order_id = ? AND state IN ('open','label-asked','labelled') ORDER BY id FOR UPDATE`,
      [order.id],
    );
    for (const { id } of parcels) {
      await update(tx, 'parcel', { id }, { state: 'void' });
      await this.serials.apart(tx, id);
      await this.labels.drop(tx, id);
    }
    return parcels;
  }

  /** Totes that are empty are free for the next order once no parcel is open whose goods could go back into them. */
  private async freeTotes(tx: Tx, order: BenchOrder): Promise<void> {
    const open = await one(tx, `SELECT id FROM parcel WHERE order_id = ? AND state = 'open' LIMIT 1`, [order.id]);
    if (open) return;
    await freeTotes(tx, order.id);
  }

  /** What its carrier says of a parcel that it took. */
  async travelled(tx: Tx, parcelId: number, what: string, at: Date): Promise<void> {
    await update(tx, 'parcel', { id: parcelId }, { travel: what, travel_at: at });
  }

  /** Parcels stand on a van, or are off it again. */
  async onVan(tx: Tx, parcelIds: readonly number[], isOn: boolean): Promise<void> {
    await update(tx, 'parcel', { id: [...parcelIds] }, { loaded_at: isOn ? NOW : null });
  }

  /** The carrier has taken a parcel. */
  async gone(tx: Tx, parcelId: number, handOver: string): Promise<void> {
    await update(tx, 'parcel', { id: parcelId }, { state: 'gone', handed_over_at: NOW, hand_over: handOver });
  }
}
