import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { mapPage, notFound, one, type Page, pageOf, parsed, type Person, rows, type Window } from '../platform/index.js';
import type { ImportDto, ImportFaultDto, ImportKindDto, ImportRowDto } from './exchange.dto.js';
import { Shapes } from './registry.js';

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
        fields: (await s.columns(this.source, person)).map((c) => ({
          key: c.key,
          label: c.label,
          also: [...(c.also ?? [])],
          required: c.required === true,
        })),
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
      Omit<ImportDto, 'columns' | 'fields' | 'faults' | 'says'> & { columns: unknown; mapping: unknown; personId: number }
    >(this.source, `SELECT ${FIELDS}, r.columns, r.mapping FROM import_run r JOIN person p ON p.id = r.person_id WHERE r.id = ?`, [id]);
    if (!run || (run.personId !== person.id && !person.isOwner)) throw notFound('That import');
    const shape = this.shapes.of(run.kind);
    const columns = await shape.columns(this.source, person);
    const mapping = parsed<(string | null)[]>(run.mapping);
    const faults = await rows<ImportFaultDto>(
      this.source,
      'SELECT n AS `row`, field, value, reason FROM import_fault WHERE import_id = ? ORDER BY n, field LIMIT ?',
      [id, SHOWN_FAULTS],
    );
    const { personId: _, mapping: __, ...rest } = run;
    return {
      ...rest,
      says: shape.says,
      columns: parsed<{ head: string; samples: string[] }[]>(run.columns).map((c, i) => ({ ...c, field: mapping[i] ?? null })),
      fields: columns.map((c) => ({ key: c.key, label: c.label, also: [...(c.also ?? [])], required: c.required === true })),
      faults: faults.map((f) => ({ ...f, field: columns.find((c) => c.key === f.field)?.label ?? f.field })),
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
