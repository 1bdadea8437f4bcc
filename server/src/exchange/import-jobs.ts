import { Inject, Injectable } from '@nestjs/common';
import type { Logger } from 'pino';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import { SessionService } from '../identity/index.js';
import {
  type Act,
  claimRows,
  inTransaction,
  LOGGER,
  marks,
  one,
  parsed,
  type Person,
  Problem,
  remove,
  rows,
  type Tx,
  update,
  Worker,
} from '../platform/index.js';
import { MadeLog } from './made-log.js';
import { Shapes } from './registry.js';
import { type Held, readRow, type Words } from './read-row.js';
import { type Column, type ImportRow, Memory, type RowFault, type Shape } from './shape.js';
import type { RunRow } from './import-run.js';

const BATCH = 1_000;
const LEASE_SECONDS = 30;
const BEAT_MS = 1_000;
const MOST_FAULTS = 5_000;

/** Raised to roll a run back whose rows have become faulty since they were checked. */
class FaultsFound extends Error {}

/**
 * Checks and applies imports behind the request that asked for it, one at a time. A run is claimed by its row with a lease,
 * so that several servers may do this side by side and a run whose server died is taken up by another.
 */
@Injectable()
export class ImportJobs extends Worker<RunRow> {
  protected readonly beatMs = BEAT_MS;
  protected override readonly atOnce = 1;
  /** A run takes as long as its rows do; its lease is renewed with them. */
  protected override readonly jobMs = 3_600_000;

  constructor(
    private readonly source: DataSource,
    private readonly shapes: Shapes,
    private readonly sessions: SessionService,
    private readonly activity: ActivityService,
    @Inject(LOGGER) protected readonly log: Logger,
  ) {
    super();
  }

  protected claim(): Promise<RunRow[]> {
    return claimRows<RunRow>(this.source, {
      table: 'import_run',
      select: 'j.*',
      due: `j.state IN ('checking','applying') AND (j.leased_until IS NULL OR j.leased_until < UTC_TIMESTAMP(3))`,
      order: 'j.created_at',
      most: 1,
      lease: 'leased_until = UTC_TIMESTAMP(3) + INTERVAL ? SECOND',
      leaseParams: [LEASE_SECONDS],
    });
  }

  protected async carryOut(run: RunRow): Promise<void> {
    const beat = setInterval(() => void this.lease(run.id).catch(() => undefined), (LEASE_SECONDS * 1000) / 3);
    try {
      if (run.state === 'checking') await this.check(run);
      else await this.apply(run);
    } catch (thrown) {
      await this.fail(run, thrown);
    } finally {
      clearInterval(beat);
    }
  }

  private lease(id: string): Promise<unknown> {
    return this.source.query('UPDATE import_run SET leased_until = UTC_TIMESTAMP(3) + INTERVAL ? SECOND WHERE id = ?', [LEASE_SECONDS, id]);
  }

  private async fail(run: RunRow, thrown: unknown): Promise<void> {
    if (!(thrown instanceof Problem)) this.log.error({ err: thrown, import: run.id }, 'import failed');
    const says = thrown instanceof Problem ? thrown.detail : 'Something went wrong on our side. Nothing was taken in; try again';
    await update(
      this.source,
      'import_run',
      { id: run.id },
      { state: run.state === 'applying' ? 'checked' : 'failed', problem: says.slice(0, 500), done: 0, leased_until: null },
    );
  }

  private async person(run: RunRow): Promise<Person> {
    const person = await this.sessions.person(run.person_id);
    if (!person) throw new Problem(403, 'not-allowed', 'Whoever began this import is not with the house any more');
    return person;
  }

  /** Reads and checks every row; what is wrong is kept with its row. Nothing else is written. */
  private async check(run: RunRow): Promise<void> {
    const shape = this.shapes.of(run.kind);
    const person = await this.person(run);
    const columns = await shape.columns(this.source, person);
    const memory = new Memory();
    let faulty = 0;
    for await (const batch of this.batches(run, columns, false)) {
      const faults = await inTransaction(this.source, async (tx) => [
        ...batch.faults,
        ...(await shape.check(tx, batch.rows, memory, person)),
      ]);
      faulty += await this.keepFaults(run.id, faults, faulty);
      await update(this.source, 'import_run', { id: run.id }, { done: batch.upTo, faulty });
    }
    await this.source.query(`UPDATE import_run SET state = 'checked', done = total, faulty = ?, leased_until = NULL WHERE id = ?`, [
      faulty,
      run.id,
    ]);
  }

  private async keepFaults(id: string, faults: readonly RowFault[], before: number): Promise<number> {
    const numbers = [...new Set(faults.map((f) => f.n))];
    if (numbers.length === 0) return 0;
    await this.source.query(`UPDATE import_row SET faulty = 1 WHERE import_id = ? AND n IN (${marks(numbers)})`, [id, ...numbers]);
    if (before < MOST_FAULTS) {
      await this.source.query('INSERT IGNORE INTO import_fault (import_id, n, field, value, reason) VALUES ?', [
        faults.map((f) => [id, f.n, f.field, f.value.slice(0, 200), f.reason.slice(0, 300)]),
      ]);
    }
    return numbers.length;
  }

  /** Checks once more and writes, all in one transaction. */
  private async apply(run: RunRow): Promise<void> {
    const shape = this.shapes.of(run.kind);
    const person = await this.person(run);
    const act: Act = {
      key: (await one<{ k: string }>(this.source, 'SELECT command_id AS k FROM import_run WHERE id = ?', [run.id]))?.k ?? run.id,
      person,
      deviceId: null,
      deviceAt: null,
    };
    try {
      await inTransaction(this.source, (tx) => this.write(tx, run, shape, act));
    } catch (thrown) {
      if (!(thrown instanceof FaultsFound)) throw thrown;
      await update(
        this.source,
        'import_run',
        { id: run.id },
        {
          state: 'checking',
          done: 0,
          faulty: 0,
          leased_until: null,
          problem: 'The house changed since these rows were checked. They are checked again; nothing was taken in',
        },
      );
    }
  }

  private async write(tx: Tx, run: RunRow, shape: Shape, act: Act): Promise<void> {
    const columns = await shape.columns(tx, act.person);
    const memory = new Memory();
    const log = new MadeLog(tx, run.id, shape.tables);
    await remove(tx, 'import_made', { import_id: run.id });
    for await (const batch of this.batches(run, columns, run.good_only === 1)) {
      if (batch.faults.length > 0) throw new FaultsFound();
      const faults = await shape.check(tx, batch.rows, memory, act.person);
      if (faults.length > 0) throw new FaultsFound();
      await shape.write(tx, act, batch.rows, log, memory);
      // Told outside the transaction, so that whoever waits sees it move. What an import made therefore names its run without a
      // foreign key, which would hold the run's row until the end.
      await update(this.source, 'import_run', { id: run.id }, { done: batch.upTo });
    }
    await this.activity.record(tx, act, {
      kind: 'import',
      glyph: 'full',
      title: `${shape.says} taken in from ${run.file_name}`,
      detail: `${log.made} made, ${log.changed} changed`,
    });
    await tx.query(
      `UPDATE import_run SET state = 'applied', done = total, made = ?, changed = ?, leased_until = NULL, finished_at = UTC_TIMESTAMP(3) WHERE id = ?`,
      [log.made, log.changed, run.id],
    );
  }

  /** The rows of a run a batch at a time, their cells read by the columns that they are said to hold. */
  private async *batches(
    run: RunRow,
    columns: readonly Column[],
    goodOnly: boolean,
  ): AsyncGenerator<{ rows: ImportRow[]; faults: RowFault[]; upTo: number }> {
    const units = parsed<(string | null)[]>(run.units);
    const words = parsed<Words>(run.words);
    const mapping = parsed<(string | null)[]>(run.mapping).map((key, i): Held | undefined => {
      const column = columns.find((c) => c.key === key);
      return column && { column, unit: units[i] ?? null };
    });
    let after = 0;
    let upTo = 0;
    for (;;) {
      const found = await rows<{ n: number; cells: unknown; faulty: number }>(
        this.source,
        'SELECT n, cells, faulty FROM import_row WHERE import_id = ? AND n > ? ORDER BY n LIMIT ?',
        [run.id, after, BATCH],
      );
      if (found.length === 0) return;
      after = found.at(-1)?.n ?? after;
      upTo += found.length;
      const batch: ImportRow[] = [];
      const faults: RowFault[] = [];
      for (const row of found) {
        if (goodOnly && row.faulty === 1) continue;
        const read = readRow(row.n, parsed<string[]>(row.cells), mapping, words);
        if (read.faults.length > 0) faults.push(...read.faults);
        else batch.push(read.row);
      }
      yield { rows: batch, faults, upTo };
    }
  }
}
