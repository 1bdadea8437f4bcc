import { Injectable } from '@nestjs/common';
import { AboutWords, FloorCommands, FloorTasks } from '../floor/index.js';
import { one, type Tx } from '../platform/index.js';
import { CartsService } from './carts.service.js';
import {
  CartCommandDto,
  HelpCommandDto,
  PickBundleDto,
  PickCommandDto,
  SetDownCommandDto,
  ShortCommandDto,
  TakeCommandDto,
  ToteCommandDto,
} from './picking.dto.js';
import { PickingQueries } from './picking.queries.js';
import { PickingService } from './picking.service.js';
import { SharesService } from './shares.service.js';
import { ShortService } from './short.service.js';

/** Picking at the floor's doors. */
@Injectable()
export class PickingFloor {
  constructor(
    commands: FloorCommands,
    tasks: FloorTasks,
    queries: PickingQueries,
    picking: PickingService,
    shorts: ShortService,
    shares: SharesService,
    carts: CartsService,
    private readonly words: AboutWords,
  ) {
    tasks.register({
      kind: 'pick',
      right: 'pick',
      bundle: PickBundleDto,
      read: async (tx, person, key) => {
        const task = await queries.task(tx, key, person.id);
        return { task, siteId: task.siteId };
      },
    });
    commands.register({
      kind: 'take',
      right: 'pick',
      dto: TakeCommandDto,
      work: (tx, act, command) => picking.take(tx, act, command),
      about: (tx, { round }) => this.round(tx, round, `Round ${round} taken`),
    });
    commands.register({
      kind: 'help',
      right: 'pick',
      dto: HelpCommandDto,
      work: (tx, act, command) => shares.help(tx, act, command),
      about: (tx, { round }) => this.round(tx, round, `Walk of ${round} shared`),
    });
    commands.register({
      kind: 'cart',
      right: 'pick',
      dto: CartCommandDto,
      work: (tx, act, command) => carts.walkWith(tx, act, command),
      about: async (tx, c) => this.round(tx, c.round, `Cart ${await this.words.place(tx, c.cartPlaceId)} for ${c.round}`),
    });
    commands.register({
      kind: 'tote',
      right: 'pick',
      dto: ToteCommandDto,
      work: (tx, act, command) => picking.tieTote(tx, act, command),
      about: async (tx, c) => this.round(tx, c.round, `Tote ${await this.words.place(tx, c.totePlaceId)} for an order of ${c.round}`),
    });
    commands.register({
      kind: 'pick',
      right: 'pick',
      dto: PickCommandDto,
      work: (tx, act, command) => picking.pick(tx, act, command),
      about: async (tx, c) =>
        this.round(
          tx,
          c.round,
          `${await this.words.goods(tx, c)}, ${await this.words.place(tx, c.fromPlaceId)} to tote ${await this.words.place(tx, c.totePlaceId)}`,
        ),
    });
    commands.register({
      kind: 'short',
      right: 'pick',
      dto: ShortCommandDto,
      work: (tx, act, command) => shorts.short(tx, act, command),
      about: async (tx, { round, stopId, units }) => {
        const stop = await one<{ itemId: number; placeId: number }>(
          tx,
          'SELECT item_id AS itemId, place_id AS placeId FROM round_stop WHERE id = ?',
          [stopId],
        );
        const goods = await this.words.goods(tx, { itemId: stop?.itemId ?? 0, units });
        return this.round(tx, round, `${goods} not in ${await this.words.place(tx, stop?.placeId ?? 0)}`);
      },
    });
    commands.register({
      kind: 'set-down',
      right: 'pick',
      dto: SetDownCommandDto,
      work: (tx, act, command) => picking.setDown(tx, act, command),
      about: async (tx, { round, placeId }) => this.round(tx, round, `${round} set down at ${await this.words.place(tx, placeId)}`),
    });
  }

  private async round(tx: Tx, code: string, what: string) {
    return { what, siteId: await this.words.siteOf(tx, { document: code, table: 'round' }), document: code };
  }
}
