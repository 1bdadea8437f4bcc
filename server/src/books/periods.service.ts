import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { type Act, badForm, badState, CommandLog, insert, isDay, NOW, one, rows, type Tx, update } from '../platform/index.js';
import { JournalQueries } from './journal.queries.js';
import type { PeriodCloseDto, PeriodsDto } from './timetables.dto.js';

/** The last day of what is closed; null where nothing is. */
const closed = async (tx: Pick<Tx, 'query'>): Promise<{ id: number; through: string } | undefined> =>
  one(tx, 'SELECT id, through_on AS `through` FROM period_close WHERE reopened_at IS NULL ORDER BY through_on DESC, id DESC LIMIT 1');

/** The last day of what is closed, as an ISO date; null where nothing is. */
export const closedThrough = async (tx: Pick<Tx, 'query'>): Promise<string | null> => (await closed(tx))?.through ?? null;

/**
 * Refuses a day that a document or payment says where its period is closed. Entries of the journal bear the day of posting, so that what is
 * closed never gets one anyway: this keeps what people write on papers in line with it.
 */
export async function mustBeOpen(tx: Pick<Tx, 'query'>, day: string, field: string): Promise<void> {
  const last = await closed(tx);
  if (last && day <= last.through)
    throw badForm({ [field]: `The books are closed to the end of ${last.through}. Choose a later day, or have the period opened again` });
}

/** Closes periods, so that what was told to the tax office or the bank stays as it was. */
@Injectable()
export class Periods {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly activity: ActivityService,
    private readonly journal: JournalQueries,
  ) {}

  async list(): Promise<PeriodsDto> {
    const found = await rows<PeriodCloseDto>(
      this.source,
      `SELECT c.through_on AS throughOn, p.name AS \`by\`, c.closed_at AS at, r.name AS reopenedBy, c.reopened_at AS reopenedAt, c.reopened_why AS reopenedWhy
       FROM period_close c JOIN person p ON p.id = c.closed_by LEFT JOIN person r ON r.id = c.reopened_by ORDER BY c.id DESC LIMIT 24`,
    );
    return { closedThrough: (await closed(this.source))?.through ?? null, rows: found };
  }

  /** All of it must have gone into the company's own books first. */
  close(act: Act, through: string): Promise<void> {
    return this.commands.run(act, 'period.close', { through }, async (tx) => {
      if (!isDay(through)) throw badForm({ through: 'A day, such as 2026-05-31' });
      if (through >= (await this.journal.today())) throw badForm({ through: 'That day is not over. Choose one that is' });
      const last = await closed(tx);
      if (last && through <= last.through) throw badForm({ through: `The books are closed to the end of ${last.through} already` });
      const { entries } = await this.journal.preview(through);
      if (entries > 0)
        throw badForm({
          through: `${entries === 1 ? '1 entry' : `${entries} entries`} up to that day have not gone out. Export them first`,
        });
      await insert(tx, 'period_close', { through_on: through, closed_by: act.person.id });
      await this.activity.record(tx, act, { kind: 'journal', glyph: 'full', title: `The books are closed to the end of ${through}` });
    });
  }

  /** The last period that was closed is open again. */
  reopen(act: Act, why: string): Promise<void> {
    return this.commands.run(act, 'period.reopen', { why }, async (tx) => {
      const last = await closed(tx);
      if (!last) throw badState('No period is closed');
      await update(tx, 'period_close', { id: last.id }, { reopened_by: act.person.id, reopened_at: NOW, reopened_why: why.trim() });
      await this.activity.record(tx, act, {
        kind: 'journal',
        glyph: 'undo',
        title: `The period to ${last.through} is open again`,
        detail: why.trim(),
      });
    });
  }
}
