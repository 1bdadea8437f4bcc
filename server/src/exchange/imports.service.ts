import { createReadStream } from 'node:fs';
import type { IncomingMessage } from 'node:http';
import { createInterface } from 'node:readline';
import { Injectable } from '@nestjs/common';
import { guessColumns, unitInHead, unitsOf } from '@vectrum/core/cells';
import { DataSource } from 'typeorm';
import { ActivityService } from '../activity/index.js';
import {
  type Act,
  badForm,
  badState,
  CommandLog,
  find,
  holdList,
  insert,
  insertMany,
  inTransaction,
  NOW,
  one,
  parsed,
  Problem,
  type Person,
  rows,
  task,
  type Tx,
  update,
  Work,
} from '../platform/index.js';
import { badFile } from './files/limits.js';
import type { readTable } from './files/read-table.js';
import { withFile } from './files/receive-file.js';
import type { MapColumnsDto } from './exchange.dto.js';
import { ImportJobs } from './import-jobs.js';
import { checkAnew, forgetFaults, lockedRun, mustMay, shapeHash } from './import-run.js';
import { takeBack } from './made-log.js';
import type { Words } from './read-row.js';
import { Shapes } from './registry.js';
import type { Column } from './shape.js';

/** What a file most likely is, and how it is read. */
interface Guess {
  kind: string;
  mapping: (string | null)[];
  units: (string | null)[];
  words: Words;
}

const ZIP = Buffer.from('PK');
const INSERT_ROWS = 1_000;
const TABLE = task<typeof readTable>(
  'exchange/readTable',
  120_000,
  'This file takes more time or memory than a file may have. Save it as CSV, or part it',
);

/** The rows that a thread has read out of a file. */
async function* rowsIn(path: string): AsyncGenerator<string[]> {
  for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Infinity })) yield JSON.parse(line) as string[];
}

/** Takes files in, in steps: read, told what its columns hold, checked, applied, and taken back. */
@Injectable()
export class ImportsService {
  constructor(
    private readonly source: DataSource,
    private readonly commands: CommandLog,
    private readonly shapes: Shapes,
    private readonly jobs: ImportJobs,
    private readonly activity: ActivityService,
    private readonly work: Work,
  ) {}

  /** Reads a file into rows and guesses what it holds. The act's key names the import, so that a file sent twice is read once. */
  async read(act: Act, request: IncomingMessage, fileName: string, kind: string): Promise<{ id: string }> {
    return withFile(request, async (path, hash, head) => {
      const before = await one<{ hash: string }>(this.source, 'SELECT file_hash AS hash FROM import_run WHERE id = ?', [act.key]);
      if (before?.hash === hash) return { id: act.key };
      if (before) throw new Problem(422, 'key-reused', 'This Idempotency-Key was used for another file. Make a new one');
      const lines = rowsIn(await this.work.run(TABLE, path, head.subarray(0, 2).equals(ZIP) ? 'xlsx' : 'csv'));
      return inTransaction(this.source, async (tx) => {
        const first = await lines.next();
        if (first.done || first.value.every((h) => h === '')) throw badFile('The file is empty. Its first row names the columns');
        const heads = first.value.map((h, i) => h || `Column ${i + 1}`);
        await insert(tx, 'import_run', {
          id: act.key,
          file_name: fileName.slice(0, 190) || 'file',
          file_hash: hash,
          kind: '',
          columns: JSON.stringify([]),
          mapping: JSON.stringify([]),
          total: 0,
          person_id: act.person.id,
          command_id: act.key,
        });
        const { total, samples } = await this.stage(tx, act.key, lines, heads.length);
        if (total === 0) throw badFile('The file has heads and no rows beneath them');
        const guess = await this.guess(tx, act.person, heads, kind);
        const columns = heads.map((h, i) => ({ head: h, samples: samples.map((s) => s[i] ?? '').filter(Boolean) }));
        await update(
          tx,
          'import_run',
          { id: act.key },
          {
            kind: guess.kind,
            columns: JSON.stringify(columns),
            mapping: JSON.stringify(guess.mapping),
            units: JSON.stringify(guess.units),
            words: JSON.stringify(guess.words),
            total,
          },
        );
        return { id: act.key };
      });
    });
  }

  private async stage(tx: Tx, id: string, lines: AsyncGenerator<string[]>, width: number): Promise<{ total: number; samples: string[][] }> {
    let n = 1;
    let total = 0;
    let batch: unknown[][] = [];
    const samples: string[][] = [];
    for await (const cells of lines) {
      n++;
      if (cells.length === 0) continue;
      if (cells.length > width) throw badFile(`Row ${n} has more cells than there are heads. Look at its commas and quotation marks`);
      if (samples.length < 3) samples.push(cells);
      total++;
      batch.push([id, n, JSON.stringify(cells)]);
      if (batch.length >= INSERT_ROWS) {
        await insertMany(tx, 'import_row', ['import_id', 'n', 'cells'], batch);
        batch = [];
      }
    }
    await insertMany(tx, 'import_row', ['import_id', 'n', 'cells'], batch);
    return { total, samples };
  }

  /** What a file most likely is: as it was told last time for these heads, otherwise the kind whose columns fit best. */
  private async guess(tx: Tx, person: Person, heads: readonly string[], asked: string): Promise<Guess> {
    const kept = await find(tx, 'import_mapping', { shape: shapeHash(heads) });
    if (kept && (asked === '' || asked === kept.kind))
      return {
        kind: kept.kind,
        mapping: parsed<(string | null)[]>(kept.mapping),
        units: parsed<(string | null)[]>(kept.units),
        words: parsed<Words>(kept.words),
      };
    let best = {
      kind: 'items',
      mapping: heads.map(() => null) as (string | null)[],
      units: [] as (string | null)[],
      words: {},
      score: -Infinity,
    };
    for (const shape of asked === '' ? this.shapes.all : [this.shapes.of(asked)]) {
      const columns = await shape.columns(tx, person);
      const mapping = guessColumns(heads, columns);
      const hit = new Set(mapping.filter((m) => m !== null));
      const missing = columns.filter((c) => c.required && !hit.has(c.key)).length;
      const exact = columns.filter((c) => heads.some((h) => h.trim().toLowerCase() === c.label.toLowerCase())).length;
      const score = hit.size + exact * 2 - missing * 4;
      if (score > best.score) best = { kind: shape.kind, mapping, units: unitsIn(heads, mapping, columns), words: {}, score };
    }
    return best;
  }

  /** Says what the columns hold, remembers it for files of the same shape, and has the rows checked. */
  async map(act: Act, id: string, input: MapColumnsDto): Promise<void> {
    await this.commands.run(act, 'import.map', { id, input }, async (tx) => {
      const run = await lockedRun(tx, id, act.person);
      if (!['read', 'checked', 'failed', 'checking'].includes(run.state)) throw badState('This file is taken in already');
      const shape = this.shapes.of(input.kind);
      mustMay(act.person, shape);
      const heads = parsed<{ head: string }[]>(run.columns).map((c) => c.head);
      if (input.fields.length !== heads.length)
        throw badForm({ fields: `The file has ${heads.length} columns. Say what each of them holds` });
      const columns = await shape.columns(tx, act.person);
      const given = input.fields.filter(Boolean);
      const stranger = given.find((f) => !columns.some((c) => c.key === f));
      if (stranger) throw badForm({ fields: `There is no field ${stranger}` });
      if (new Set(given).size !== given.length) throw badForm({ fields: 'Two columns are said to hold the same. Pass one of them over' });
      const missing = columns.filter((c) => c.required && !given.includes(c.key));
      if (missing.length > 0) throw badForm({ fields: `Say which column holds: ${missing.map((c) => c.label).join(', ')}` });
      const mapping = JSON.stringify(input.fields.map((f) => f || null));
      const units = JSON.stringify(this.unitsSaid(heads, input, columns));
      // What words stand for was said of another kind of thing.
      const words = run.kind === input.kind ? JSON.stringify(parsed(run.words)) : '{}';
      await tx.query('REPLACE INTO import_mapping (shape, kind, mapping, units, words) VALUES (?, ?, ?, ?, ?)', [
        shapeHash(heads),
        input.kind,
        mapping,
        units,
        words,
      ]);
      await update(tx, 'import_run', { id }, { kind: input.kind, mapping, units, words, ...checkAnew });
      await forgetFaults(tx, id);
    });
    this.jobs.nudge();
  }

  /** Takes the rows in: all of them, or only the good ones where that is asked. */
  async apply(act: Act, id: string, goodRowsOnly: boolean): Promise<void> {
    await this.commands.run(act, 'import.apply', { id, goodRowsOnly }, async (tx) => {
      // Whoever takes the same file in meanwhile, as another import of it, waits here.
      const file = await one<{ hash: string }>(tx, 'SELECT file_hash AS hash FROM import_run WHERE id = ?', [id]);
      if (file) await holdList(tx, `import/${file.hash.slice(0, 32)}`);
      const run = await lockedRun(tx, id, act.person);
      if (run.state !== 'checked') throw badState('Have the rows checked first');
      mustMay(act.person, this.shapes.of(run.kind));
      const faulty = await one<{ n: number }>(tx, 'SELECT faulty AS n FROM import_run WHERE id = ?', [id]);
      if ((faulty?.n ?? 0) > 0 && !goodRowsOnly) throw badState('Some rows are faulty. Mend them, or take the good rows only');
      if ((faulty?.n ?? 0) >= run.total) throw badState('Every row is faulty. There is nothing to take in');
      const { onceOnly } = this.shapes.of(run.kind);
      if (
        onceOnly &&
        (await one(tx, `SELECT id FROM import_run WHERE file_hash = ? AND kind = ? AND state IN ('applying', 'applied') AND id <> ?`, [
          run.file_hash,
          run.kind,
          id,
        ]))
      )
        throw badState(onceOnly);
      await update(
        tx,
        'import_run',
        { id },
        { state: 'applying', good_only: goodRowsOnly ? 1 : 0, done: 0, problem: null, leased_until: null, command_id: act.key },
      );
    });
    this.jobs.nudge();
  }

  /** Takes a whole import back, while nothing depends on it. */
  undo(act: Act, id: string): Promise<void> {
    return this.commands.run(act, 'import.undo', { id }, async (tx) => {
      const run = await lockedRun(tx, id, act.person);
      if (run.state !== 'applied') throw badState('Only an import that was taken in can be taken back');
      const shape = this.shapes.of(run.kind);
      mustMay(act.person, shape);
      const made = await rows<{ seq: number; target: string; before_image: unknown; after_image: unknown }>(
        tx,
        'SELECT seq, target, before_image, after_image FROM import_made WHERE import_id = ? ORDER BY seq DESC',
        [id],
      );
      if (made.length === 0 && run.made + run.changed > 0)
        throw badState('What this import made is kept no longer. Put right by hand what is wrong');
      for (const m of made) {
        const after = parsed<unknown>(m.after_image);
        if (!Object.hasOwn(shape.tables, m.target)) await shape.takeBack?.(tx, act, after);
        else
          await takeBack(
            tx,
            shape.tables,
            m.target,
            m.before_image === null ? null : parsed<Record<string, unknown>[]>(m.before_image),
            after as Record<string, unknown>[],
          );
      }
      await shape.undone?.(tx);
      await update(tx, 'import_run', { id }, { state: 'undone', finished_at: NOW });
      await this.activity.record(tx, act, { kind: 'import', glyph: 'undo', title: `Import of ${run.file_name} taken back` });
    });
  }

  /** The unit of each column as it was said, otherwise as its head names it. */
  private unitsSaid(heads: readonly string[], input: MapColumnsDto, columns: readonly Column[]): (string | null)[] {
    const guessed = unitsIn(heads, input.fields, columns);
    if (!input.units) return guessed;
    return input.fields.map((field, i) => {
      const measure = columns.find((c) => c.key === field)?.measure;
      const said = input.units?.[i];
      if (!measure || !said) return guessed[i] ?? null;
      if (!unitsOf(measure).includes(said))
        throw badForm({ units: `${heads[i] ?? ''} cannot be in ${said}: it is one of ${unitsOf(measure).join(', ')}` });
      return said;
    });
  }
}

/** The unit that each column of a measure is in, by its head; null where it measures nothing, or is in what is kept. */
const unitsIn = (heads: readonly string[], mapping: readonly (string | null)[], columns: readonly Column[]): (string | null)[] =>
  heads.map((head, i) => {
    const measure = columns.find((c) => c.key === mapping[i])?.measure;
    return measure ? unitInHead(head, measure) : null;
  });
