import { Injectable } from '@nestjs/common';
import { AboutWords, FloorCommands, FloorTasks } from '../floor/index.js';
import { badState, one, type Tx } from '../platform/index.js';
import {
  CloseParcelCommandDto,
  LeaveOutCommandDto,
  NoteSeenCommandDto,
  OpenParcelCommandDto,
  PackAllCommandDto,
  PackBundleDto,
  PackCommandDto,
  PackKitCommandDto,
  ParkCommandDto,
  RepackCommandDto,
  SerialOutCommandDto,
} from './packing.dto.js';
import { InsertsService } from './inserts.service.js';
import { PackingQueries } from './packing.queries.js';
import { PackingService } from './packing.service.js';
import { ParcelsService } from './parcels.service.js';
import { ReopeningService } from './reopening.service.js';

/** The states in which an order has something to show at the table. */
const AT_TABLE: ReadonlySet<string> = new Set(['picked', 'packed', 'shipped']);
const notYet = ({ order, state }: { order: string; state: string }) =>
  state === 'cancelled' ? `${order} is cancelled` : `${order} is not picked yet. It opens here once its goods are set down`;

/** Packing at the floor's doors. */
@Injectable()
export class PackingFloor {
  constructor(
    commands: FloorCommands,
    tasks: FloorTasks,
    queries: PackingQueries,
    packing: PackingService,
    parcels: ParcelsService,
    reopening: ReopeningService,
    inserts: InsertsService,
    private readonly words: AboutWords,
  ) {
    tasks.register({
      kind: 'pack',
      right: 'pack',
      bundle: PackBundleDto,
      read: async (tx, person, key) => {
        const { siteId, ...task } = await queries.task(tx, key, person);
        if (!AT_TABLE.has(task.state)) throw badState(notYet(task));
        return { task, siteId };
      },
    });
    commands.register({
      kind: 'pack',
      right: 'pack',
      dto: PackCommandDto,
      work: (tx, act, command) => packing.pack(tx, act, command),
      about: async (tx, c) => this.order(tx, c.order, `${await this.goods(tx, c)} into parcel ${c.order}-${c.parcel}`),
    });
    commands.register({
      kind: 'pack-all',
      right: 'pack',
      dto: PackAllCommandDto,
      work: (tx, act, command) => packing.packAll(tx, act, command),
      about: (tx, { order, parcel }) => this.order(tx, order, `All of ${order} into parcel ${order}-${parcel}`),
    });
    commands.register({
      kind: 'pack-kit',
      right: 'pack',
      dto: PackKitCommandDto,
      work: (tx, act, command) => packing.packKit(tx, act, command),
      about: (tx, { order, parcel, kit }) => this.order(tx, order, `The kit of line ${kit} into parcel ${order}-${parcel}`),
    });
    commands.register({
      kind: 'leave-out',
      right: 'pack',
      dto: LeaveOutCommandDto,
      work: (tx, act, command) => inserts.leaveOut(tx, act, command),
      about: (tx, { order }) => this.order(tx, order, `Inserts of ${order} left out`),
    });
    commands.register({
      kind: 'note-seen',
      right: 'pack',
      dto: NoteSeenCommandDto,
      work: (tx, act, command) => packing.seeNote(tx, act, command),
      about: (tx, { order }) => this.order(tx, order, `Note on ${order} read`),
    });
    commands.register({
      kind: 'close-parcel',
      right: 'pack',
      dto: CloseParcelCommandDto,
      work: (tx, act, command) => parcels.close(tx, act, command),
      about: (tx, { order, parcel, weightG }) =>
        this.order(tx, order, `Parcel ${order}-${parcel} closed, ${(weightG / 1000).toFixed(2)} kg`),
    });
    commands.register({
      kind: 'open-parcel',
      right: 'pack',
      dto: OpenParcelCommandDto,
      work: (tx, act, command) => reopening.open(tx, act, command),
      about: (tx, { order, parcel }) => this.order(tx, order, `Parcel ${order}-${parcel} opened again`),
    });
    commands.register({
      kind: 'repack',
      right: 'pack',
      dto: RepackCommandDto,
      work: (tx, act, command) => reopening.repack(tx, act, command),
      about: async (tx, c) =>
        this.order(tx, c.order, `${await this.goods(tx, c)} out of parcel ${c.order}-${c.from} into ${c.order}-${c.to}`),
    });
    commands.register({
      kind: 'serial-out',
      right: 'pack',
      dto: SerialOutCommandDto,
      work: (tx, act, command) => reopening.serialOut(tx, act, command),
      about: (tx, { order, serial }) => this.order(tx, order, `${serial} out of ${order}`),
    });
    commands.register({
      kind: 'park',
      right: 'pack',
      dto: ParkCommandDto,
      work: (tx, act, command) => reopening.park(tx, act, command),
      about: (tx, { order }) => this.order(tx, order, `${order} parked`),
    });
  }

  private async order(tx: Tx, code: string, what: string) {
    return { what, siteId: await this.words.siteOf(tx, { document: code, table: 'sales_order' }), document: code };
  }

  private async goods(tx: Tx, { order, line, units }: { order: string; line: number; units: number }): Promise<string> {
    const found = await one<{ itemId: number | null }>(
      tx,
      'SELECT l.item_id AS itemId FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id WHERE o.code = ? AND l.line = ?',
      [order, line],
    );
    return this.words.goods(tx, { itemId: found?.itemId ?? 0, units });
  }
}
