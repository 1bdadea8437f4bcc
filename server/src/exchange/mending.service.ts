import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { type Act, badForm, badState, CommandLog, find, insert, one, parsed, rows, type Tx, update } from '../platform/index.js';
import type { ImportMendDto, MendImportDto } from './exchange.dto.js';
import { ImportJobs } from './import-jobs.js';
import { checkAnew, forgetFaults, lockedRun, mustMay, type RunRow, shapeHash } from './import-run.js';
import { wordKey, type Words } from './read-row.js';
import { Shapes } from './registry.js';

const MOST_WORDS = 5_000;

/** Mends what is faulty in a file without the file: a word for all rows that have it, or one cell of one row. */
@Injectable()
export class MendingService {
  constructor(
    private readonly commands: CommandLog,
    private readonly shapes: Shapes,
    private readonly jobs: ImportJobs,
  ) {}

  /** Says what cells are to be read as, and has the rows checked once more. What a word stands for is remembered for files of the same shape. */
  async mend(act: Act, id: string, { changes }: MendImportDto): Promise<void> {
    await this.commands.run(act, 'import.mend', { id, changes }, async (tx) => {
      const run = await lockedRun(tx, id, act.person);
      if (run.state !== 'checked' && run.state !== 'failed') throw badState('Have the rows checked first');
      mustMay(act.person, this.shapes.of(run.kind));
      const mapping = parsed<(string | null)[]>(run.mapping);
      const words: Record<string, Record<string, string>> = structuredClone(parsed<Words>(run.words));
      for (const change of changes) {
        if (!mapping.includes(change.field)) throw badForm({ changes: `No column of the file holds ${change.field}` });
        if (change.row != null) await this.cell(tx, id, change, mapping.indexOf(change.field));
        else for (const value of await this.valuesOf(tx, id, change)) this.word(words, change.field, value, change.becomes);
      }
      if (Object.values(words).reduce((n, own) => n + Object.keys(own).length, 0) > MOST_WORDS)
        throw badForm({ changes: `More than ${MOST_WORDS} different words are too many to mend here. Mend the file` });
      await update(tx, 'import_run', { id }, { words: JSON.stringify(words), ...checkAnew });
      await this.remember(tx, run, words);
      await forgetFaults(tx, id);
    });
    this.jobs.nudge();
  }

  /** The values that a change is about: the one it names, or all that have the fault it names. */
  private async valuesOf(tx: Tx, id: string, change: ImportMendDto): Promise<string[]> {
    if (change.value != null) return [change.value];
    const found = await rows<{ value: string }>(
      tx,
      'SELECT DISTINCT value FROM import_fault WHERE import_id = ? AND field = ? AND reason = ? LIMIT ?',
      [id, change.field, change.reason ?? '', MOST_WORDS],
    );
    if (found.length === 0) throw badForm({ changes: 'Nothing has that fault any more. Look again' });
    return found.map((f) => f.value);
  }

  private word(words: Record<string, Record<string, string>>, field: string, value: string, becomes: string | null): void {
    const own = (words[field] ??= Object.create(null) as Record<string, string>);
    if (becomes === null) delete own[wordKey(value)];
    else own[wordKey(value)] = becomes.trim();
  }

  private async cell(tx: Tx, id: string, change: ImportMendDto, column: number): Promise<void> {
    const row = await find(tx, 'import_row', { import_id: id, n: change.row ?? 0 });
    if (!row) throw badForm({ changes: `The file has no row ${change.row}` });
    const cells = parsed<string[]>(row.cells);
    while (cells.length <= column) cells.push('');
    cells[column] = (change.becomes ?? '').trim();
    await update(tx, 'import_row', { import_id: id, n: row.n }, { cells: JSON.stringify(cells) });
  }

  /** What is filled in for an empty cell is said of this file alone. */
  private async remember(tx: Tx, run: RunRow, words: Words): Promise<void> {
    const heads = parsed<{ head: string }[]>(run.columns).map((c) => c.head);
    const kept = Object.fromEntries(
      Object.entries(words).map(([field, own]) => [field, Object.fromEntries(Object.entries(own).filter(([value]) => value !== ''))]),
    );
    await update(tx, 'import_mapping', { shape: shapeHash(heads) }, { words: JSON.stringify(kept) });
  }

  /** The rows that an import has left out, as an import of their own: mended there, and taken in like any other. */
  async rest(act: Act, id: string): Promise<{ id: string }> {
    const made = await this.commands.run(act, 'import.rest', { id }, async (tx) => {
      const run = await lockedRun(tx, id, act.person);
      if (run.state !== 'applied') throw badState('Take the good rows in first');
      mustMay(act.person, this.shapes.of(run.kind));
      const left = await one<{ n: string }>(tx, 'SELECT COUNT(*) AS n FROM import_row WHERE import_id = ? AND faulty = 1', [id]);
      const total = Number(left?.n ?? 0);
      if (total === 0) throw badState('No row of it was left out');
      const taken = await one<{ id: string }>(tx, 'SELECT id FROM import_run WHERE file_hash = ? LIMIT 1', [restHash(run)]);
      if (taken) return { id: taken.id };
      await insert(tx, 'import_run', {
        id: act.key,
        file_name: `${run.file_name}, the rest`.slice(0, 190),
        file_hash: restHash(run),
        kind: run.kind,
        columns: JSON.stringify(parsed(run.columns)),
        mapping: JSON.stringify(parsed(run.mapping)),
        units: JSON.stringify(parsed(run.units)),
        words: JSON.stringify(parsed(run.words)),
        state: 'checking',
        total,
        person_id: act.person.id,
        command_id: act.key,
      });
      await tx.query('INSERT INTO import_row (import_id, n, cells) SELECT ?, n, cells FROM import_row WHERE import_id = ? AND faulty = 1', [
        act.key,
        id,
      ]);
      return { id: act.key };
    });
    this.jobs.nudge();
    return made;
  }
}

const restHash = (run: RunRow) => createHash('sha256').update(`${run.id} ${run.file_hash} the rest`).digest('hex');
