import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import type { NestExpressApplication } from '@nestjs/platform-express';
import supertest from 'supertest';
import { DataSource } from 'typeorm';
import { AllocationService } from '../src/allocation/allocation.service.js';
import { createApp } from '../src/app.js';
import { DemoHouse } from '../src/demo/house.js';
import { actAs } from '../src/demo/morning.js';
import { DEMO_PASSWORD, DEMO_PEOPLE } from '../src/demo/people.js';
import { type IncomingOrder, OrderIntake } from '../src/orders/order-intake.service.js';
import { type Config, readConfig } from '../src/platform/config.js';
import { dataSourceOptions, migrate } from '../src/platform/database/data-source.js';
import { inTransaction, one } from '../src/platform/database/tx.js';
import { Outbox } from '../src/platform/outbox.js';
import { newLogger } from '../src/platform/platform.module.js';
import { checkLedger } from '../src/stock/ledger-check.js';
import { LedgerService } from '../src/stock/ledger.service.js';

const MILLRACE = 1;

/** A signed-in person's way to the API; every change carries a fresh key unless one is given. */
export class Caller {
  constructor(
    private readonly http: ReturnType<typeof supertest>,
    private readonly cookie: string,
  ) {}

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

  delete(path: string) {
    return this.http.delete(`/api/${path}`).set('cookie', this.cookie).set({ 'idempotency-key': randomUUID() });
  }

  patch(path: string, body: object, headers: Record<string, string> = {}) {
    return this.http
      .patch(`/api/${path}`)
      .set('cookie', this.cookie)
      .set({ 'idempotency-key': randomUUID(), ...headers })
      .send(body);
  }
}

/** The server over a database of its own, with the demo's people, places and goods, and empty shelves. */
export class House {
  private constructor(
    readonly app: NestExpressApplication,
    readonly source: DataSource,
    private readonly database: string,
  ) {}

  static async open(env: Record<string, string> = {}, furnish = true): Promise<House> {
    const database = `test_${randomUUID().slice(0, 8)}`;
    const base = { LOG_LEVEL: 'silent', ...process.env, ...env } as Record<string, string>;
    const admin = await new DataSource({ ...dataSourceOptions(readConfig(base)), entities: [], migrations: [] }).initialize();
    await admin.query(`CREATE DATABASE ${database} CHARACTER SET utf8mb4`);
    await admin.destroy();
    const config = readConfig({ ...base, DATABASE_NAME: database, VECTRUM_DEMO: '1', DATABASE_CONNECTIONS: '30' });
    return House.start(config, database, furnish);
  }

  private static async start(config: Config, database: string, furnish: boolean): Promise<House> {
    const app = await createApp(config, newLogger('silent'));
    const source = app.get(DataSource);
    await source.initialize();
    await migrate(source);
    if (furnish) await app.get(DemoHouse).build();
    await app.init();
    return new House(app, source, database);
  }

  get http() {
    return supertest(this.app.getHttpServer());
  }

  /** Signs one of the demo's people in by first name. */
  async as(name: string): Promise<Caller> {
    const person = DEMO_PEOPLE.find((p) => p.name.startsWith(name));
    const answer = await this.http.post('/api/session').send({ email: person?.email, password: DEMO_PASSWORD }).expect(204);
    return new Caller(this.http, String(answer.headers['set-cookie']?.[0]).split(';')[0] ?? '');
  }

  async placeId(code: string): Promise<number> {
    return (await one<{ id: number }>(this.source, 'SELECT id FROM place WHERE code = ?', [code]))!.id;
  }

  async itemId(sku: string): Promise<number> {
    return (await one<{ id: number }>(this.source, 'SELECT id FROM item WHERE sku = ?', [sku]))!.id;
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
        await tx.query('INSERT INTO lot (item_id, code, expires_on) VALUES (?, ?, ?)', [itemId, lot.code, lot.expires]);
        lotId = (await one<{ id: number }>(tx, 'SELECT id FROM lot WHERE item_id = ? AND code = ?', [itemId, lot.code]))!.id;
      }
      const fromPlaceId = await ledger.outside(tx, 'count-difference');
      const movement = { itemId, lotId, condition: 'good' as const, fromPlaceId, toPlaceId, units };
      const { changes } = await ledger.post(tx, act, [movement], { task: 'open', document: 'OPENING' });
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
  async pickAll(round: string, tote = 'T-01'): Promise<void> {
    const picker = await this.as('Ines');
    const totePlaceId = await this.placeId(tote);
    const task = (await picker.get(`floor/rounds/${round}`).expect(200)).body as { stops: { id: number; units: number }[] };
    for (const stop of task.stops) {
      await picker.post(`floor/rounds/${round}/picks`, { stopId: stop.id, units: stop.units, totePlaceId, how: 'scanned' }).expect(200);
    }
    await picker.post(`floor/rounds/${round}/set-down`, { placeId: await this.placeId('TABLE-1') }).expect(200);
  }

  /** Proves all of an order into its parcel. */
  async packAll(order: string): Promise<Caller> {
    const packer = await this.as('Dilys');
    const task = (await packer.get(`bench/orders/${order}/task`).expect(200)).body as {
      lines: { line: number; picked: number; packed: number }[];
    };
    for (const l of task.lines)
      await packer.post(`bench/orders/${order}/packs`, { line: l.line, units: l.picked - l.packed, how: 'scanned' }).expect(200);
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

  async figures(sku: string): Promise<{ onHand: number; held: number; reserved: number }> {
    const row = await one<{ on_hand: number; held: number; reserved: number }>(
      this.source,
      'SELECT s.on_hand, s.held, s.reserved FROM site_stock s JOIN item i ON i.id = s.item_id WHERE i.sku = ? AND s.site_id = ?',
      [sku, MILLRACE],
    );
    return { onHand: row?.on_hand ?? 0, held: row?.held ?? 0, reserved: row?.reserved ?? 0 };
  }

  /** Everything that waits to leave, of one kind, oldest first. */
  async outbox(kind: string): Promise<Record<string, unknown>[]> {
    const found: { payload: unknown }[] = await this.source.query('SELECT payload FROM outbox WHERE kind = ? ORDER BY id', [kind]);
    return found.map((f) => (typeof f.payload === 'string' ? JSON.parse(f.payload) : f.payload) as Record<string, unknown>);
  }

  deliver(): Promise<number> {
    return this.app.get(Outbox).deliverDue();
  }

  /** Closes and drops the database; the ledger must be clean. */
  async close(): Promise<void> {
    const findings = await checkLedger(this.source);
    await this.source.query(`DROP DATABASE ${this.database}`);
    await this.app.close();
    if (findings.length > 0) throw new Error(`The ledger is not clean:\n${findings.join('\n')}`);
  }
}
