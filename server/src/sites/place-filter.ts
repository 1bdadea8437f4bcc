import { wholeOf } from '../platform/index.js';
import type { PlaceFilter } from './places.queries.js';

/** Reads the filter of a list of places from a request's query. */
export function placeFilter(query: Record<string, unknown>): PlaceFilter {
  const word = (key: string) => (typeof query[key] === 'string' ? query[key].trim().slice(0, 40) : '');
  const siteId = wholeOf(query['site'], 0);
  return {
    search: word('search'),
    kind: word('kind'),
    zone: word('zone'),
    state: word('state'),
    sort: word('sort') || 'walk',
    ...(siteId > 0 ? { siteId } : {}),
  };
}
