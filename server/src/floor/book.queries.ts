import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { codeKey } from '@vectrum/core/scan';
import { CodebookQueries } from '../catalogue/index.js';
import { inTransaction, marks, num, one, rows, siteDay, type Tx, update } from '../platform/index.js';
import type { BookItemDto, BookPartDto } from './floor.dto.js';

/** Things in one part: enough that few requests are made, few enough that each is quick. */
const IN_A_PART = 2_000;

interface Mark {
  kind: 'item' | 'place';
  ref: number;
}

/** The codes of a site by version: a phone fetches what has changed since it last did, in parts. */
@Injectable()
export class BookQueries {
  constructor(
    private readonly source: DataSource,
    private readonly codebook: CodebookQueries,
  ) {}

  /**
   * What has changed since a version, from the place where the part before ended. Nought fetches all. `until` is the version
   * that the first part named: what changes while parts are fetched comes the next time.
   */
  async part(siteId: number, since: number, until: number | null, after: string | null): Promise<BookPartDto> {
    const version = until ?? (await this.head());
    const [kind, ref] = place(after);
    const marks = await rows<Mark>(
      this.source,
      `SELECT kind, ref FROM book_change WHERE version > ? AND version <= ? AND (kind > ? OR (kind = ? AND ref > ?)) ORDER BY kind, ref LIMIT ${IN_A_PART}`,
      [since, version, kind, kind, ref],
    );
    const refs = (of: Mark['kind']) => marks.filter((m) => m.kind === of).map((m) => m.ref);
    const last = marks.length === IN_A_PART ? marks.at(-1) : undefined;
    const { items, places } = await this.things(siteId, refs('item'), refs('place'));
    const gone = (of: Mark['kind'], here: readonly { id: number }[]) => {
      const ids = new Set(here.map((h) => h.id));
      return since === 0 ? [] : refs(of).filter((id) => !ids.has(id));
    };
    return {
      version,
      next: last ? `${last.kind}-${last.ref}` : null,
      items,
      places,
      goneItems: gone('item', items),
      gonePlaces: gone('place', places),
    };
  }

  private async things(siteId: number, itemIds: number[], placeIds: number[]): Promise<Pick<BookPartDto, 'items' | 'places'>> {
    const { today } = await siteDay(this.source, siteId);
    const facts = itemIds.length === 0 ? {} : await this.codebook.items(this.source, siteId, itemIds);
    const items = new Map(Object.values(facts).map((item): [number, BookItemDto] => [item.id, { ...item, codes: [] }]));
    const codes = await rows<{ code: string; packId: number; itemId: number }>(
      this.source,
      `SELECT b.code, u.id AS packId, u.item_id AS itemId FROM barcode b JOIN pack_unit u ON u.id = b.pack_unit_id WHERE u.item_id IN (${marks(itemIds)})`,
      itemIds,
    );
    for (const { code, packId, itemId } of codes) items.get(itemId)?.codes.push({ code: codeKey(code, today), packId });
    return { items: [...items.values()], places: await this.codebook.places(this.source, siteId, placeIds) };
  }

  /**
   * The newest version. What was marked since it was last asked gets one now: only what is committed is seen, so that no
   * change that is still being made is ever skipped, however long it takes.
   */
  private async head(): Promise<number> {
    const waiting = await one(this.source, 'SELECT 1 FROM book_change WHERE version IS NULL LIMIT 1');
    if (!waiting) return num((await one<{ version: string }>(this.source, 'SELECT version FROM book_head WHERE id = 1'))?.version);
    return inTransaction(this.source, (tx) => this.number(tx));
  }

  private async number(tx: Tx): Promise<number> {
    const head = num((await one<{ version: string }>(tx, 'SELECT version FROM book_head WHERE id = 1 FOR UPDATE'))?.version);
    const changed = await rows<Mark>(tx, 'SELECT kind, ref FROM book_change WHERE version IS NULL FOR UPDATE SKIP LOCKED');
    if (changed.length === 0) return head;
    for (const kind of ['item', 'place'] as const) {
      const refs = changed.filter((c) => c.kind === kind).map((c) => c.ref);
      for (let i = 0; i < refs.length; i += 5_000) {
        const some = refs.slice(i, i + 5_000);
        await tx.query(`UPDATE book_change SET version = ? WHERE kind = ? AND ref IN (${marks(some)})`, [head + 1, kind, ...some]);
      }
    }
    await update(tx, 'book_head', { id: 1 }, { version: head + 1 });
    return head + 1;
  }
}

/** Where the part before ended; the beginning where nothing is said. */
function place(after: string | null): [string, number] {
  const read = /^(item|place)-(\d{1,10})$/.exec(after ?? '');
  return read ? [read[1] ?? '', Number(read[2])] : ['', 0];
}
