import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { AllocationService, Reservations } from '../allocation/index.js';
import { CarriersQueries } from '../carriers/index.js';
import { CalendarQueries } from '../company/index.js';
import { OrderStates } from '../orders/index.js';
import { ParcelsService } from '../packing/index.js';
import {
  type Act,
  badState,
  CommandLog,
  marks,
  mustBeAt,
  nextCode,
  notFound,
  num,
  one,
  Outbox,
  PAPER,
  type Person,
  rows,
  task,
  type Tx,
  Work,
} from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { LedgerService } from '../stock/index.js';
import type { HandOverList, handOverListPdf } from './hand-over-list.pdf.js';
import type { HandedOverDto, HandOverDto, LaneDto, WaitingParcelDto } from './dispatch.dto.js';

interface ParcelRow {
  id: number;
  code: string;
  order_id: number;
  place_id: number;
  state: string;
  tracking: string | null;
  site_id: number;
}
interface LineRow {
  order_line_id: number;
  item_id: number;
  lot_id: number;
  units: number;
}

const LIST = task<typeof handOverListPdf>('dispatch/handOverListPdf', ...PAPER);

/** Lanes without a departure come last. */
const leavesBy = (lane: Pick<LaneDto, 'collectsAt'>) => lane.collectsAt?.getTime() ?? Number.MAX_SAFE_INTEGER;

/** The dispatch lanes, and the hand-over to a carrier: from then on the goods are gone. */
@Injectable()
export class DispatchService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly reservations: Reservations,
    private readonly states: OrderStates,
    private readonly parcels: ParcelsService,
    private readonly outbox: Outbox,
    private readonly activity: ActivityService,
    private readonly carriers: CarriersQueries,
    private readonly calendars: CalendarQueries,
    private readonly settings: SettingsService,
    private readonly work: Work,
  ) {}

  async lanes(siteIds: readonly number[]): Promise<LaneDto[]> {
    const lanes = await rows<Omit<LaneDto, 'parcels' | 'collectsAt'>>(
      this.source,
      `SELECT c.code AS carrier, c.name, p.code AS lane, l.site_id AS siteId FROM carrier c JOIN carrier_lane l ON l.carrier_id = c.id JOIN place p ON p.id = l.place_id WHERE l.site_id IN (?) ORDER BY c.name, p.code`,
      [[0, ...siteIds]],
    );
    const parcels = await rows<WaitingParcelDto>(
      this.source,
      `SELECT p.code, o.code AS \`order\`, o.customer, p.state, w.site_id AS siteId, c.code AS carrier, c.name AS carrierName, p.service, p.weight_g AS weightG, p.tracking, COALESCE(p.labelled_at, p.label_asked_at) AS since, o.promised_at AS promisedAt,
         (SELECT x.last_error FROM outbox x WHERE x.kind = 'carrier.label' AND x.document = o.code AND x.state = 'failing' LIMIT 1) AS trouble
       FROM parcel p JOIN sales_order o ON o.id = p.order_id JOIN carrier c ON c.id = p.carrier_id JOIN place w ON w.id = p.place_id
       WHERE p.state IN ('label-asked','labelled') AND w.site_id IN (?) ORDER BY p.id`,
      [[0, ...siteIds]],
    );
    const boards = await this.calendars.boards(siteIds);
    const nextVan = (lane: (typeof lanes)[number]) => boards.get(lane.siteId)?.next((van) => van?.carrier === lane.carrier)?.at ?? null;
    return lanes
      .map((lane) => ({
        ...lane,
        collectsAt: nextVan(lane),
        parcels: parcels.filter((p) => p.carrier === lane.carrier && p.siteId === lane.siteId),
      }))
      .sort((a, b) => leavesBy(a) - leavesBy(b));
  }

  async label(code: string, siteIds: readonly number[]): Promise<Buffer> {
    const found = await one<{ label_pdf: Buffer | null }>(
      this.source,
      'SELECT p.label_pdf FROM parcel p JOIN sales_order o ON o.id = p.order_id WHERE p.code = ? AND o.site_id IN (?)',
      [code, [0, ...siteIds]],
    );
    if (!found?.label_pdf) throw notFound(`A label for ${code}`);
    return found.label_pdf;
  }

  /** The list of a hand-over, for the driver to sign. */
  async list(code: string, person: Person): Promise<Buffer> {
    const parcels = await rows<
      HandOverList['parcels'][number] & { carrier: string; site: string; siteId: number; timeZone: string; at: Date }
    >(
      this.source,
      `SELECT p.code, o.customer, CONCAT(o.city, ' ', o.postcode) AS place, p.service, p.weight_g AS weightG, p.tracking, c.name AS carrier, s.name AS site, s.id AS siteId, s.time_zone AS timeZone, p.handed_over_at AS at
       FROM parcel p JOIN sales_order o ON o.id = p.order_id JOIN carrier c ON c.id = p.carrier_id JOIN place w ON w.id = p.place_id JOIN site s ON s.id = w.site_id WHERE p.hand_over = ? ORDER BY p.code`,
      [code],
    );
    const first = parcels[0];
    if (!first) throw notFound(`Hand-over ${code}`);
    mustBeAt(person, first.siteId);
    const at = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone: first.timeZone }).format(first.at);
    const weightG = parcels.reduce((sum, p) => sum + p.weightG, 0);
    return this.work.run(LIST, { code, carrier: first.carrier, site: first.site, at, weightG, parcels }, await this.settings.letterhead());
  }

  /** The driver takes these parcels: stock leaves the ledger, shop and customer are told. */
  handOver(act: Act, input: HandOverDto): Promise<HandedOverDto> {
    return this.commands.run(act, 'dispatch.hand-over', input, async (tx) => {
      const carrier = await this.carriers.byCode(tx, input.carrier.toUpperCase());
      const codes = [...new Set(input.parcels.map((p) => p.toUpperCase()))];
      const named = await rows<{ orderId: number }>(tx, `SELECT order_id AS orderId FROM parcel WHERE code IN (${marks(codes)})`, codes);
      await this.states.lock(
        tx,
        named.map((p) => p.orderId),
      );
      const parcels = await rows<ParcelRow>(
        tx,
        `SELECT id, code, order_id, place_id, state, tracking, (SELECT w.site_id FROM place w WHERE w.id = parcel.place_id) AS site_id FROM parcel WHERE code IN (${marks(codes)}) AND carrier_id = ? ORDER BY order_id, id FOR UPDATE`,
        [...codes, carrier.id],
      );
      const missing = codes.find((code) => !parcels.some((p) => p.code === code));
      if (missing) throw notFound(`Parcel ${missing} for ${carrier.name}`);
      const siteId = parcels[0]?.site_id ?? 0;
      mustBeAt(act.person, siteId);
      const elsewhere = parcels.find((p) => p.site_id !== siteId);
      if (elsewhere) throw badState(`${elsewhere.code} stands at another site. Hand over the parcels of one van at a time`);
      const early = parcels.find((p) => p.state !== 'labelled');
      if (early) throw badState(early.state === 'gone' ? `${early.code} was handed over already` : `${early.code} has no label yet`);
      const held = await one<{ code: string; why: string }>(
        tx,
        'SELECT o.code, o.hold_reason AS why FROM sales_order o WHERE o.id IN (?) AND o.hold_reason IS NOT NULL ORDER BY o.id LIMIT 1',
        [[0, ...named.map((p) => p.orderId)]],
      );
      if (held) throw badState(`${held.code} is held: ${held.why}. Leave its parcels here`);
      const code = await nextCode(tx, 'H');
      for (const parcel of parcels) await this.send(tx, act, parcel, { name: carrier.name, site_id: siteId }, code);
      await this.activity.record(tx, act, {
        kind: 'hand-over',
        glyph: 'go',
        title: `${parcels.length} ${parcels.length === 1 ? 'parcel' : 'parcels'} handed to ${carrier.name}`,
        detail: codes.slice(0, 6).join(', '),
        document: code,
        siteId,
      });
      return { code, parcels: parcels.length };
    });
  }

  private async send(tx: Tx, act: Act, parcel: ParcelRow, carrier: { name: string; site_id: number }, handOver: string): Promise<void> {
    const order = await one<{
      code: string;
      channel: string;
      base_url: string | null;
      channel_ref: string;
      email: string;
      site_id: number;
    }>(
      tx,
      'SELECT o.code, c.code AS channel, c.base_url, o.channel_ref, o.email, o.site_id FROM sales_order o JOIN channel c ON c.id = o.channel_id WHERE o.id = ?',
      [parcel.order_id],
    );
    if (!order) throw notFound(`The order of ${parcel.code}`);
    const lines = await rows<LineRow>(
      tx,
      'SELECT pl.order_line_id, l.item_id, pl.lot_id, pl.units FROM parcel_line pl JOIN sales_order_line l ON l.id = pl.order_line_id WHERE pl.parcel_id = ? ORDER BY l.item_id, pl.lot_id',
      [parcel.id],
    );
    const customer = await this.ledger.outside(tx, 'customer');
    const { changes } = await this.ledger.post(
      tx,
      act,
      lines.map((l) => ({
        itemId: l.item_id,
        lotId: l.lot_id,
        condition: 'good' as const,
        fromPlaceId: parcel.place_id,
        toPlaceId: customer,
        units: l.units,
      })),
      { task: 'ship', document: order.code, how: null },
    );
    for (const line of lines) {
      await this.states.progress(tx, line.order_line_id, { shipped: line.units });
      const holder = { lineId: line.order_line_id, itemId: line.item_id, siteId: carrier.site_id };
      await this.reservations.free(tx, holder, { placeId: parcel.place_id, lotId: line.lot_id }, line.units);
    }
    await this.parcels.gone(tx, parcel.id, handOver);
    const rest = await one<{ n: string }>(
      tx,
      'SELECT COUNT(*) AS n FROM sales_order_line l LEFT JOIN item i ON i.id = l.item_id WHERE l.order_id = ? AND l.shipped_units < l.units AND COALESCE(i.never_holds_up, 0) = 0',
      [parcel.order_id],
    );
    await this.states.left(tx, parcel.order_id);
    await this.allocation.settle(tx, changes);
    const from = { siteId: carrier.site_id, document: order.code };
    if (order.base_url)
      await this.outbox.send(
        tx,
        `channel:${order.channel}`,
        'channel.shipment',
        {
          channel: order.channel,
          ref: order.channel_ref,
          parcel: parcel.code,
          carrier: carrier.name,
          tracking: parcel.tracking,
          complete: num(rest?.n) === 0,
        },
        from,
      );
    if (order.email)
      await this.outbox.send(
        tx,
        `mail:${order.email}`,
        'mail.shipment',
        {
          order: order.code,
          parcel: parcel.code,
          carrier: carrier.name,
          tracking: parcel.tracking,
          to: order.email,
        },
        from,
      );
  }
}
