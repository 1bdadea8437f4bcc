import type { PackId } from '../ids/index.js';
import type { Codebook, ItemFacts, PlaceFacts } from './types.js';

/** An item with the codes of its packs, as keys (`codeKey`). */
export interface BookItem extends ItemFacts {
  codes: readonly { code: string; packId: PackId }[];
}

/** What the codes of a site mean, from its items and places. An item is known by its SKU too, as one of its smallest pack. */
export function codebookOf(items: Iterable<BookItem>, places: Iterable<PlaceFacts>): Omit<Codebook, 'today'> {
  const book: Omit<Codebook, 'today'> = { codes: {}, items: {}, places: {} };
  for (const { codes, ...item } of items) {
    book.items[item.id] = item;
    const base = item.packs.find((p) => p.factor === 1);
    if (base) book.codes[item.sku.toUpperCase()] = { itemId: item.id, packId: base.id };
    for (const { code, packId } of codes) book.codes[code] = { itemId: item.id, packId };
  }
  for (const place of places) book.places[place.code.toUpperCase()] = place;
  return book;
}
