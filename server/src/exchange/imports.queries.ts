import { unitsOf } from '@vectrum/core/cells';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { mapPage, notFound, num, one, type Page, pageOf, parsed, type Person, rows, type Window } from '../platform/index.js';
import type { ImportDto, ImportFaultDto, ImportFaultGroupDto, ImportFieldDto, ImportKindDto, ImportRowDto } from './exchange.dto.js';
import type { Words } from './read-row.js';
import { Shapes } from './registry.js';
import type { Column } from './shape.js';

const SHOWN_FAULTS = 200;
const FIELDS = `r.id, r.file_name AS fileName, r.kind, r.state, r.total, r.done, r.faulty, r.made, r.changed, r.problem, r.created_at AS createdAt, p.name AS who, r.person_id AS personId`;

/** Reads imports: the list of them, one with what is wrong in it, its faulty rows as they were. */
@Injectable()
export class ImportsQueries {
  constructor(
    private readonly source: DataSource,
    private readonly shapes: Shapes,
  ) {}

  /** What this person may take in, with the fields of each kind. */
  async kinds(person: Person): Promise<ImportKindDto[]> {
    const mine = this.shapes.all.filter((s) => person.rights.has(s.right));
    return Promise.all(
      mine.map(async (s) => ({
        kind: s.kind,
        says: s.says,
        fields: (await s.columns(this.source, person)).map(fieldDto),
      })),
    );
  }

  /** One's own, and an owner everybody's, the newest first. */
  async list(person: Person, window: Window): Promise<Page<ImportRowDto>> {
    const list = {
      select: FIELDS,
      from: 'FROM import_run r JOIN person p ON p.id = r.person_id WHERE r.person_id = ? OR ? = 1',
      params: [person.id, person.isOwner ? 1 : 0],
      order: 'r.created_at DESC',
    };
    return mapPage(await pageOf<Omit<ImportRowDto, 'says'>>(this.source, list, window), (r) => ({
      ...r,
      says: this.shapes.of(r.kind).says,
    }));
  }

  async one(person: Person, id: string): Promise<ImportDto> {
    const run = await one<
      Omit<ImportDto, 'columns' | 'fields' | 'faults' | 'groups' | 'words' | 'says'> & {
        columns: unknown;
        mapping: unknown;
        units: unknown;
        words: unknown;
        personId: number;
      }
    >(
      this.source,
      `SELECT ${FIELDS}, r.columns, r.mapping, r.units, r.words FROM import_run r JOIN person p ON p.id = r.person_id WHERE r.id = ?`,
      [id],
    );
    if (!run || (run.personId !== person.id && !person.isOwner)) throw notFound('That import');
    const shape = this.shapes.of(run.kind);
    const columns = await shape.columns(this.source, person);
    const mapping = parsed<(string | null)[]>(run.mapping);
    const faults = await rows<ImportFaultDto>(
      this.source,
      'SELECT n AS `row`, field, value, reason FROM import_fault WHERE import_id = ? ORDER BY n, field LIMIT ?',
      [id, SHOWN_FAULTS],
    );
    const groups = await rows<Omit<ImportFaultGroupDto, 'label' | 'rows'> & { rows: string }>(
      this.source,
      'SELECT f.field, f.value, f.reason, COUNT(*) AS `rows`, MIN(f.n) AS `row` FROM import_fault f WHERE f.import_id = ? GROUP BY f.field, f.reason, f.value ORDER BY COUNT(*) DESC, MIN(f.n) LIMIT ?',
      [id, SHOWN_FAULTS],
    );
    const labelOf = (field: string) => columns.find((c) => c.key === field)?.label ?? field;
    const units = parsed<(string | null)[]>(run.units);
    const { personId: _, mapping: __, units: ___, words, ...rest } = run;
    return {
      ...rest,
      says: shape.says,
      columns: parsed<{ head: string; samples: string[] }[]>(run.columns).map((c, i) => ({
        ...c,
        field: mapping[i] ?? null,
        unit: units[i] ?? null,
      })),
      fields: columns.map(fieldDto),
      groups: groups.map((g) => ({ ...g, rows: num(g.rows), label: labelOf(g.field) })),
      words: Object.entries(parsed<Words>(words)).flatMap(([field, own]) =>
        Object.entries(own).map(([value, becomes]) => ({ field, label: labelOf(field), value, becomes })),
      ),
      faults: faults.map((f) => ({ ...f, field: labelOf(f.field) })),
    };
  }

  /** The faulty rows with their own heads, and what is wrong with each at the end; taken in again, the last column is passed over. */
  async faultyRows(person: Person, id: string): Promise<{ heads: string[]; rows: AsyncIterable<string[]> }> {
    const run = await this.one(person, id);
    const source = this.source;
    const heads = run.columns.map((c) => c.head);
    async function* read(): AsyncGenerator<string[]> {
      for (let after = 0; ;) {
        const found = await rows<{ n: number; cells: unknown; why: string | null }>(
          source,
          `SELECT r.n, r.cells, (SELECT GROUP_CONCAT(f.reason SEPARATOR '; ') FROM import_fault f WHERE f.import_id = r.import_id AND f.n = r.n) AS why
           FROM import_row r WHERE r.import_id = ? AND r.faulty = 1 AND r.n > ? ORDER BY r.n LIMIT 1000`,
          [id, after],
        );
        for (const r of found) {
          const cells = parsed<string[]>(r.cells);
          yield [...heads.map((_, i) => cells[i] ?? ''), r.why ?? ''];
        }
        const last = found.at(-1);
        if (!last) return;
        after = last.n;
      }
    }
    return { heads: [...heads, 'What is wrong'], rows: read() };
  }
}

/** A field as a page offers it. */
const fieldDto = (c: Column): ImportFieldDto => ({
  key: c.key,
  label: c.label,
  also: [...(c.also ?? [])],
  required: c.required === true,
  choices: c.read.choices ? [...c.read.choices] : null,
  units: c.measure ? unitsOf(c.measure) : null,
});
