import { Injectable } from '@nestjs/common';
import { spell } from '@vectrum/core/quantity';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { AllocationService } from '../allocation/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import { MissingGoods } from '../counting/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  insert,
  mustMatch,
  NOW,
  num,
  one,
  Outbox,
  partOf,
  Problem,
  rows,
  type Tx,
  update,
} from '../platform/index.js';
import { keepStanding } from '../sites/index.js';
import { LedgerService } from '../stock/index.js';
import { isInHands, TraceQueries } from './trace.queries.js';
import type { HeldLotDto, ToldOfRecallDto } from './tracing.dto.js';

interface Lying {
  placeId: number;
  place: string;
  kind: string;
  siteId: number;
  units: number;
}

/** A lot with something wrong is held everywhere at once, those who have it are written to, and it is freed again. */
@Injectable()
export class Recalls {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly trace: TraceQueries,
    private readonly missing: MissingGoods,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly codebook: CodebookQueries,
    private readonly outbox: Outbox,
    private readonly activity: ActivityService,
  ) {}

  /** Holds all of a lot on the shelves and docks of the person's sites; whoever would come for it is sent elsewhere, place by place. */
  async hold(act: Act, sku: string, code: string, reason: string): Promise<HeldLotDto> {
    const lot = await this.trace.lot(sku, code);
    await this.commands.run(act, 'lot.recall', { sku, code, reason }, async (tx) => {
      const known = await one(tx, 'SELECT id FROM lot_recall WHERE lot_id = ? AND freed_at IS NULL FOR UPDATE', [lot.lotId]);
      if (!known) await insert(tx, 'lot_recall', { lot_id: lot.lotId, reason: reason.trim(), person_id: act.person.id });
      await this.activity.record(tx, act, {
        kind: 'recall',
        glyph: 'held',
        title: `Held everywhere: ${lot.item}, ${lot.lot}`,
        detail: reason.trim(),
      });
      return null;
    });
    const lying = await this.lying(lot, 'good', act.person.siteIds);
    let units = 0;
    const failed: string[] = [];
    for (const at of lying.filter((l) => !isInHands(l.kind))) {
      try {
        units += await this.commands.run(
          partOf(act, `hold/${at.placeId}`),
          'lot.hold',
          { lotId: lot.lotId, placeId: at.placeId },
          async (tx) => {
            const held = await this.missing.onlyThere(
              tx,
              act,
              { siteId: at.siteId, placeId: at.placeId, itemId: lot.itemId, lotId: lot.lotId },
              0,
              {
                toPlaceId: at.placeId,
                posting: { task: 'move', document: null, reason: `recalled: ${reason.trim()}`.slice(0, 120) },
              },
            );
            return held.units;
          },
        );
      } catch (thrown) {
        if (!(thrown instanceof Problem)) throw thrown;
        failed.push(`${at.place}: ${thrown.detail}`);
      }
    }
    const orders = [...new Set((await this.trace.where(act.person, lot)).flatMap((w) => (w.order === null ? [] : [w.order])))];
    return { units, orders, failed };
  }

  /** Nothing is wrong with it after all: what is held of it may be sold again. */
  async free(act: Act, sku: string, code: string, version: number): Promise<HeldLotDto> {
    const lot = await this.trace.lot(sku, code);
    await this.commands.run(act, 'lot.free', { sku, code, version }, async (tx) => {
      const known = await one<{ id: number; version: number }>(
        tx,
        'SELECT id, version FROM lot_recall WHERE lot_id = ? AND freed_at IS NULL FOR UPDATE',
        [lot.lotId],
      );
      if (!known) throw badState('This lot is not held');
      mustMatch(known.version, version);
      await update(tx, 'lot_recall', { id: known.id }, { freed_at: NOW, freed_by_id: act.person.id, version: known.version + 1 });
      await this.activity.record(tx, act, { kind: 'recall', glyph: 'full', title: `Free again: ${lot.item}, ${lot.lot}` });
      return null;
    });
    let units = 0;
    for (const at of await this.lying(lot, 'held', act.person.siteIds))
      units += await this.commands.run(partOf(act, `free/${at.placeId}`), 'lot.free-at', { lotId: lot.lotId, placeId: at.placeId }, (tx) =>
        this.freeAt(tx, act, lot, at),
      );
    return { units, orders: [], failed: [] };
  }

  private async freeAt(tx: Tx, act: Act, lot: { itemId: number; lotId: number }, at: Lying): Promise<number> {
    await keepStanding(tx, '?', [at.placeId]);
    const now = await one<{ units: number }>(
      tx,
      `SELECT units FROM balance WHERE item_id = ? AND place_id = ? AND lot_id = ? AND stock_condition = 'held' FOR UPDATE`,
      [lot.itemId, at.placeId, lot.lotId],
    );
    const units = num(now?.units);
    if (units === 0) return 0;
    const { changes } = await this.ledger.post(
      tx,
      act,
      [
        {
          itemId: lot.itemId,
          lotId: lot.lotId,
          condition: 'held',
          toCondition: 'good',
          fromPlaceId: at.placeId,
          toPlaceId: at.placeId,
          units,
        },
      ],
      { task: 'move', document: null, reason: 'recall ended' },
    );
    await this.allocation.settle(tx, changes);
    return units;
  }

  /** Writes to those who have goods of a lot; those without a mail address are to be rung. */
  async tell(act: Act, sku: string, code: string, orders: readonly string[]): Promise<ToldOfRecallDto> {
    const traced = await this.trace.trace(act.person, sku, code);
    const open = traced.recalls.find((r) => r.freedAt === null);
    if (!open) throw badState('Have the lot held first, and say why');
    const went = traced.went.filter((w) => orders.includes(w.order));
    if (went.length === 0) throw badForm({ orders: 'None of these orders had any of it' });
    return this.commands.run(act, 'lot.tell', { sku, code, orders }, async (tx) => {
      const item = await this.codebook.item(tx, 0, traced.itemId);
      const units = new Map<string, number>();
      for (const w of went) units.set(w.order, (units.get(w.order) ?? 0) + w.units);
      let written = 0;
      for (const [order, n] of units) {
        const of = went.find((w) => w.order === order);
        if (!of?.email) continue;
        const goods = `${traced.item}, ${item?.tracking === 'serial' ? 'number' : 'lot'} ${traced.lot}`;
        await this.outbox.send(
          tx,
          `mail:${of.email}`,
          'mail.recall',
          { order, to: of.email, customer: of.customer, goods, units: spell(n, item?.packs ?? []), why: open.reason },
          { siteId: null, document: order },
        );
        written += 1;
      }
      await update(tx, 'lot_recall', { id: open.id }, { told_at: NOW });
      await this.activity.record(tx, act, {
        kind: 'recall',
        glyph: 'go',
        title: `${written} customers are told of ${traced.item}, ${traced.lot}`,
        detail: open.reason,
      });
      return { written, toRing: units.size - written };
    });
  }

  private lying(
    { itemId, lotId }: { itemId: number; lotId: number },
    condition: 'good' | 'held',
    siteIds: readonly number[],
  ): Promise<Lying[]> {
    return rows<Lying>(
      this.source,
      `SELECT p.id AS placeId, p.code AS place, p.kind, p.site_id AS siteId, b.units FROM balance b JOIN place p ON p.id = b.place_id WHERE b.item_id = ? AND b.lot_id = ? AND b.stock_condition = ? AND b.units > 0 AND p.site_id IN (?) ORDER BY p.id`,
      [itemId, lotId, condition, [0, ...siteIds]],
    );
  }
}
