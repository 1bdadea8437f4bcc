import { randomUUID } from 'node:crypto';
import { departuresFrom, type SiteCalendar } from '@vectrum/core/promise';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CalendarQueries } from '../company/index.js';
import { OrderIntake } from '../orders/index.js';
import { PickingQueries, ReleaseService, RunRules } from '../picking/index.js';
import { type Act, num, one, promisedSql, rows } from '../platform/index.js';
import { DemoHands } from './hands.js';
import { actAs } from './morning.js';
import { DemoWall } from './wall.js';
import { everyDayItems } from './goods.js';
import { seeded } from '@vectrum/core/random';

const CUSTOMERS = [
  'Fernlea Allotments',
  'G. Ashdown',
  'Thornby School',
  'Nettle Lane Farm Shop',
  'Petra Lindow',
  'Coldharbour Apiary',
  'Tide End Bees',
  'M. Okafor',
  'Bramley and Daughters',
  'Hollow Elm Honey',
  'St Bride’s Growers',
  'R. Whitlow',
  'Ines Garrow',
  'Harrow Down Nursery',
  'Juno Appleyard',
  'O. Faraway',
  'Lowfold Beekeepers',
  'Moss Side Community Garden',
  'T. Ravensworth',
  'Wick Hill Farm',
];
const TOWNS = [
  ['Mill Lane 4', 'Ambleforth', 'AM4 7TQ'],
  ['The Croft', 'Skelby', 'SK2 9LD'],
  ['12 Weir Street', 'Hathersley', 'HA1 3PN'],
  ['Orchard Cottage', 'Netherwick', 'NW8 2RE'],
  ['Unit 3, Ropewalk', 'Quayside', 'QY1 1AB'],
] as const;
const CHANNELS = ['SHOP', 'SHOP', 'SHOP', 'LINDEN', 'TRADE', 'PHONE'] as const;
const LINDEN_SKUS = ['LM-88121', 'LM-88140', 'LM-90017', 'LM-90230', 'LM-91402', 'LM-91555'];
const HOUR = 3_600_000;
const ORDERS = 60;
const ORDERS_A_DAY = 24;
/** So many rounds are set down when the demo begins; of those after them, two are half walked. */
const WALKED = 7;
/** Orders on the round of several. */
const TOGETHER = 4;
/** Orders that are sent to picking, and those of them that are sorted at the wall. */
const RELEASED = 16;
const AT_THE_WALL = 4;

const fresh = (act: Act): Act => ({ ...act, key: randomUUID() });

/**
 * What the nth order is promised for: the next two vans that can still be caught for the first orders, the two after them for the next.
 * In the evening these are tomorrow's, so that the house has its day before it whenever the demo is begun.
 */
export function promiseOf(n: number, calendar: SiteCalendar, now: Date): Date {
  const index = Math.floor(n / ORDERS_A_DAY) * 2 + (n % 2);
  let seen = 0;
  for (const van of departuresFrom(new Date(now.getTime() + HOUR / 2), calendar)) if (seen++ === index) return van.at;
  return now;
}

/** About sixty orders over all channels, some of them on their way through the house. */
@Injectable()
export class DemoOrders {
  constructor(
    private readonly source: DataSource,
    private readonly intake: OrderIntake,
    private readonly releases: ReleaseService,
    private readonly rounds: PickingQueries,
    private readonly hands: DemoHands,
    private readonly calendars: CalendarQueries,
    private readonly wall: DemoWall,
    private readonly runs: RunRules,
  ) {}

  async takeIn(): Promise<void> {
    const random = seeded(2026);
    const now = Date.now();
    const channels = new Map(
      (await rows<{ id: number; code: string; site_id: number }>(this.source, 'SELECT id, code, site_id FROM channel')).map((c) => [
        c.code,
        c,
      ]),
    );
    const goods = everyDayItems().filter(
      (i) => !['Inserts', 'Packaging', 'Honey room', 'Kits'].includes(i.className) && i.sku !== 'NUC-STD',
    );
    for (let n = 0; n < ORDERS; n++) {
      const code = CHANNELS[Math.floor(random() * CHANNELS.length)] ?? 'SHOP';
      const channel = channels.get(code);
      if (!channel) continue;
      const calendar = await this.calendars.of(this.source, channel.site_id);
      const town = TOWNS[n % TOWNS.length] ?? TOWNS[0];
      const placed = new Date(now - (2 + random() * 30) * HOUR);
      const lines = Array.from({ length: 1 + Math.floor(random() * 4) }, () => {
        const item = goods[Math.floor(random() * goods.length)];
        const sku = code === 'LINDEN' ? (LINDEN_SKUS[Math.floor(random() * LINDEN_SKUS.length)] ?? '') : (item?.sku ?? '');
        const light = (item?.weightG ?? 0) < 400;
        return { sku, quantity: 1 + Math.floor(random() * (light ? 12 : 2)), price: item?.price ?? '1' };
      });
      const unique = [...new Map(lines.map((l) => [l.sku, l])).values()];
      if (n === 17) unique.push({ sku: 'LM-99999', quantity: 1, price: '9.50' });
      if (n % 11 === 5) unique.push({ sku: code === 'LINDEN' ? 'LM-90230' : 'SUIT-XL', quantity: 2, price: '62.00' });
      await this.intake.takeIn(channel, {
        ref: `${code}-${String(7100 + n)}`,
        placedAt: placed.toISOString(),
        customer: CUSTOMERS[n % CUSTOMERS.length] ?? 'A customer',
        // They order again: the same name comes with the same address.
        email: `customer${n % CUSTOMERS.length}@mail.example`,
        address: { line: town[0], city: town[1], postcode: n === 9 ? '' : town[2], country: 'GB' },
        note: n === 4 ? 'No prices in the box, please. It is a prize.' : null,
        promisedAt: (n === 9 ? new Date(now - 20 * HOUR) : promiseOf(n, calendar, new Date(now))).toISOString(),
        lines: unique.map((l) => ({ ...l, sku: l.sku || 'JAR-454-RD' })),
      });
    }
  }

  /** Some rounds waiting, some half walked, some set down for packing, some parcels waiting for their van. */
  async moveAlong(): Promise<void> {
    const desk = await actAs(this.source, 'Maren');
    const ready = await rows<{ code: string; version: number }>(
      this.source,
      `SELECT o.code, o.version FROM sales_order o WHERE o.state = 'open' AND o.site_id = 1 AND NOT EXISTS (SELECT 1 FROM sales_order_line l WHERE l.order_id = o.id AND ${promisedSql('l')} < l.units) ORDER BY (o.note_packer IS NULL), o.promised_at, o.id LIMIT ${RELEASED + AT_THE_WALL}`,
    );
    const codes: string[] = [];
    const pooled = ready.splice(RELEASED);
    const together = ready.splice(-TOGETHER);
    for (const order of ready) {
      const released = await this.releases.release(fresh(desk), order.code, order.version).catch(() => null);
      if (released) codes.push(released.round);
    }
    await this.runs.add(fresh(desk), {
      siteId: 1,
      runsAt: '07:30',
      vanAt: '15:30',
      channelId: null,
      mostStops: null,
      pooled: false,
      active: false,
    });
    await this.sendTogether(desk, together);
    await this.wall.sortHalf(pooled);
    const longer: string[] = [];
    for (const round of codes.slice(WALKED))
      if (longer.length < 2 && (await this.rounds.task(this.source, round)).stops.length > 1) longer.push(round);
    const [short, half] = longer;
    for (const [i, round] of codes.slice(0, WALKED).entries()) await this.walk(round, `T-${String(i + 11)}`, 1, false);
    if (short) await this.walk(short, 'T-18', 0.5, true);
    if (half) await this.walk(half, 'T-19', 0.5, false);
    const picked = await rows<{ code: string }>(
      this.source,
      `SELECT code FROM sales_order WHERE state = 'picked' AND note_packer IS NULL ORDER BY promised_at, id LIMIT 4`,
    );
    for (const order of picked) await this.packAll(order.code);
  }

  /** A round of several orders, sent to a picker, with a tote for each of the first two. */
  private async sendTogether(desk: Act, orders: readonly { code: string; version: number }[]): Promise<void> {
    const joss = await actAs(this.source, 'Joss');
    const sent = await this.releases.releaseRounds(fresh(desk), 1, [{ orders, sentTo: joss.person.id }]).catch(() => null);
    const round = sent?.rounds[0];
    if (!round) return;
    const task = await this.rounds.task(this.source, round);
    for (const [i, order] of task.orders.slice(0, 2).entries()) {
      const tote = await one<{ id: number }>(this.source, 'SELECT id FROM place WHERE code = ?', [`T-${String(i + 21)}`]);
      await this.hands.does(joss, { kind: 'tote', round, orderId: order.id, totePlaceId: tote?.id ?? 0 });
    }
  }

  private async walk(round: string, toteCode: string, share: number, short: boolean): Promise<void> {
    const picker = await actAs(this.source, short ? 'Joss' : 'Ines');
    const tote = await one<{ id: number }>(this.source, 'SELECT id FROM place WHERE code = ?', [toteCode]);
    const task = await this.rounds.task(this.source, round);
    const stops = task.stops.slice(0, Math.max(1, Math.ceil(task.stops.length * share)));
    for (const stop of stops)
      await this.hands.does(picker, {
        kind: 'pick',
        round,
        stopId: stop.id,
        itemId: stop.itemId,
        lotId: stop.lotId,
        fromPlaceId: stop.placeId,
        units: stop.units,
        totePlaceId: tote?.id ?? 0,
        how: 'scanned',
      });
    const next = task.stops[stops.length];
    if (short && next) await this.hands.does(picker, { kind: 'short', round, stopId: next.id, units: 1, there: next.units - 1 });
    const table = await one<{ id: number }>(this.source, `SELECT id FROM place WHERE code = 'TABLE-1'`);
    if (share === 1) await this.hands.does(picker, { kind: 'set-down', round, placeId: table?.id ?? 0 });
  }

  private async packAll(code: string): Promise<void> {
    const packer = await actAs(this.source, 'Dilys');
    const lines = await rows<{ line: number; picked_units: number; weight: number }>(
      this.source,
      'SELECT l.line, l.picked_units, u.weight_g * l.picked_units AS weight FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id JOIN pack_unit u ON u.item_id = l.item_id AND u.factor = 1 WHERE o.code = ? AND l.picked_units > 0',
      [code],
    );
    for (const l of lines)
      await this.hands.does(packer, { kind: 'pack', order: code, parcel: 1, line: l.line, units: l.picked_units, how: 'scanned' });
    const goods = lines.reduce((sum, l) => sum + num(l.weight), 0);
    const box = goods < 9000 ? { code: 'B2', tare: 180 } : { code: 'B4', tare: 540 };
    if (goods + box.tare <= 24_000)
      await this.hands.does(packer, {
        kind: 'close-parcel',
        order: code,
        parcel: 1,
        carton: box.code,
        weightG: goods + box.tare,
        service: { carrier: 'HARRIER', code: 'parcel-48' },
        weightSeen: false,
      });
  }
}
