import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import { PeopleQueries } from '../identity/index.js';
import { OrderStates } from '../orders/index.js';
import { type Act, badForm, badState, CommandLog, type Tx, update } from '../platform/index.js';
import type { SendRoundsDto } from './board.dto.js';
import { namesOfPickers } from './who-picks.js';
import { largestWall } from './walls.js';
import { RecallService } from './recall.service.js';
import { ReleaseService } from './release.service.js';
import { ordersOfRound, roundOf } from './rounds.js';

/** Sends rounds to people, and takes back those that nobody has begun. */
@Injectable()
export class SendingService {
  constructor(
    private readonly commands: CommandLog,
    private readonly releases: ReleaseService,
    private readonly recalls: RecallService,
    private readonly people: PeopleQueries,
    private readonly states: OrderStates,
    private readonly activity: ActivityService,
  ) {}

  async send(act: Act, { siteId, rounds }: SendRoundsDto): Promise<{ rounds: string[] }> {
    return this.releases.releaseRounds(
      act,
      siteId,
      rounds.map((r) => ({ orders: r.orders, sentTo: r.sentTo ?? null, pooled: r.pooled === true })),
      async (tx) => {
        await namesOfPickers(this.people, tx, siteId, [...new Set(rounds.flatMap((r) => r.sentTo ?? []))], 'sentTo');
        await mustFitWall(tx, siteId, Math.max(0, ...rounds.map((r) => (r.pooled ? r.orders.length : 0))));
      },
    );
  }

  give(act: Act, code: string, sentTo: number | null): Promise<{ code: string }> {
    return this.commands.run(act, 'round.send', { code, sentTo }, async (tx) => {
      const round = await roundOf(tx, act, code, 'alone');
      if (round.state !== 'waiting') throw badState(`${code} is begun already. Whoever is to go on takes it over on their phone`);
      const names = await namesOfPickers(this.people, tx, round.site_id, sentTo === null ? [] : [sentTo], 'sentTo');
      await update(tx, 'round', { id: round.id }, { sent_to_id: sentTo });
      await this.activity.record(tx, act, {
        kind: 'release',
        glyph: 'go',
        title: `${code} sent to ${names[0] ?? 'whoever takes it'}`,
        document: code,
        siteId: round.site_id,
      });
      return { code };
    });
  }

  recall(act: Act, code: string): Promise<{ code: string }> {
    return this.commands.run(act, 'round.recall', { code }, async (tx) => {
      const round = await roundOf(tx, act, code, 'alone');
      if (round.state !== 'waiting') throw badState(`${code} is begun already. Recall its orders one by one, as far as nothing is picked`);
      const orders = await this.states.lock(tx, await ordersOfRound(tx, round.id));
      for (const order of orders) await this.recalls.fromStops(tx, order, round.id);
      await this.states.refresh(tx, orders);
      await this.activity.record(tx, act, {
        kind: 'release',
        glyph: 'undo',
        title: `${code} recalled`,
        detail: `${orders.length} ${orders.length === 1 ? 'order waits' : 'orders wait'} again`,
        document: code,
        siteId: round.site_id,
      });
      return { code };
    });
  }
}

/** Refuses a pooled round of more orders than a wall of the site has slots for. */
async function mustFitWall(tx: Tx, siteId: number, orders: number): Promise<void> {
  if (orders === 0) return;
  const slots = await largestWall(tx, siteId);
  if (slots === 0)
    throw badForm({ pooled: 'This site has no sorting wall. Add one under Places, or send these rounds sorted while walking' });
  if (orders > slots)
    throw badForm({ pooled: `The largest sorting wall here has ${slots} slots. Put at most ${slots} orders on one round` });
}
