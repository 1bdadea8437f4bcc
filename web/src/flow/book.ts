import { useQuery } from '@tanstack/react-query';
import { key } from '../api/keys';
import { codebookOf, type Codebook } from '@vectrum/core/scan';
import { api, ask, type Dto } from '../api/client';
import { type BookPart, deviceDatabase } from './device-store';
import { isOffline } from './kept';

/** Things in one record of the device's database. */
const IN_A_RECORD = 500;
const FRESH_MS = 60_000;

/** What a site's codes mean, and up to which change. */
export interface SiteBook {
  version: number;
  items: Map<number, Dto['BookItemDto']>;
  places: Map<number, Dto['BookPlaceDto']>;
}

export const emptyBook = (): SiteBook => ({ version: 0, items: new Map(), places: new Map() });

/** Takes one part of what has changed into a book; returns the records of the device's database that it touches. */
export function takeIn(book: SiteBook, part: Dto['BookPartDto']): Set<string> {
  const touched = new Set<string>();
  const touch = (kind: 'item' | 'place', id: number) => touched.add(recordOf(kind, id));
  for (const item of part.items) {
    book.items.set(item.id, item);
    touch('item', item.id);
  }
  for (const place of part.places) {
    book.places.set(place.id, place);
    touch('place', place.id);
  }
  for (const id of part.goneItems) if (book.items.delete(id)) touch('item', id);
  for (const id of part.gonePlaces) if (book.places.delete(id)) touch('place', id);
  return touched;
}

const recordOf = (kind: 'item' | 'place', id: number): string => `${kind}-${Math.floor(id / IN_A_RECORD)}`;

const books = new Map<number, { book: SiteBook; codes: Omit<Codebook, 'today'> }>();

/** The site's book as this device last knew it. */
async function remembered(siteId: number): Promise<SiteBook> {
  const known = books.get(siteId);
  if (known) return known.book;
  const db = await deviceDatabase();
  const book = emptyBook();
  const version = (await db.get('bookVersions', siteId))?.version;
  if (version === undefined) return book;
  const parts = await db.getAll('books', IDBKeyRange.bound(`${siteId}/`, `${siteId}/\uffff`));
  for (const { items, places } of parts) takeIn(book, { version, next: null, items, places, goneItems: [], gonePlaces: [] });
  return { ...book, version };
}

/** Writes what has changed, and the version only with the last of it. */
async function remember(siteId: number, book: SiteBook, touched: ReadonlySet<string>): Promise<void> {
  const parts = new Map<string, BookPart>([...touched].map((record) => [record, { key: `${siteId}/${record}`, items: [], places: [] }]));
  for (const item of book.items.values()) parts.get(recordOf('item', item.id))?.items.push(item);
  for (const place of book.places.values()) parts.get(recordOf('place', place.id))?.places.push(place);
  const tx = (await deviceDatabase()).transaction(['books', 'bookVersions'], 'readwrite');
  await Promise.all([
    ...[...parts.values()].map((part) => tx.objectStore('books').put(part)),
    tx.objectStore('bookVersions').put({ siteId, version: book.version }),
    tx.done,
  ]);
}

function fetchPart(siteId: number, since: number, on: { until: number; after: string } | null): Promise<Dto['BookPartDto']> {
  const further = on ? { until: String(on.until), after: on.after } : {};
  return ask(api.GET('/api/floor/book', { params: { query: { site: String(siteId), since: String(since), ...further } } }));
}

/** Brings the device's book up to date: only what has changed since its version is fetched, in parts. */
export async function readBook(siteId: number): Promise<Omit<Codebook, 'today'>> {
  let book = await remembered(siteId);
  try {
    const touched = new Set<string>();
    let since = book.version;
    let part = await fetchPart(siteId, since, null);
    if (part.version < since) {
      // The house was put back to an older state: what this device knows of it is from another time.
      book = emptyBook();
      since = 0;
      part = await fetchPart(siteId, since, null);
    }
    const until = part.version;
    for (;;) {
      for (const record of takeIn(book, part)) touched.add(record);
      if (part.next === null) break;
      part = await fetchPart(siteId, since, { until, after: part.next });
    }
    book.version = until;
    if (touched.size > 0 || since === 0) await remember(siteId, book, touched);
    const known = books.get(siteId);
    if (known?.book === book && touched.size === 0) return known.codes;
  } catch (thrown) {
    if (!isOffline(thrown) || book.version === 0) throw thrown;
    const known = books.get(siteId);
    if (known) return known.codes;
  }
  const codes = codebookOf(book.items.values(), book.places.values());
  books.set(siteId, { book, codes });
  return codes;
}

/** The codes of a site, kept on the device. */
export const useBook = (siteId: number | undefined) =>
  useQuery({
    queryKey: key('book', siteId),
    queryFn: () => readBook(siteId ?? 0),
    enabled: siteId !== undefined,
    staleTime: FRESH_MS,
    gcTime: Infinity,
    retry: false,
    structuralSharing: false,
  });
