import { Injectable, type OnModuleInit } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/activity.service.js';
import { SettingsService } from '../company/settings.service.js';
import { PackingQueries, goodsWeight, type BenchOrder } from './packing.queries.js';
import type { LabelDto, RatesDto } from './packing.dto.js';
import { weightTolerance } from './weight.js';
import { type Act, mustBeAt, type Person } from '../platform/act.js';
import { CommandLog } from '../platform/command-log.js';
import { inTransaction, num, one, rows, type Tx } from '../platform/database/tx.js';
import { Outbox, type OutboxMessage } from '../platform/outbox.js';
import { badForm, badState, notFound, Problem } from '../platform/problem.js';
import type { PostedDto } from '../receiving/receiving.dto.js';
import { CarrierClient, type CarrierRow, type Shipment } from '../dispatch/carrier.client.js';

const CARRIER_FIELDS = 'id, code, name, base_url, api_key, lane_place_id';

interface ParcelRow {
  id: number;
  code: string;
  place_id: number;
  order_id: number;
  site_id: number;
  order: string;
  state: string;
  weight_g: number;
  service: string;
}

/** Closes parcels: weight checked, service chosen, label asked of the carrier through the outbox and printed. */
@Injectable()
export class LabelService implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly queries: PackingQueries,
    private readonly carriers: CarrierClient,
    private readonly outbox: Outbox,
    private readonly activity: ActivityService,
    private readonly settings: SettingsService,
  ) {}

  onModuleInit(): void {
    this.outbox.handle('carrier.label', (message) => this.fetchLabel(message));
  }

  async rates(person: Person, code: string, weightG: number): Promise<RatesDto> {
    if (!Number.isInteger(weightG) || weightG < 1) throw badForm({ weight: 'Weigh the parcel first: grams, a whole number' });
    const order = await this.queries.orderOf(this.source, code);
    mustBeAt(person, order.site_id);
    const shipment = await this.shipment(this.source, order.id, `${code}-1`, weightG);
    const found = await rows<CarrierRow>(
      this.source,
      `SELECT c.id, c.code, c.name, c.base_url, c.api_key, c.lane_place_id FROM carrier c JOIN place p ON p.id = c.lane_place_id WHERE p.site_id = ?`,
      [order.site_id],
    );
    const silent: string[] = [];
    const answers = await Promise.all(
      found.map((carrier) =>
        this.carriers.rates(carrier, shipment).catch((thrown: unknown) => {
          silent.push(`${carrier.name}: ${thrown instanceof Error ? thrown.message : 'no answer'}`);
          return [];
        }),
      ),
    );
    return { rates: answers.flat().sort((a, b) => Number(a.price) - Number(b.price)), silent };
  }

  /** Closes the open parcel. Refused while goods, the note or an odd weight want looking at. */
  ask(act: Act, code: string, input: LabelDto): Promise<PostedDto> {
    return this.commands.run(act, 'pack.label', { code, input }, async (tx) => {
      await one(tx, 'SELECT id FROM sales_order WHERE code = ? FOR UPDATE', [code]);
      const order = await this.queries.orderOf(tx, code);
      mustBeAt(act.person, order.site_id);
      if (order.state !== 'picked') throw badState(`${code} is ${order.state} already`);
      await this.mustBeProved(tx, order);
      await this.mustWeigh(tx, order, input);
      const carrier = await one<CarrierRow>(tx, `SELECT ${CARRIER_FIELDS} FROM carrier WHERE code = ?`, [input.carrier]);
      if (!carrier) throw notFound(`Carrier ${input.carrier}`);
      const parcel = await one<{ id: number; code: string }>(
        tx,
        `SELECT id, code FROM parcel WHERE order_id = ? AND state = 'open' FOR UPDATE`,
        [order.id],
      );
      if (!parcel) throw badState(`Nothing of ${code} is in a parcel yet`);
      await tx.query(
        `UPDATE parcel SET state = 'label-asked', carton = ?, weight_g = ?, carrier_id = ?, service = ?, label_asked_at = UTC_TIMESTAMP(3) WHERE id = ?`,
        [input.carton, input.weightG, carrier.id, input.service, parcel.id],
      );
      await tx.query(`UPDATE sales_order SET state = 'packed', version = version + 1 WHERE id = ?`, [order.id]);
      await tx.query(`UPDATE pick_round SET state = 'done' WHERE id = ?`, [order.round_id]);
      await this.outbox.send(tx, `carrier:${carrier.code}/${parcel.code}`, 'carrier.label', { parcel: parcel.code }, code);
      const activityId = await this.activity.record(tx, act, {
        kind: 'packed',
        glyph: 'full',
        title: `${code} packed`,
        detail: `1 parcel, ${(input.weightG / 1000).toFixed(2)} kg, ${carrier.name}`,
        document: code,
        siteId: order.site_id,
      });
      return { activityId };
    });
  }

  private async mustBeProved(tx: Tx, order: BenchOrder): Promise<void> {
    const task = await this.queries.task(tx, order);
    const left = task.lines.reduce((sum, l) => sum + l.picked - l.packed, 0);
    if (left > 0) throw badState(`${left} ${left === 1 ? 'piece is' : 'pieces are'} still to scan into the parcel`);
    if (task.note && !task.noteSeen) throw badState('Read the customer’s note and say so before the label is printed');
  }

  private async mustWeigh(tx: Tx, order: BenchOrder, input: LabelDto): Promise<void> {
    const carton = await one<{ tare_g: number; most_g: number }>(tx, 'SELECT tare_g, most_g FROM carton WHERE code = ?', [input.carton]);
    if (!carton) throw notFound(`Box ${input.carton}`);
    if (input.weightG > carton.most_g)
      throw badForm({
        weightG: `Box ${input.carton} carries ${(carton.most_g / 1000).toFixed(1)} kg at most. Take a larger one or a second box`,
      });
    const goods = goodsWeight(await this.queries.sizes(tx, order.id));
    if (goods === null || input.weightSeen) return;
    const expected = goods + carton.tare_g;
    const off = input.weightG - expected;
    if (
      Math.abs(off) > weightTolerance(expected, await this.settings.get(tx, 'weightPercent'), await this.settings.get(tx, 'weightGrams'))
    ) {
      throw new Problem(
        409,
        'refused',
        `${Math.abs(off)} g ${off > 0 ? 'heavier' : 'lighter'} than its goods should be. Look into the box, then weigh again or say that it is right`,
        { band: off > 0 ? 'too-many' : 'not-this', title: 'Weight is off' },
      );
    }
  }

  private async shipment(tx: Pick<Tx, 'query'>, orderId: number, parcel: string, weightG: number): Promise<Shipment> {
    const to = await one<Shipment['to']>(
      tx,
      'SELECT customer AS name, address_line AS line, city, postcode, country FROM sales_order WHERE id = ?',
      [orderId],
    );
    if (!to) throw notFound('That order');
    return { parcel, weightG, to };
  }

  /** Carries out one label request: asks the carrier, keeps label and tracking, stands the parcel in its lane, prints. */
  private async fetchLabel(message: OutboxMessage): Promise<void> {
    const code = String(message.payload['parcel']);
    const parcel = await one<ParcelRow>(
      this.source,
      'SELECT p.id, p.code, p.place_id, p.order_id, o.site_id, o.code AS `order`, p.state, p.weight_g, p.service FROM parcel p JOIN sales_order o ON o.id = p.order_id WHERE p.code = ?',
      [code],
    );
    const carrier = await one<CarrierRow>(
      this.source,
      `SELECT ${CARRIER_FIELDS.split(', ')
        .map((f) => `c.${f}`)
        .join(', ')} FROM carrier c JOIN parcel p ON p.carrier_id = c.id WHERE p.code = ?`,
      [code],
    );
    if (!parcel || !carrier || parcel.state !== 'label-asked') return;
    const label = await this.carriers.label(carrier, {
      ...(await this.shipment(this.source, parcel.order_id, code, num(parcel.weight_g))),
      service: parcel.service,
    });
    await inTransaction(this.source, async (tx) => {
      const now = await one<{ state: string }>(tx, 'SELECT state FROM parcel WHERE id = ? FOR UPDATE', [parcel.id]);
      if (now?.state !== 'label-asked') return;
      await tx.query(
        `UPDATE parcel SET state = 'labelled', tracking = ?, price = ?, label_pdf = ?, labelled_at = UTC_TIMESTAMP(3) WHERE id = ?`,
        [label.tracking, label.price, label.pdf, parcel.id],
      );
      await tx.query('UPDATE place SET parent_id = ? WHERE id = ?', [carrier.lane_place_id, parcel.place_id]);
      await this.outbox.send(tx, `printer:site-${parcel.site_id}`, 'print.label', { parcel: code }, parcel.order);
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
}
