import { Injectable } from '@nestjs/common';
import type { Movement } from '@vectrum/core/ledger';
import { micro, type Micro } from '@vectrum/core/money';
import { ActivityService } from '../activity/index.js';
import { AllocationService, spareSql } from '../allocation/index.js';
import { type Act, badForm, badState, CommandLog, find, isDuplicate, marks, num, one, rows, type Tx } from '../platform/index.js';
import { keepStanding } from '../sites/index.js';
import { correctLot, LedgerService } from '../stock/index.js';
import { isInHands, TraceQueries } from './trace.queries.js';
import type { LotFacts } from './trace.queries.js';
import type { CorrectLotDto, CorrectedLotDto } from './tracing.dto.js';

interface Lying {
  placeId: number;
  place: string;
  kind: string;
  siteId: number;
  condition: Movement['condition'];
  units: number;
  spare: string;
}

/** Lots that were read or typed wrongly get their right code and date; what was taken for two lots becomes one. */
@Injectable()
export class LotMends {
  constructor(
    private readonly commands: CommandLog,
    private readonly trace: TraceQueries,
    private readonly ledger: LedgerService,
    private readonly allocation: AllocationService,
    private readonly activity: ActivityService,
  ) {}

  /** Where the right code is a lot that is known, all that lies on shelves and docks is of that lot from now on, worth what it was worth. */
  async correct(act: Act, sku: string, code: string, asked: CorrectLotDto): Promise<CorrectedLotDto> {
    const lot = await this.trace.lot(sku, code);
    return this.commands.run(act, 'lot.correct', { sku, code, ...asked }, async (tx) => {
      const to = asked.lot.trim();
      if (to === '') throw badForm({ lot: 'Type the lot that stands on the label' });
      const item = await find(tx, 'item', { id: lot.itemId });
      const expires = item?.tracking === 'lot-expiry' ? (asked.expiresOn ?? null) : null;
      if (item?.tracking === 'lot-expiry' && expires === null) throw badForm({ expiresOn: 'Say until when it keeps' });
      const other = await one<{ id: number; expires: string | null }>(
        tx,
        'SELECT id, expires_on AS expires FROM lot WHERE item_id = ? AND code = ? AND id <> ? FOR UPDATE',
        [lot.itemId, to, lot.lotId],
      );
      if (other && item?.tracking === 'serial') throw badState(`${to} is another piece. Two pieces never have one number`);
      if (other && (other.expires ?? null) !== expires)
        throw badForm({ expiresOn: `Lot ${to} keeps until ${other.expires ?? 'no date'}. Correct that one first` });
      const units = other ? await this.merge(tx, act, lot, other.id, to, asked.why.trim()) : 0;
      if (!other)
        await correctLot(tx, lot.lotId, to, expires).catch((thrown: unknown) => {
          if (isDuplicate(thrown)) throw badState(`Lot ${to} has come in this moment. Look again, and the goods go over to it`);
          throw thrown;
        });
      await this.activity.record(tx, act, {
        kind: 'count',
        glyph: 'full',
        title: other
          ? `${lot.item}: lot ${lot.lot} is lot ${to}`
          : `${lot.item}: lot ${lot.lot} is ${to}${expires ? `, until ${expires}` : ''}`,
        detail: asked.why.trim(),
      });
      return { lot: to, units };
    });
  }

  private async merge(tx: Tx, act: Act, lot: LotFacts, toLotId: number, to: string, why: string): Promise<number> {
    const lying = await rows<Lying>(
      tx,
      `SELECT b.place_id AS placeId, p.code AS place, p.kind, p.site_id AS siteId, b.stock_condition AS \`condition\`, b.units, ${spareSql('b')} AS spare
       FROM balance b JOIN place p ON p.id = b.place_id WHERE b.item_id = ? AND b.lot_id = ? AND b.bounded = 1 AND b.units > 0 ORDER BY b.place_id, b.stock_condition`,
      [lot.itemId, lot.lotId],
    );
    const bound = lying.find((l) => isInHands(l.kind) || (l.condition === 'good' && num(l.spare) < l.units));
    if (bound) throw badState(`${bound.place}: a round or a parcel has some of it. Have that done first, or recall it`);
    const foreign = lying.find((l) => !act.person.siteIds.includes(l.siteId));
    if (foreign) throw badState('Some of it lies at a site that you are not set up for');
    if (lying.length === 0) return 0;
    await keepStanding(
      tx,
      marks(lying),
      lying.map((l) => l.placeId),
    );
    const aside = await this.ledger.outside(tx, 'count-difference');
    const reason = `lot ${lot.lot} is ${to}: ${why}`.slice(0, 120);
    const goods = lying.map(({ placeId, condition, units }) => ({ itemId: lot.itemId, condition, units, placeId }));
    const out = await this.ledger.post(
      tx,
      act,
      goods.map(({ placeId, ...g }): Movement => ({ ...g, lotId: lot.lotId, fromPlaceId: placeId, toPlaceId: aside })),
      { task: 'count', document: null, reason },
    );
    const worths: { value: Micro; parts: [] }[] = [];
    for (const id of out.ids) {
      const left = await one<{ value: string | null }>(
        tx,
        `SELECT SUM(amount) AS value FROM value_entry WHERE movement_id = ? AND credit = 'stock'`,
        [id],
      );
      worths.push({ value: micro(left?.value ?? '0'), parts: [] });
    }
    const back = await this.ledger.post(
      tx,
      act,
      goods.map(({ placeId, ...g }): Movement => ({ ...g, lotId: toLotId, fromPlaceId: aside, toPlaceId: placeId })),
      { task: 'count', document: null, reason, worths },
    );
    await this.allocation.settle(tx, [...out.changes, ...back.changes]);
    return goods.reduce((n, g) => n + g.units, 0);
  }
}
