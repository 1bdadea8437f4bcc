import { Injectable } from '@nestjs/common';
import type { HelpCommand } from '@vectrum/core/scan';
import { ActivityService, UndoService } from '../activity/index.js';
import type { FloorAnswerDto } from '../floor/index.js';
import { PeopleQueries } from '../identity/index.js';
import { type Act, badState, CommandLog, marks, notFound, refused, rows, type Tx, update } from '../platform/index.js';
import { PickingQueries } from './picking.queries.js';
import { mustBeOpen, roundOf, stopsLike } from './rounds.js';
import { namesOfPickers } from './who-picks.js';

/** Who was to go to a stop before it was somebody else's; null: whoever walks the round. */
interface Before {
  stopId: number;
  personId: number | null;
}

/** Shares the walk of a round among several people, so that no two go to the same bin. */
@Injectable()
export class SharesService {
  constructor(
    private readonly commands: CommandLog,
    private readonly queries: PickingQueries,
    private readonly people: PeopleQueries,
    private readonly activity: ActivityService,
    undo: UndoService,
  ) {
    undo.register('help', 'pick', (tx, act, { round, stops }) => this.giveBack(tx, act, String(round), stops as Before[]));
  }

  /** The further half of what is ahead of whoever has most to walk is the helper's. The bin that they are next at stays theirs. */
  async help(tx: Tx, act: Act, { round: code }: HelpCommand): Promise<FloorAnswerDto> {
    const round = await roundOf(tx, act, code, 'alone');
    mustBeOpen(round);
    if (round.state === 'waiting') throw badState(`Nobody walks ${round.code} yet. Take it`);
    const byOwner = new Map<number, { name: string; places: number[] }>();
    for (const stop of await this.queries.ahead(tx, round.code)) {
      if (stop.ownerId === null || stop.ownerId === act.person.id) continue;
      const own = byOwner.get(stop.ownerId) ?? { name: stop.owner ?? '', places: [] };
      if (!own.places.includes(stop.placeId)) own.places.push(stop.placeId);
      byOwner.set(stop.ownerId, own);
    }
    const most = [...byOwner.values()].sort((a, b) => b.places.length - a.places.length)[0];
    const taken = most?.places.slice(Math.ceil(most.places.length / 2)) ?? [];
    if (!most || taken.length === 0) {
      const detail = most ? `${most.name} is at the last bin. There is nothing to share` : 'Nobody else has anything of it to walk';
      throw refused({ band: 'not-this', title: round.code, detail });
    }
    const stops = await this.openAt(tx, round.id, taken);
    await this.giveTo(
      tx,
      stops.map((s) => s.stopId),
      act.person.id,
    );
    const activityId = await this.activity.record(tx, act, {
      kind: 'help',
      glyph: 'go',
      title: `Walks with ${most.name}`,
      detail: `${taken.length} of ${most.places.length} bins of ${round.code}`,
      document: round.code,
      siteId: round.site_id,
      undo: { round: round.code, stops },
    });
    return { activityId };
  }

  /** The office takes a stop from one and gives it to another, or to whoever walks the round. */
  give(act: Act, code: string, stopId: number, personId: number | null): Promise<{ code: string }> {
    return this.commands.run(act, 'stop.give', { code, stopId, personId }, async (tx) => {
      const round = await roundOf(tx, act, code, 'alone');
      mustBeOpen(round);
      const [name] = await namesOfPickers(this.people, tx, round.site_id, personId === null ? [] : [personId], 'personId');
      const stops = await stopsLike(tx, round, stopId);
      const [first] = stops;
      if (!first) throw notFound('This stop');
      const open = stops.filter((s) => s.units > s.picked + s.short);
      if (open.length === 0) throw badState(`${first.placeCode} is done already`);
      await this.giveTo(
        tx,
        open.map((s) => s.id),
        personId,
      );
      await this.activity.record(tx, act, {
        kind: 'help',
        glyph: 'go',
        title: `${first.placeCode} of ${round.code} given to ${name ?? 'whoever walks the round'}`,
        document: round.code,
        siteId: round.site_id,
      });
      return { code: round.code };
    });
  }

  /** Nobody has a share of the round any more: whoever takes it walks all of it. */
  async reset(tx: Tx, roundId: number): Promise<void> {
    await update(tx, 'round_stop', { round_id: roundId }, { person_id: null });
  }

  /** Somebody stands at a bin, whoever was to go there: its stops are theirs. */
  async atBin(tx: Tx, act: Act, roundId: number, placeId: number): Promise<void> {
    await update(tx, 'round_stop', { round_id: roundId, place_id: placeId }, { person_id: act.person.id });
  }

  private async giveBack(tx: Tx, act: Act, code: string, stops: readonly Before[]): Promise<void> {
    const round = await roundOf(tx, act, code, 'alone');
    for (const { stopId, personId } of stops)
      await update(tx, 'round_stop', { id: stopId, round_id: round.id, person_id: act.person.id }, { person_id: personId });
  }

  private async openAt(tx: Tx, roundId: number, placeIds: readonly number[]): Promise<Before[]> {
    return rows<Before>(
      tx,
      `SELECT id AS stopId, person_id AS personId FROM round_stop WHERE round_id = ? AND place_id IN (${marks(placeIds)}) AND units > picked_units + short_units ORDER BY id FOR UPDATE`,
      [roundId, ...placeIds],
    );
  }

  private async giveTo(tx: Tx, stopIds: readonly number[], personId: number | null): Promise<void> {
    await update(tx, 'round_stop', { id: [0, ...stopIds] }, { person_id: personId });
  }
}
