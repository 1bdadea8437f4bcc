import { Injectable } from '@nestjs/common';
import { commaLot, goodsWords } from '@vectrum/core/quantity';
import {
  type AnyTallyCommand,
  checkTally,
  type TallyBin,
  type TallyBinCommand,
  type TallyCodeCommand,
  type TallyCommand,
} from '@vectrum/core/scan';
import { ActivityService } from '../activity/index.js';
import { CodebookQueries } from '../catalogue/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import {
  type Act,
  badState,
  find,
  insert,
  mustBeAt,
  notFound,
  NOW,
  one,
  refused,
  rows,
  siteDay,
  type Tx,
  update,
} from '../platform/index.js';
import { lotFor } from '../stock/index.js';
import { type BinRow, conditionIs, countOfCode, type CountRow } from './count-rows.js';

/** Takes in what phones count. Said again, the last holds, until the bin's lines are decided on. */
@Injectable()
export class Tallies {
  constructor(
    private readonly codebook: CodebookQueries,
    private readonly activity: ActivityService,
  ) {}

  async tally(tx: Tx, act: Act, command: Omit<TallyCommand, 'kind' | 'id'>): Promise<FloorAnswerDto> {
    const { count, bin } = await this.opened(tx, act, command);
    const item = await this.codebook.item(tx, count.site_id, command.itemId);
    if (!item) throw notFound('These goods');
    const lot = item.tracking === 'none' ? null : command.lot;
    const refusal = checkTally(
      { wholeBins: count.whole_bins === 1 },
      await this.binFacts(tx, count, bin),
      item,
      { ...command, lot },
      command.units,
    );
    if (refusal) throw refused(refusal);
    const { today } = await siteDay(tx, count.site_id);
    const lotId = await lotFor(tx, item.tracking, { itemId: item.id, lot, expires: command.expires }, today);
    const lookedAt = new Date((act.madeAt ?? new Date()).getTime() - command.agoMs);
    const damaged = command.isDamaged ? 1 : 0;
    await tx.query(
      `INSERT INTO count_line (count_id, place_id, item_id, lot_id, damaged, listed, state, counted_units, looked_at, person_id, how) VALUES (?, ?, ?, ?, ?, 0, 'counted', ?, ?, ?, ?)
       ON DUPLICATE KEY UPDATE state = 'counted', counted_units = VALUES(counted_units), looked_at = VALUES(looked_at), person_id = VALUES(person_id), how = VALUES(how), version = version + 1`,
      [count.id, bin.place_id, item.id, lotId, damaged, command.units, lookedAt, act.person.id, command.how],
    );
    if (command.isLast) await this.finish(tx, act, count, bin, lookedAt);
    else await this.begin(tx, act, bin);
    const place = await this.codebook.place(tx, count.site_id, bin.place_id);
    const activityId = await this.activity.record(tx, act, {
      kind: 'tally',
      glyph: 'half',
      title: `Counted: ${goodsWords(command.units, item)}${commaLot(item, lot)}`,
      detail: `${place?.code ?? ''}${command.isDamaged ? ', damaged' : ''}`,
      document: count.code,
      siteId: count.site_id,
      how: command.how,
    });
    return { activityId };
  }

  async tallyBin(tx: Tx, act: Act, command: Omit<TallyBinCommand, 'kind' | 'id'>): Promise<FloorAnswerDto> {
    const { count, bin } = await this.opened(tx, act, command);
    await this.finish(tx, act, count, bin, act.madeAt ?? new Date());
    const place = await find(tx, 'place', { id: bin.place_id });
    const there = await one(tx, 'SELECT id FROM count_line WHERE count_id = ? AND place_id = ? AND counted_units > 0 LIMIT 1', [
      count.id,
      bin.place_id,
    ]);
    const activityId = await this.activity.record(tx, act, {
      kind: 'tally',
      glyph: 'full',
      title: `${there ? 'Counted' : 'Empty'}: ${place?.code ?? ''}`,
      detail: count.title,
      document: count.code,
      siteId: count.site_id,
      how: command.how,
    });
    return { activityId };
  }

  async tallyCode(tx: Tx, act: Act, command: Omit<TallyCodeCommand, 'kind' | 'id'>): Promise<FloorAnswerDto> {
    const { count, bin } = await this.opened(tx, act, command);
    await insert(tx, 'count_code', {
      count_id: count.id,
      place_id: bin.place_id,
      code: command.code,
      units: command.units,
      person_id: act.person.id,
      looked_at: act.madeAt ?? NOW,
    });
    await this.begin(tx, act, bin);
    const place = await find(tx, 'place', { id: bin.place_id });
    const activityId = await this.activity.record(tx, act, {
      kind: 'tally',
      glyph: 'fb-unknown',
      title: `${command.units} of an unknown code`,
      detail: `${command.code}, in ${place?.code ?? ''}`,
      document: count.code,
      siteId: count.site_id,
      how: command.how,
    });
    return { activityId };
  }

  /** The count and the bin, held, where this person may count there now. */
  private async opened(
    tx: Tx,
    act: Act,
    { document, placeId }: Pick<AnyTallyCommand, 'document' | 'placeId'>,
  ): Promise<{ count: CountRow; bin: BinRow }> {
    const count = await countOfCode(tx, document, 'share');
    mustBeAt(act.person, count.site_id);
    const [bin] = await rows<BinRow>(tx, 'SELECT * FROM count_bin WHERE count_id = ? AND place_id = ? FOR UPDATE', [count.id, placeId]);
    if (!bin) throw badState(`The bin is not in count ${count.code} any more`);
    const isOpen = count.state === 'open' || (count.state === 'review' && bin.state !== 'counted');
    if (!isOpen)
      throw badState(
        count.state === 'drawn-up' ? 'The count is not open yet' : `Counting for ${count.code} is over. Tell whoever reviews it`,
      );
    const other = [bin.person_id, bin.begun_by_id].find((id) => id !== null && id !== act.person.id);
    if (other !== undefined) {
      const who = await find(tx, 'person', { id: other ?? 0 });
      throw refused({
        band: 'not-this',
        title: 'Somebody else counts it',
        detail: `${who?.name ?? 'A colleague'} has this bin. Go on to the next`,
      });
    }
    if (bin.not_person_id === act.person.id)
      throw refused({ band: 'not-this', title: 'Counted by you before', detail: 'Somebody else counts it this time. Go on to the next' });
    return { count, bin };
  }

  private async begin(tx: Tx, act: Act, bin: BinRow): Promise<void> {
    if (bin.begun_by_id !== act.person.id || bin.state === 'counted')
      await update(
        tx,
        'count_bin',
        { id: bin.id },
        { state: bin.state === 'counted' ? 'counted' : 'begun', begun_by_id: act.person.id, device_id: act.deviceId },
      );
  }

  /** All of the bin is counted: what its list names beside is not there; of a whole bin, what the books have beside neither. */
  private async finish(tx: Tx, act: Act, count: CountRow, bin: BinRow, lookedAt: Date): Promise<void> {
    await tx.query(
      `UPDATE count_line SET state = 'counted', counted_units = 0, looked_at = ?, person_id = ?, how = 'typed', version = version + 1 WHERE count_id = ? AND place_id = ? AND state = 'open'`,
      [lookedAt, act.person.id, count.id, bin.place_id],
    );
    if (count.whole_bins === 1)
      for (const damaged of [0, 1])
        await tx.query(
          `INSERT IGNORE INTO count_line (count_id, place_id, item_id, lot_id, damaged, listed, state, counted_units, looked_at, person_id, how)
             SELECT ?, b.place_id, b.item_id, b.lot_id, ${damaged}, 0, 'counted', 0, ?, ?, 'typed' FROM balance b WHERE b.place_id = ? AND b.units > 0 AND ${conditionIs('b.stock_condition', String(damaged))} GROUP BY b.place_id, b.item_id, b.lot_id`,
          [count.id, lookedAt, act.person.id, bin.place_id],
        );
    await update(
      tx,
      'count_bin',
      { id: bin.id },
      { state: 'counted', begun_by_id: act.person.id, device_id: act.deviceId, counted_at: NOW },
    );
  }

  /** The bin as the rules of the phone see it. */
  private async binFacts(tx: Tx, count: CountRow, bin: BinRow): Promise<TallyBin> {
    const lines = await rows<{ itemId: number; lotId: number; lot: string | null; damaged: number; counted: number | null }>(
      tx,
      'SELECT l.item_id AS itemId, l.lot_id AS lotId, t.code AS lot, l.damaged, l.counted_units AS counted FROM count_line l LEFT JOIN lot t ON t.id = l.lot_id WHERE l.count_id = ? AND l.place_id = ?',
      [count.id, bin.place_id],
    );
    return {
      placeId: bin.place_id,
      code: '',
      area: bin.area,
      state: bin.state as TallyBin['state'],
      by: null,
      isMine: true,
      lines: lines.map(({ damaged, ...l }) => ({ ...l, isDamaged: damaged === 1, booked: null })),
    };
  }
}
