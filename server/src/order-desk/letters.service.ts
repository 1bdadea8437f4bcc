import { Injectable } from '@nestjs/common';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, CommandLog, Outbox, rows, siteDay, timeText } from '../platform/index.js';
import type { LettersDto } from './order-desk.dto.js';
import { ProjectionQueries } from './projection.queries.js';

/** Writes to those whose orders a late arrival breaks, each with their own order and the day on which it can go. */
@Injectable()
export class LettersService {
  constructor(
    private readonly commands: CommandLog,
    private readonly projections: ProjectionQueries,
    private readonly outbox: Outbox,
    private readonly activity: ActivityService,
  ) {}

  /** Returns how many were written; orders without a mail address are to be rung, and are counted apart. */
  async write(act: Act, code: string, on: string, orders: readonly string[]): Promise<LettersDto> {
    const hits = (await this.projections.hits(code, on, act.person.siteIds)).filter((h) => orders.includes(h.code));
    if (hits.length === 0) throw badForm({ orders: 'None of these orders is hit by that day. Look again' });
    return this.commands.run(act, 'order.letters', { code, on, orders }, async (tx) => {
      const sites = await rows<{ code: string; siteId: number }>(tx, 'SELECT code, site_id AS siteId FROM sales_order WHERE code IN (?)', [
        hits.map((h) => h.code),
      ]);
      let written = 0;
      for (const hit of hits) {
        if (!hit.email) continue;
        const siteId = sites.find((s) => s.code === hit.code)?.siteId ?? null;
        const { timeZone } = await siteDay(tx, siteId);
        const when = hit.freeAt ? timeText(new Date(hit.freeAt), timeZone) : '';
        await this.outbox.send(
          tx,
          `mail:${hit.email}`,
          'mail.order-late',
          { order: hit.code, to: hit.email, promised: timeText(new Date(hit.promisedAt), timeZone), when },
          { siteId, document: hit.code },
        );
        await this.activity.record(tx, act, {
          kind: 'order-change',
          glyph: 'go',
          title: `${hit.customer} is told that ${hit.code} will be late`,
          detail: `${code} comes ${on}`,
          document: hit.code,
          siteId,
        });
        written++;
      }
      return { written, toRing: hits.length - written };
    });
  }
}
