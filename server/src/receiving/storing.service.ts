import { Injectable, type OnModuleInit } from '@nestjs/common';
import { goodsWords } from '@vectrum/core/quantity';
import { type Bundle, checkStore, type StandingGoods, type StoreTask } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/activity.service.js';
import { appliedAt } from '../activity/applied.js';
import { UndoService } from '../activity/undo.service.js';
import { CodebookQueries } from '../catalogue/codebook.queries.js';
import { type Act, mustBeAt } from '../platform/act.js';
import { CommandLog } from '../platform/command-log.js';
import { inSnapshot, one, rows, type Tx } from '../platform/database/tx.js';
import { refused } from '../platform/refused.js';
import { LedgerService } from '../stock/ledger.service.js';
import type { PostedDto, StoreDto } from './receiving.dto.js';

interface GoodsRow extends Omit<StandingGoods, 'suggestion'> {
  home: string | null;
}

/** Puts goods away from the dock into bins, by two scans. */
/** The zone of a place and the item that asks for it, and whether the one lets the other in: what `zoneRefusal` says, in SQL. */
const FITTING = `LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone' JOIN item want ON want.id = ?`;
const FITS = `IF(want.storage = 'any', COALESCE(z.rule, 'none') <> 'restricted', z.rule = want.storage)`;

@Injectable()
export class StoringService implements OnModuleInit {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly ledger: LedgerService,
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
    private readonly undo: UndoService,
  ) {}

  onModuleInit(): void {
    this.undo.register('store', 'store', async (tx, act, payload) => {
      await this.ledger.reverse(tx, act, payload['movements'] as number[], null);
    });
  }

  /** What stands at a site's docks, with a bin suggested for each and the reason. */
  task(siteId: number): Promise<StoreTask & Bundle> {
    return inSnapshot(this.source, async (tx) => ({
      siteId,
      goods: await this.goods(tx, siteId),
      applied: await appliedAt(tx, 'store', siteId),
    }));
  }

  private async goods(tx: Tx, siteId: number): Promise<StandingGoods[]> {
    const goods = await rows<GoodsRow>(
      tx,
      `SELECT b.item_id AS itemId, b.lot_id AS lotId, l.code AS lot, b.units, p.id AS fromPlaceId, p.code AS fromCode, h.code AS home
       FROM balance b JOIN place p ON p.id = b.place_id JOIN item i ON i.id = b.item_id LEFT JOIN lot l ON l.id = b.lot_id LEFT JOIN item_site x ON x.item_id = i.id AND x.site_id = ? LEFT JOIN place h ON h.id = x.home_place_id
       WHERE p.site_id = ? AND p.kind = 'dock' AND b.units > 0 AND b.stock_condition = 'good' ORDER BY p.walk_order, i.name`,
      [siteId, siteId],
    );
    const list: StandingGoods[] = [];
    for (const { home, ...g } of goods) list.push({ ...g, suggestion: await this.suggest(tx, siteId, g.itemId, home) });
    return list;
  }

  store(act: Act, input: StoreDto): Promise<PostedDto> {
    return this.commands.run(act, 'store', input, async (tx) => {
      const from = await one<{ site_id: number; code: string }>(
        tx,
        'SELECT site_id, code FROM place WHERE id = ? AND site_id IS NOT NULL',
        [input.fromPlaceId],
      );
      const siteId = from?.site_id ?? 0;
      mustBeAt(act.person, siteId);
      const book = await this.codebook.book(tx, siteId, [input.itemId], [input.toPlaceId]);
      const item = book.items[input.itemId];
      const place = Object.values(book.places).find((p) => p.id === input.toPlaceId);
      const standing = await this.standing(tx, input);
      const refusal = item
        ? checkStore(siteId, item, place, input.units, standing)
        : { band: 'unknown' as const, title: 'No such item', detail: 'Scan the goods again' };
      if (refusal || !item || !place)
        throw refused(refusal ?? { band: 'unknown', title: 'No such place', detail: 'Scan the label of a bin' });
      const { ids } = await this.ledger.post(
        tx,
        act,
        [
          {
            itemId: input.itemId,
            lotId: input.lotId,
            condition: 'good',
            fromPlaceId: input.fromPlaceId,
            toPlaceId: input.toPlaceId,
            units: input.units,
          },
        ],
        { task: 'store', document: null, how: input.how },
      );
      const activityId = await this.activity.record(tx, act, {
        kind: 'store',
        glyph: 'full',
        title: goodsWords(input.units, item),
        detail: `from ${from?.code ?? ''} to ${place.code}`,
        siteId,
        how: input.how,
        undo: { movements: ids },
      });
      return { activityId };
    });
  }

  private async standing(tx: Tx, input: StoreDto): Promise<number> {
    const row = await one<{ units: number }>(
      tx,
      `SELECT units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND stock_condition = 'good' FOR UPDATE`,
      [input.itemId, input.fromPlaceId, input.lotId],
    );
    return row?.units ?? 0;
  }

  private async suggest(tx: Tx, siteId: number, itemId: number, home: string | null): Promise<StandingGoods['suggestion']> {
    if (home) return { code: home, reason: 'its pick face' };
    const beside = await one<{ code: string }>(
      tx,
      `SELECT p.code FROM balance b JOIN place p ON p.id = b.place_id ${FITTING} WHERE b.item_id = ? AND b.units > 0 AND p.site_id = ? AND p.kind IN ('pick-face','reserve') AND p.blocked = 0 AND ${FITS} ORDER BY p.walk_order LIMIT 1`,
      [itemId, itemId, siteId],
    );
    if (beside) return { code: beside.code, reason: 'the rest of it lies there' };
    const free = await one<{ code: string }>(
      tx,
      `SELECT p.code FROM place p ${FITTING} WHERE p.site_id = ? AND p.kind = 'pick-face' AND p.blocked = 0 AND ${FITS} AND NOT EXISTS (SELECT 1 FROM balance b WHERE b.place_id = p.id AND b.units > 0) ORDER BY p.walk_order LIMIT 1`,
      [itemId, siteId],
    );
    return free ? { code: free.code, reason: 'the nearest empty bin' } : null;
  }
}
