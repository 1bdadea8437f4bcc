import { Injectable } from '@nestjs/common';
import { micro } from '@vectrum/core/money';
import { DataSource } from 'typeorm';
import { type Act, badForm, find, mustBeAt, one, partOf } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import type { CorrectedDto, CorrectStockDto } from './counting.dto.js';
import { SpotCounts } from './spot-counts.service.js';
import { SpotDecisions } from './spot-decisions.service.js';

/**
 * The books are said to be wrong, for a reason. Small differences are booked at once for whoever may decide on counts; what is worth
 * more than the house allows one person waits for another, among the reported bins.
 */
@Injectable()
export class Corrections {
  constructor(
    private readonly source: DataSource,
    private readonly settings: SettingsService,
    private readonly counts: SpotCounts,
    private readonly decisions: SpotDecisions,
  ) {}

  async correct(act: Act, { place, sku, lot, units, reason }: CorrectStockDto): Promise<CorrectedDto> {
    const at = await find(this.source, 'place', { code: place });
    const item = await find(this.source, 'item', { sku });
    if (!at?.site_id) throw badForm({ place: `There is no place ${place}` });
    if (!item) throw badForm({ sku: `There is no item ${sku}` });
    mustBeAt(act.person, at.site_id);
    if (item.tracking !== 'none' && !lot) throw badForm({ lot: 'Say which lot or number it is' });
    const known = lot
      ? await one<{ id: number }>(this.source, 'SELECT id FROM lot WHERE item_id = ? AND code = ?', [item.id, lot])
      : { id: 0 };
    if (!known) throw badForm({ lot: `Lot ${lot ?? ''} of ${item.name} is not known. Count the bin to take it in` });
    const spot = { siteId: at.site_id, placeId: at.id, itemId: item.id, lotId: known.id };
    const { id, worth } = await this.counts.correct(act, spot, units, reason);
    const row = await find(this.source, 'spot_count', { id });
    const limit = await this.settings.get(this.source, 'correctLimit');
    const isSmall = worth !== null && micro(worth) <= micro(String(limit));
    if (row?.state !== 'counted') return { isBooked: true, says: 'The books say the same', activityId: null };
    if (!act.person.rights.has('settle-counts') || !isSmall)
      return { isBooked: false, says: 'Somebody else decides on it, among the reported bins', activityId: await this.newest(act) };
    const settling = partOf(act, 'settle');
    await this.decisions.settle(settling, id, row.version);
    return { isBooked: true, says: 'The books follow', activityId: await this.newest(settling) };
  }

  /** The line that an act of this person left on the tape. */
  private async newest(act: Act): Promise<number | null> {
    const line = await one<{ id: number }>(
      this.source,
      'SELECT id FROM activity WHERE person_id = ? AND command_id = ? ORDER BY id DESC LIMIT 1',
      [act.person.id, act.key],
    );
    return line?.id ?? null;
  }
}
