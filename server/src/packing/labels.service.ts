import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { Containers } from '../allocation/index.js';
import { CarrierDesk, type CarrierRow, CarriersQueries, type RatesDto, type Shipment } from '../carriers/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  inTransaction,
  mustBeAt,
  notFound,
  NOW,
  num,
  one,
  Outbox,
  type OutboxMessage,
  type Person,
  type Tx,
  update,
} from '../platform/index.js';
import { PackingQueries } from './packing.queries.js';
import { ParcelLabels } from './parcel-labels.service.js';

interface ParcelRow {
  id: number;
  code: string;
  place_id: number;
  order_id: number;
  site_id: number;
  order: string;
  state: string;
  weight_g: number;
  carton: string | null;
  carrier_id: number | null;
  service: string | null;
}

/** Asks carriers for prices and labels, keeps what they answer, and has labels printed. */
@Injectable()
export class LabelService implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly queries: PackingQueries,
    private readonly carriers: CarriersQueries,
    private readonly desk: CarrierDesk,
    private readonly containers: Containers,
    private readonly outbox: Outbox,
    private readonly activity: ActivityService,
    private readonly labels: ParcelLabels,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('carrier.label', (message) => this.fetchLabel(message));
    this.outbox.handle('carrier.void', async ({ payload }) => {
      const id = Number(payload['label']);
      const label = await this.labels.toGiveBack(this.source, id);
      if (!label) return;
      const carrier = await this.carriers.spokenTo(label.carrier).catch(() => null);
      if (carrier) await this.desk.voidLabel(carrier, label);
      await this.labels.givenBack(this.source, id);
    });
  }

  /** Services and prices of each carrier of the site for a weighed parcel: the cheapest that keeps the promise first. */
  async rates(person: Person, code: string, weightG: number, box: string | null): Promise<RatesDto> {
    if (!Number.isInteger(weightG) || weightG < 1) throw badForm({ weight: 'Weigh the parcel first: grams, a whole number' });
    const order = await this.queries.orderOf(this.source, code);
    mustBeAt(person, order.site_id);
    const { speed, ...shipment } = await this.shipment(this.source, order.id, `${code}-1`, weightG, box);
    return this.desk.ratesAt(order.site_id, shipment, speed);
  }

  private async shipment(
    tx: Pick<Tx, 'query'>,
    orderId: number,
    parcel: string,
    weightG: number,
    box: string | null,
  ): Promise<Shipment & { speed: string }> {
    const found = await one<Shipment['to'] & { speed: string }>(
      tx,
      'SELECT customer AS name, address_line AS line, city, postcode, country, speed FROM sales_order WHERE id = ?',
      [orderId],
    );
    if (!found) throw notFound('That order');
    const { speed, ...to } = found;
    return { parcel, weightG, sizeMm: await this.carriers.sizeOf(tx, box), to, speed };
  }

  /** Carries out one label request: asks the carrier, keeps label and tracking, stands the parcel in its lane, prints. */
  private async fetchLabel(message: OutboxMessage): Promise<void> {
    const code = String(message.payload['parcel']);
    const parcel = await one<ParcelRow>(
      this.source,
      'SELECT p.id, p.code, p.place_id, p.order_id, w.site_id, o.code AS `order`, p.state, p.weight_g, p.carton, p.carrier_id, p.service FROM parcel p JOIN sales_order o ON o.id = p.order_id JOIN place w ON w.id = p.place_id WHERE p.code = ?',
      [code],
    );
    if (!parcel || parcel.state !== 'label-asked') return;
    const { speed, ...shipment } = await this.shipment(this.source, parcel.order_id, code, num(parcel.weight_g), parcel.carton);
    const { carrier, service } = await this.chosen(parcel, shipment, speed);
    const isAsked = async (tx: Tx) =>
      (await one<{ state: string }>(tx, 'SELECT state FROM parcel WHERE id = ? FOR UPDATE', [parcel.id]))?.state === 'label-asked';
    const wish = await inTransaction(this.source, async (tx) =>
      (await isAsked(tx)) ? this.labels.ask(tx, parcel, carrier.id, service) : null,
    );
    if (!wish) return;
    const label = await this.desk.label(carrier, { ...shipment, service, reference: wish.reference });
    await inTransaction(this.source, async (tx) => {
      const isOpenForIt = await isAsked(tx);
      if (!(await this.labels.answered(tx, wish.id, label)) || !isOpenForIt) return;
      await update(
        tx,
        'parcel',
        { id: parcel.id },
        {
          state: 'labelled',
          carrier_id: carrier.id,
          service,
          tracking: label.tracking,
          price: label.price,
          label_pdf: label.pdf,
          booking: label.booking,
          labelled_at: NOW,
        },
      );
      await this.containers.move(tx, null, parcel.place_id, carrier.lane_place_id);
      await this.toPrinter(tx, parcel);
      await this.activity.record(tx, null, {
        kind: 'label',
        glyph: 'print',
        title: `Label for ${code}`,
        detail: `${carrier.name}, ${label.tracking}`,
        document: parcel.order,
        siteId: parcel.site_id,
      });
    });
  }

  /** Sends the label of a parcel to the printer once more, or sooner where it waits for it. */
  printAgain(act: Act, code: string): Promise<void> {
    return this.commands.run(act, 'parcel.print', { code }, async (tx) => {
      const parcel = await one<{ state: string; order: string; site_id: number }>(
        tx,
        'SELECT p.state, o.code AS `order`, w.site_id FROM parcel p JOIN sales_order o ON o.id = p.order_id JOIN place w ON w.id = p.place_id WHERE p.code = ?',
        [code],
      );
      if (!parcel) throw notFound(`Parcel ${code}`);
      mustBeAt(act.person, parcel.site_id);
      if (parcel.state !== 'labelled') throw badState(`${code} has no label to print`);
      const waits = await one(
        tx,
        `SELECT id FROM outbox WHERE kind = 'print.label' AND document = ? AND state <> 'done' AND JSON_VALUE(payload, '$.parcel') = ? LIMIT 1`,
        [parcel.order, code],
      );
      // One that waits for the printer is only tried sooner: two would come out of it.
      if (!waits) await this.toPrinter(tx, { code, ...parcel });
      await this.outbox.hurry(tx, 'print.label', parcel.order);
    });
  }

  private toPrinter(tx: Tx, { code, order, site_id }: Pick<ParcelRow, 'code' | 'order' | 'site_id'>): Promise<void> {
    return this.outbox.send(tx, `printer:site-${site_id}`, 'print.label', { parcel: code }, { siteId: site_id, document: order });
  }

  /** The service that was chosen at the table; where none could be asked for there, the one proposed now. It stays the choice. */
  private async chosen(parcel: ParcelRow, shipment: Shipment, speed: string): Promise<{ carrier: CarrierRow; service: string }> {
    const all = await this.carriers.atSite(parcel.site_id);
    const known = all.find((c) => c.id === parcel.carrier_id);
    if (known && parcel.service) return { carrier: known, service: parcel.service };
    const { rates, silent } = await this.desk.ratesAt(parcel.site_id, shipment, speed);
    const cheapest = rates[0];
    const carrier = all.find((c) => c.code === cheapest?.carrier);
    if (!cheapest || !carrier) throw new Error(silent[0] ?? 'No carrier of this site takes the parcel');
    await update(this.source, 'parcel', { id: parcel.id, carrier_id: null }, { carrier_id: carrier.id, service: cheapest.service });
    return { carrier, service: cheapest.service };
  }
}
