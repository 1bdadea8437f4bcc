import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { listTable, Lists } from '../exchange/index.js';
import { rows } from '../platform/index.js';

async function* tape(source: DataSource, siteIds: readonly number[]) {
  for (let before = Number.MAX_SAFE_INTEGER; ;) {
    const found: {
      id: number;
      at: Date;
      who: string | null;
      title: string;
      detail: string;
      document: string | null;
      how: string | null;
    }[] = await rows(
      source,
      `SELECT a.id, a.at, p.name AS who, a.title, a.detail, a.document, a.how FROM activity a LEFT JOIN person p ON p.id = a.person_id
         WHERE a.id < ? AND (a.site_id IS NULL OR a.site_id IN (?)) ORDER BY a.id DESC LIMIT 1000`,
      [before, [0, ...siteIds]],
    );
    yield* found;
    const last = found.at(-1);
    if (!last) return;
    before = last.id;
  }
}

/** The tape as a file. */
@Injectable()
export class DeskFiles {
  constructor(lists: Lists, source: DataSource) {
    lists.register('tape', (person) =>
      listTable('tape', tape(source, person.siteIds), [
        ['When', (t) => t.at],
        ['Who', (t) => t.who],
        ['What', (t) => t.title],
        ['Detail', (t) => t.detail],
        ['Document', (t) => t.document],
        ['How', (t) => t.how],
      ]),
    );
  }
}
