import { Injectable } from '@nestjs/common';
import { ItemsService } from '../catalogue/index.js';
import { AboutWords, FloorCommands, FloorTasks } from '../floor/index.js';
import { notFound, one } from '../platform/index.js';
import { ArrivalsService } from './arrivals.service.js';
import {
  CloseArrivalCommandDto,
  ReceiveBundleDto,
  ReceiveCommandDto,
  ReceivePalletCommandDto,
  ReceiveWholeCommandDto,
  TieCommandDto,
} from './receiving.dto.js';
import { ReceivingService } from './receiving.service.js';

/** Receiving at the floor's doors. */
@Injectable()
export class ReceivingFloor {
  constructor(
    commands: FloorCommands,
    tasks: FloorTasks,
    receiving: ReceivingService,
    arrivals: ArrivalsService,
    items: ItemsService,
    about: AboutWords,
  ) {
    tasks.register({
      kind: 'receive',
      right: 'receive',
      bundle: ReceiveBundleDto,
      read: (tx, person, key) => receiving.task(tx, person, key),
    });
    commands.register({
      kind: 'receive',
      right: 'receive',
      dto: ReceiveCommandDto,
      work: (tx, act, command) => receiving.receive(tx, act, command),
      about: async (tx, c) => ({
        what: `${await about.goods(tx, c)}, ${c.document} to ${await about.place(tx, c.toPlaceId)}`,
        siteId: await about.siteOf(tx, { place: c.toPlaceId }),
        document: c.document,
      }),
    });
    commands.register({
      kind: 'receive-pallet',
      right: 'receive',
      dto: ReceivePalletCommandDto,
      work: (tx, act, command) => receiving.receivePallet(tx, act, command),
      about: async (tx, c) => ({
        what: `Pallet ${c.sscc}, ${c.document} to ${await about.place(tx, c.toPlaceId)}`,
        siteId: await about.siteOf(tx, { place: c.toPlaceId }),
        document: c.document,
      }),
    });
    commands.register({
      kind: 'receive-whole',
      right: 'take-whole',
      dto: ReceiveWholeCommandDto,
      work: (tx, act, command) => receiving.receiveWhole(tx, act, command),
      about: async (tx, c) => ({
        what: `${c.document} as on the paper, to ${await about.place(tx, c.toPlaceId)}`,
        siteId: await about.siteOf(tx, { place: c.toPlaceId }),
        document: c.document,
      }),
    });
    commands.register({
      kind: 'close-arrival',
      right: 'receive',
      dto: CloseArrivalCommandDto,
      work: (tx, act, command) => arrivals.close(tx, act, command),
      about: async (tx, { document }) => {
        const found = await one<{ siteId: number }>(
          tx,
          'SELECT site_id AS siteId FROM arrival WHERE code = ? UNION ALL SELECT site_id FROM purchase_order WHERE code = ? LIMIT 1',
          [document, document],
        );
        return { what: `${document} closed`, siteId: found?.siteId ?? null, document };
      },
    });
    commands.register({
      kind: 'tie',
      right: 'receive',
      dto: TieCommandDto,
      work: async (tx, act, { code, itemId, packId }) => {
        const pack = await one<{ sku: string; factor: number }>(
          tx,
          'SELECT i.sku, u.factor FROM pack_unit u JOIN item i ON i.id = u.item_id WHERE u.id = ? AND i.id = ?',
          [packId, itemId],
        );
        if (!pack) throw notFound('That pack');
        const { activityId } = await items.tie(tx, act, pack.sku, { factor: pack.factor, code });
        return { activityId };
      },
      about: async (tx, { code, itemId }) => ({
        what: `${code} tied to ${(await about.goods(tx, { itemId, units: 1 })).replace(/^.*?: /, '')}`,
        siteId: null,
        document: null,
      }),
    });
  }
}
