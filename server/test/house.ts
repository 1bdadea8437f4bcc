import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import type { NestExpressApplication } from '@nestjs/platform-express';
import supertest from 'supertest';
import { DataSource } from 'typeorm';
import { AllocationService } from '../src/allocation/allocation.service.js';
import { Reservations } from '../src/allocation/reservations.service.js';
import { OrderStates } from '../src/orders/order-states.service.js';
import { codebookOf, type Codebook } from '@vectrum/core/scan';
import { createApp } from '../src/app.js';
import { LockWatch } from './lock-watch.js';
import { Template } from './template.js';
import { StockPushing } from '../src/connectors/index.js';
import { DemoHouse } from '../src/demo/house.js';
import { BookQueries } from '../src/floor/book.queries.js';
import type { BookPartDto } from '../src/floor/floor.dto.js';
import { actAs } from '../src/demo/morning.js';
import { DEMO_PASSWORD, DEMO_PEOPLE } from '../src/demo/people.js';
import { type IncomingOrder, OrderIntake } from '../src/orders/order-intake.service.js';
import { type Config, readConfig } from '../src/platform/config.js';
import { dataSourceOptions, migrate } from '../src/platform/database/data-source.js';
import { inTransaction, one } from '../src/platform/database/tx.js';
import { Outbox } from '../src/platform/outbox.js';
import { newLogger } from '../src/platform/platform.module.js';
import { checkReturns } from '../src/customer-returns/return-check.js';
import { checkInvoices } from '../src/invoicing/invoice-check.js';
import { checkOrders } from '../src/orders/order-check.js';
import { siteDay } from '../src/platform/site-day.js';
import { checkLedger } from '../src/stock/ledger-check.js';
import { LedgerService } from '../src/stock/ledger.service.js';

const MILLRACE = 1;

/** A signed-in person's way to the API; every change carries a fresh key unless one is given. */
export class Caller {
  constructor(
    private readonly http: ReturnType<typeof supertest>,
    readonly cookie: string,
    readonly personId = 0,
  ) {}

  /** Does something on the floor, through its door; `sent` is what a device's queue says beside it. */
  floor(
    command: object,
    sent: { id?: string; madeAt?: string; madeBy?: number; late?: boolean } = {},
    headers: Record<string, string> = {},
  ) {
    const { id = randomUUID(), madeAt = new Date().toISOString(), madeBy = this.personId, late = false } = sent;
    return this.post('floor/commands', { command: { ...command, id }, madeAt, madeBy, late }, { 'idempotency-key': id, ...headers });
  }

  /** A task as a phone gets it, with those of the commands asked about that it holds. */
  async task<T>(kind: string, key: string | number, asked: readonly string[] = []): Promise<T & { applied: string[] }> {
    const { body } = (await this.get(`floor/tasks/${kind}/${key}?asked=${asked.join(',')}`).expect(200)) as {
      body: { task: T; applied: string[] };
    };
    return { ...body.task, applied: body.applied };
  }

  get(path: string) {
    return this.http.get(`/api/${path}`).set('cookie', this.cookie);
  }

  post(path: string, body: object = {}, headers: Record<string, string> = {}) {
    return this.http
      .post(`/api/${path}`)
      .set('cookie', this.cookie)
      .set({ 'idempotency-key': randomUUID(), ...headers })
      .send(body);
  }

  put(path: string, body: object, headers: Record<string, string> = {}) {
    return this.http
      .put(`/api/${path}`)
      .set('cookie', this.cookie)
      .set({ 'idempotency-key': randomUUID(), ...headers })
      .send(body);
  }

  /** Sends bytes as they are, as a browser sends a file. */
  file(method: 'post' | 'put', path: string, bytes: Buffer) {
    return this.http[method](`/api/${path}`)
      .set('cookie', this.cookie)
      .set({ 'idempotency-key': randomUUID(), 'content-type': 'application/octet-stream' })
      .send(bytes);
  }

  /** Reads a file as bytes. */
  bytes(path: string) {
    return this.get(path)
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      });
  }

  delete(path: string, headers: Record<string, string> = {}) {
    return this.http
      .delete(`/api/${path}`)
      .set('cookie', this.cookie)
      .set({ 'idempotency-key': randomUUID(), ...headers });
  }

  patch(path: string, body: object, headers: Record<string, string> = {}) {
    return this.http
      .patch(`/api/${path}`)
      .set('cookie', this.cookie)
      .set({ 'idempotency-key': randomUUID(), ...headers })
      .send(body);
  }
}

/** A stop as far as a pick at it needs. */
export interface TakenStop {
  id: number;
  itemId: number;
  lotId: number;
  placeId: number;
  units: number;
}

/** The command that picks units of a stop, as the phone that stands there would make it. */
export const pickOf = (round: string, stop: TakenStop, units: number, totePlaceId: number, how = 'scanned') => ({
  kind: 'pick',
  round,
  stopId: stop.id,
  itemId: stop.itemId,
  lotId: stop.lotId,
  fromPlaceId: stop.placeId,
  units,
  totePlaceId,
  how,
});

/** An order as the desk keys it: two jars for somebody who rings. */
export const keyed = (more: object = {}) => ({
  customer: 'Wick Hill Farm',
  email: 'wickhill@mail.example',
  phone: '01632 960 112',
  addressLine: '2 Beacon Row',
  city: 'Netherwick',
  postcode: 'NW8 2RE',
  country: 'GB',
  siteId: 1,
  promisedAt: null,
  speed: 'standard',
  priority: 0,
  wholeOnly: false,
  notePacker: '',
  notePicker: '',
  ref: '',
  quote: false,
  lines: [{ sku: 'JAR-454-RD', factor: 1, quantity: '2', price: '0.95' }],
  ...more,
});

/** Closes a parcel as the packer at the table would. */
export const closing = (order: string, more: object = {}) => ({
  kind: 'close-parcel',
  order,
  parcel: 1,
  carton: 'B2',
  weightG: 180 + 245 * 2,
  service: { carrier: 'HARRIER', code: 'parcel-48' },
  weightSeen: false,
  ...more,
});

/** Goods against a line, counted and right. */
export const receipt = (document: string, goods: object) => ({
  kind: 'receive',
  document,
  lineId: null,
  lot: null,
  expires: null,
  how: 'scanned',
  as: 'ordered',
  condition: 'good',
  reason: null,
  ...goods,
});

/** The server over a database of its own, with the demo's people, places and goods, and empty shelves. */
export class House {
  private constructor(
    readonly app: NestExpressApplication,
    readonly source: DataSource,
    readonly config: Config,
    private readonly database: string,
    private readonly locks: LockWatch,
  ) {}

  static async open(env: Record<string, string> = {}, furnish = true): Promise<House> {
    const database = `test_${randomUUID().slice(0, 8)}`;
    const base = { LOG_LEVEL: 'silent', ...process.env, ...env } as Record<string, string>;
    const admin = await new DataSource(dataSourceOptions(readConfig(base), [])).initialize();
    await admin.query(`CREATE DATABASE ${database} CHARACTER SET utf8mb4`);
    await admin.destroy();
    const config = readConfig({ ...base, DATABASE_NAME: database, VECTRUM_DEMO: '1', DATABASE_CONNECTIONS: '30' });
    // What a test says of its surroundings may stand in the house: then it is furnished afresh.
    return House.start(config, database, furnish, furnish && Object.keys(env).length === 0 ? Template.now() : undefined);
  }

  private static async start(config: Config, database: string, furnish: boolean, template: Template | undefined): Promise<House> {
    const app = await createApp(config, newLogger(process.env.TEST_LOG ?? 'silent'));
    const source = app.get(DataSource);
    await source.initialize();
    if (template?.isMade) await template.load(config, database);
    else {
      await migrate(source);
      if (furnish) await app.get(DemoHouse).build();
      await template?.keep(config, database);
    }
    const locks = new LockWatch(source);
    await app.init();
    return new House(app, source, config, database, locks);
  }

  /** Another server of the same house. Whoever opens it closes it. */
  async another(more: Partial<Config> = {}): Promise<NestExpressApplication> {
    const app = await createApp({ ...this.config, ...more }, newLogger(process.env.TEST_LOG ?? 'silent'));
    await app.get(DataSource).initialize();
    return app.init();
  }

  get http() {
    return supertest(this.app.getHttpServer());
  }

  /** Signs one of the demo's people in by first name. */
  async as(name: string): Promise<Caller> {
    const person = DEMO_PEOPLE.find((p) => p.name.startsWith(name));
    const answer = await this.http.post('/api/session').send({ email: person?.email, password: DEMO_PASSWORD }).expect(204);
    const { id } = (await one<{ id: number }>(this.source, 'SELECT id FROM person WHERE email = ?', [person?.email]))!;
    return new Caller(this.http, String(answer.headers['set-cookie']?.[0]).split(';')[0] ?? '', id);
  }

  async placeId(code: string): Promise<number> {
    return (await one<{ id: number }>(this.source, 'SELECT id FROM place WHERE code = ?', [code]))!.id;
  }

  async itemId(sku: string): Promise<number> {
    return (await one<{ id: number }>(this.source, 'SELECT id FROM item WHERE sku = ?', [sku]))!.id;
  }

  /** Every code of a site, as a phone that has fetched all parts knows them. */
  async book(siteId: number): Promise<Codebook> {
    const parts = this.app.get(BookQueries, { strict: false });
    const [items, places] = [[] as BookPartDto['items'], [] as BookPartDto['places']];
    let part = await parts.part(siteId, 0, null, null);
    for (;;) {
      items.push(...part.items);
      places.push(...part.places);
      if (part.next === null) break;
      part = await parts.part(siteId, 0, part.version, part.next);
    }
    return { ...codebookOf(items, places), today: (await siteDay(this.source, siteId)).today };
  }

  /** Every statement that the database is asked while something is done. */
  async statements(work: () => PromiseLike<unknown>): Promise<string[]> {
    const asked: string[] = [];
    const driver = this.source.driver as unknown as {
      createQueryRunner: (mode: string) => { query: (sql: string, ...rest: unknown[]) => unknown };
    };
    const make = driver.createQueryRunner.bind(driver);
    driver.createQueryRunner = (mode) => {
      const made = make(mode);
      const query = made.query.bind(made);
      made.query = (sql, ...rest) => {
        asked.push(sql);
        return query(sql, ...rest);
      };
      return made;
    };
    await work();
    driver.createQueryRunner = make;
    return asked;
  }

  /** Puts stock into a place through the ledger, and lets waiting orders have it. */
  async stock(sku: string, place: string, units: number, lot?: { code: string; expires: string }): Promise<void> {
    const act = await actAs(this.source, 'Maren');
    const ledger = this.app.get(LedgerService);
    const itemId = await this.itemId(sku);
    const toPlaceId = await this.placeId(place);
    await inTransaction(this.source, async (tx) => {
      let lotId = 0;
      if (lot) {
        await tx.query('INSERT INTO lot (item_id, code, expires_on) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE id = id', [
          itemId,
          lot.code,
          lot.expires,
        ]);
        lotId = (await one<{ id: number }>(tx, 'SELECT id FROM lot WHERE item_id = ? AND code = ?', [itemId, lot.code]))!.id;
      }
      const fromPlaceId = await ledger.outside(tx, 'count-difference');
      const movement = { itemId, lotId, condition: 'good' as const, fromPlaceId, toPlaceId, units };
      const { changes } = await ledger.post(tx, act, [movement], { task: 'open', document: 'OPENING' });
      await this.app.get(AllocationService).settle(tx, changes);
    });
  }

  /** Units of an order's line leave the house, straight from the shelf that they were stocked in. */
  async shipped(order: string, line: number, units: number, place = 'A-01-1', lotId = 0): Promise<void> {
    const act = await actAs(this.source, 'Maren');
    const ledger = this.app.get(LedgerService);
    const fromPlaceId = await this.placeId(place);
    await inTransaction(this.source, async (tx) => {
      const found = (await one<{ id: number; orderId: number; itemId: number; siteId: number }>(
        tx,
        'SELECT l.id, o.id AS orderId, l.item_id AS itemId, o.site_id AS siteId FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE o.code = ? AND l.line = ?',
        [order, line],
      ))!;
      await tx.query('SELECT id FROM sales_order WHERE id = ? FOR UPDATE', [found.orderId]);
      const toPlaceId = await ledger.outside(tx, 'customer');
      const goods = { itemId: found.itemId, lotId, condition: 'good' as const, fromPlaceId, toPlaceId, units };
      const { changes } = await ledger.post(tx, act, [goods], { task: 'ship', document: order });
      await this.app.get(OrderStates).progress(tx, found.id, { picked: units, packed: units, shipped: units });
      await this.app.get(Reservations).free(tx, { lineId: found.id, itemId: found.itemId, siteId: found.siteId }, null, units);
      await this.app.get(OrderStates).left(tx, found.orderId);
      await this.app.get(AllocationService).settle(tx, changes);
    });
  }

  /** An order from a channel, as its connector would hand it over. */
  async order(lines: [sku: string, quantity: number][], more: Partial<IncomingOrder> & { channel?: string } = {}): Promise<string> {
    const channel = (await one<{ id: number; site_id: number }>(this.source, 'SELECT id, site_id FROM channel WHERE code = ?', [
      more.channel ?? 'PHONE',
    ]))!;
    const { code } = await this.app.get(OrderIntake).takeIn(channel, {
      ref: `T-${randomUUID().slice(0, 12)}`,
      placedAt: new Date().toISOString(),
      customer: 'Wick Hill Farm',
      email: 'wickhill@mail.example',
      address: { line: '2 Beacon Row', city: 'Netherwick', postcode: 'NW8 2RE', country: 'GB' },
      lines: lines.map(([sku, quantity]) => ({ sku, quantity, price: '1.00' })),
      ...more,
    });
    return code;
  }

  /** Sends an order to picking; returns its round. */
  async release(order: string): Promise<string> {
    const desk = await this.as('Maren');
    const { version } = (await desk.get(`orders/${order}`).expect(200)).body as { version: number };
    return ((await desk.post(`orders/${order}/release`, {}, { 'if-match': `"${version}"` }).expect(200)).body as { round: string }).round;
  }

  /** Picks all of a round into a tote and sets it down. */
  async pickAll(round: string, tote = 'T-01', table = 'TABLE-1'): Promise<void> {
    const picker = await this.as('Ines');
    const totePlaceId = await this.placeId(tote);
    const { stops } = await picker.task<{ stops: TakenStop[] }>('pick', round);
    for (const stop of stops) await picker.floor(pickOf(round, stop, stop.units, totePlaceId)).expect(200);
    await picker.floor({ kind: 'set-down', round, placeId: await this.placeId(table) }).expect(200);
  }

  /** Proves all of an order into a parcel. */
  async packAll(order: string, parcel = 1): Promise<Caller> {
    const packer = await this.as('Dilys');
    const { lines } = await packer.task<{ lines: { line: number; picked: number; packed: number }[] }>('pack', order);
    for (const l of lines.filter((x) => x.picked > x.packed))
      await packer.floor({ kind: 'pack', order, parcel, line: l.line, units: l.picked - l.packed, how: 'scanned' }).expect(200);
    return packer;
  }

  async balance(sku: string, place: string): Promise<number> {
    const row = await one<{ units: string }>(
      this.source,
      'SELECT SUM(b.units) AS units FROM balance b JOIN item i ON i.id = b.item_id JOIN place p ON p.id = b.place_id WHERE i.sku = ? AND p.code = ?',
      [sku, place],
    );
    return Number(row?.units ?? 0);
  }

  async figures(sku: string, siteId = MILLRACE): Promise<{ onHand: number; held: number; reserved: number }> {
    const row = await one<{ on_hand: number; held: number; reserved: number }>(
      this.source,
      'SELECT s.on_hand, s.held, s.reserved FROM site_stock s JOIN item i ON i.id = s.item_id WHERE i.sku = ? AND s.site_id = ?',
      [sku, siteId],
    );
    return { onHand: row?.on_hand ?? 0, held: row?.held ?? 0, reserved: row?.reserved ?? 0 };
  }

  /** Everything that waits to leave, of one kind, oldest first. */
  async outbox(kind: string): Promise<Record<string, unknown>[]> {
    const found: { payload: unknown }[] = await this.source.query('SELECT payload FROM outbox WHERE kind = ? ORDER BY id', [kind]);
    return found.map((f) => (typeof f.payload === 'string' ? JSON.parse(f.payload) : f.payload) as Record<string, unknown>);
  }

  /** Has all that waits to be told to the outside world told: stock first, then messages. */
  async deliver(): Promise<number> {
    const told = await this.app.get(StockPushing).runDue();
    return told + (await this.app.get(Outbox).runDue());
  }

  /** Closes and drops the database; the ledger must be clean. */
  async close(): Promise<void> {
    const findings = [
      ...(await checkLedger(this.source)),
      ...(await checkOrders(this.source)),
      ...(await checkInvoices(this.source)),
      ...(await checkReturns(this.source)),
    ];
    const faults = this.locks.faults;
    await this.source.query(`DROP DATABASE ${this.database}`);
    await this.app.close();
    if (findings.length > 0) throw new Error(`The ledger is not clean:\n${findings.join('\n')}`);
    if (faults.length > 0) throw new Error(`Locked out of order (see platform/database/lock-order.ts):\n${faults.join('\n')}`);
  }
}
