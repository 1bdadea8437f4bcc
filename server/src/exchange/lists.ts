import { Injectable } from '@nestjs/common';
import { mustHave, type Right } from '../identity/index.js';
import { notFound, type Person } from '../platform/index.js';
import type { OutCell } from './files/write.js';

/** What a file is written from, a row at a time. */
export interface Table {
  name: string;
  heads: readonly string[];
  rows: AsyncIterable<readonly OutCell[]>;
}
type Cell = OutCell | null | Date | undefined;
export type ListColumns<T> = readonly (readonly [head: string, cell: (row: T) => Cell])[];
export type ListQuery = Readonly<Record<string, string>>;
export type LoadList = (person: Person, query: ListQuery) => Table | Promise<Table>;

const PAGE = 500;

const plain = (value: Cell): OutCell => (value === null || value === undefined ? '' : value instanceof Date ? value.toISOString() : value);

async function* each<T>(list: AsyncIterable<T> | Iterable<T>, columns: ListColumns<T>): AsyncGenerator<OutCell[]> {
  for await (const row of list) yield columns.map(([, cell]) => plain(cell(row)));
}

/** A list as a table: its heads, and a cell for each column of each row. */
export const listTable = <T>(name: string, list: AsyncIterable<T> | Iterable<T>, columns: ListColumns<T>): Table => ({
  name,
  heads: columns.map(([head]) => head),
  rows: each(list, columns),
});

/** All rows of a list that is read a window at a time. */
export async function* windows<T>(load: (from: number, count: number) => Promise<{ rows: T[] }>): AsyncGenerator<T> {
  for (let from = 0; ; from += PAGE) {
    const page = await load(from, PAGE);
    yield* page.rows;
    if (page.rows.length < PAGE) return;
  }
}

/** That a list is part of the day's archive: once for the house, or for each site (`?site=`); with what it is asked with. */
export interface InTheDay {
  daily: 'house' | 'site';
  with?: ListQuery;
}

/** What each list shows, with the filter that it is shown with; modules register their own. */
@Injectable()
export class Lists {
  private readonly all = new Map<string, { load: LoadList; right: Right | undefined; day: InTheDay | undefined }>();

  /** `right` is what reading the list needs, where not everybody may. */
  register(name: string, load: LoadList, right?: Right, day?: InTheDay): void {
    this.all.set(name, { load, right, day });
  }

  /** The lists of the day's archive that a person may read. */
  ofTheDay(person: Person): ({ name: string } & InTheDay)[] {
    return [...this.all].flatMap(([name, { right, day }]) => (day && (!right || person.rights.has(right)) ? [{ name, ...day }] : []));
  }

  async table(person: Person, name: string, query: ListQuery): Promise<Table> {
    const list = this.all.get(name);
    if (!list) throw notFound(`A list of ${name.slice(0, 20)}`);
    if (list.right) mustHave(person, list.right);
    return list.load(person, query);
  }
}
