import type { PlaceFilter } from './places.queries.js';

/** Reads the filter of a list of places from a request's query. */
export function placeFilter(query: Record<string, unknown>): PlaceFilter {
  const word = (key: string) => (typeof query[key] === 'string' ? query[key].trim().slice(0, 40) : '');
  return {
    search: word('search'),
    kind: word('kind'),
    zone: word('zone'),
    state: word('state'),
    sort: word('sort') || 'walk',
    ...(Number(query['site']) > 0 ? { siteId: Number(query['site']) } : {}),
  };
}
