import type { Codebook, ItemFacts, PlaceFacts } from './types.js';

/** Goods or a place that words were found for, with the code that stands for it. */
export interface Found {
  code: string;
  says: string;
  kind: 'item' | 'place';
}

/**
 * Goods and places whose name or code holds every word, those in `first` before all others, then in the order of their names.
 * For fingers that look for something without a code at hand. O(items + places).
 */
export function findWords(
  book: Codebook,
  text: string,
  most: number,
  of: { first?: ReadonlySet<number>; place?: (place: PlaceFacts) => boolean } = {},
): Found[] {
  const words = plain(text).split(/\s+/).filter(Boolean);
  if (words.length === 0) return [];
  const has = (said: string) => words.every((w) => plain(said).includes(w));
  const rank = (item: ItemFacts) => (of.first?.has(item.id) ? 0 : 1);
  const items = Object.values(book.items)
    .filter((i) => has(`${i.name} ${i.sku}`))
    .sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name));
  const places = Object.values(book.places)
    .filter((p) => (of.place?.(p) ?? true) && has(p.code))
    .sort((a, b) => a.code.localeCompare(b.code, undefined, { numeric: true }));
  const found: Found[] = [
    ...items.slice(0, most).map((i): Found => ({ code: i.sku, says: i.name, kind: 'item' })),
    ...places.slice(0, most).map((p): Found => ({ code: p.code, says: p.kind.replaceAll('-', ' '), kind: 'place' })),
  ];
  return found.slice(0, most);
}

/** Letters without their marks, in one case: who looks for Käse may type kase. */
const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
