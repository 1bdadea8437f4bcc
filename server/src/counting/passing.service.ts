import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { type Act, badState, mustBeAt, notFound, one, partOf, type Person, type Tx } from '../platform/index.js';
import { COUNTABLE } from './count-rows.js';
import type { PassingDto } from './counts.dto.js';
import { Counts } from './counts.service.js';
import { dueAt } from './drawing.js';

/** Whoever stands at a bin anyway is told what is due to be counted there, and counts it at once. */
@Injectable()
export class CountOnPassing {
  constructor(
    private readonly source: DataSource,
    private readonly counts: Counts,
  ) {}

  /** Goods of a bin that the plan of counting wants counted now, and the count that has the bin already. */
  async at(person: Person, code: string): Promise<PassingDto> {
    const place = await this.place(this.source, person, code);
    return { due: await dueAt(this.source, place.siteId, place.id), count: await openCountOf(this.source, place.id) };
  }

  /** Opens a count of the whole bin to phones; where the bin is in one already, it is that one. Returns its number. */
  async begin(act: Act, code: string): Promise<{ code: string }> {
    const place = await this.place(this.source, act.person, code);
    const known = await openCountOf(this.source, place.id);
    if (known) return { code: known };
    const made = await this.drawUp(act, place).catch(async (thrown: unknown) => {
      // Somebody else stands there too, and was quicker.
      const theirs = await openCountOf(this.source, place.id);
      if (theirs === null) throw thrown;
      return { code: theirs };
    });
    const count = await one<{ version: number; state: string }>(this.source, 'SELECT version, state FROM stock_count WHERE code = ?', [
      made.code,
    ]);
    // Sent again after a lost answer: it is open by now.
    if (count?.state === 'drawn-up') await this.counts.open(partOf(act, 'open'), made.code, count.version);
    return made;
  }

  private drawUp(act: Act, place: { siteId: number; code: string }): Promise<{ code: string }> {
    return this.counts.drawUp(partOf(act, 'draw'), {
      siteId: place.siteId,
      by: 'bins',
      words: [place.code],
      most: 1,
      title: `On passing: ${place.code}`,
      blind: true,
      scanEach: false,
    });
  }

  private async place(tx: Pick<Tx, 'query'>, person: Person, code: string) {
    const place = await one<{ id: number; code: string; siteId: number | null; isCounted: number }>(
      tx,
      `SELECT id, code, site_id AS siteId, kind IN ${COUNTABLE} AS isCounted FROM place WHERE code = ?`,
      [code.toUpperCase()],
    );
    if (!place?.siteId) throw notFound(`Place ${code.slice(0, 20)}`);
    mustBeAt(person, place.siteId);
    if (Number(place.isCounted) !== 1) throw badState(`${place.code} is no place whose goods are counted`);
    return { ...place, siteId: place.siteId };
  }
}

/** The count that phones have a place in, and that has not counted it yet. */
async function openCountOf(tx: Pick<Tx, 'query'>, placeId: number): Promise<string | null> {
  const found = await one<{ code: string }>(
    tx,
    `SELECT c.code FROM count_bin b JOIN stock_count c ON c.id = b.count_id AND c.state = 'open' WHERE b.place_id = ? AND b.state = 'open' LIMIT 1`,
    [placeId],
  );
  return found?.code ?? null;
}
