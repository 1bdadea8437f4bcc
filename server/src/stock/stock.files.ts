import { Injectable } from '@nestjs/common';
import { ItemQueries } from '../catalogue/index.js';
import { listTable, Lists } from '../exchange/index.js';
import { StockQueries } from './stock.queries.js';

async function* movements(stock: StockQueries, itemId: number, siteIds: readonly number[]) {
  for (let before: number | null = null; ;) {
    const page = await stock.movements(itemId, siteIds, before);
    yield* page.rows;
    if (page.before === null) return;
    before = Number(page.before);
  }
}

/** The movements of an item as a file. */
@Injectable()
export class StockFiles {
  constructor(lists: Lists, items: ItemQueries, stock: StockQueries) {
    lists.register('movements', async (person, query) => {
      const id = await items.idOf((query['sku'] ?? '').toUpperCase());
      return listTable('movements', movements(stock, id, person.siteIds), [
        ['When', (m) => m.at],
        ['From', (m) => m.from],
        ['To', (m) => m.to],
        ['Units', (m) => m.units],
        ['Lot', (m) => m.lot],
        ['Condition', (m) => m.condition],
        ['For', (m) => m.task],
        ['Document', (m) => m.document],
        ['Who', (m) => m.who],
        ['How', (m) => m.how],
      ]);
    });
  }
}
