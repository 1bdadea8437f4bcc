import { usePreference } from '../../api/preferences';

export const SHOWS = ['all', 'urgent', 'ready', 'short', 'stuck', 'quotes', 'gone', 'cancelled'] as const;
export type Show = (typeof SHOWS)[number];
export const SAYS: Readonly<Record<Show, string>> = {
  all: 'All',
  urgent: 'Urgent',
  ready: 'Ready',
  short: 'Short',
  stuck: 'Stuck',
  quotes: 'Quotes',
  gone: 'Gone',
  cancelled: 'Cancelled',
};
/** Orders that are over or not begun have no van to catch: one list, newest first. */
export const FLAT: ReadonlySet<Show> = new Set(['quotes', 'gone', 'cancelled']);

export const GROUPINGS = ['departure', 'customer', 'channel'] as const;
export type Grouping = (typeof GROUPINGS)[number];

/** What the list of orders shows, as its address says it. */
export interface OrderView {
  show: Show;
  by: Grouping;
  channel: string;
  search: string;
}

export function viewOf(params: URLSearchParams): OrderView {
  return {
    show: SHOWS.find((s) => s === params.get('show')) ?? 'all',
    by: GROUPINGS.find((g) => g === params.get('by')) ?? 'departure',
    channel: params.get('channel') ?? '',
    search: params.get('search') ?? '',
  };
}

/** The address of a view: what is usual is left out. */
export function paramsOf({ show, by, channel, search }: OrderView): Record<string, string> {
  return {
    ...(show === 'all' ? {} : { show }),
    ...(by === 'departure' ? {} : { by }),
    ...(channel ? { channel } : {}),
    ...(search ? { search } : {}),
  };
}

/** A view that a person has kept under a name. */
export interface KeptView {
  name: string;
  params: Record<string, string>;
}

/** The views that a person has kept; there is no way to change them until they have been read. */
export function useKeptViews(): [KeptView[], ((views: KeptView[]) => void) | null] {
  const [kept, keep] = usePreference<{ views: KeptView[] }>('order-views', { views: [] });
  return [kept.views, keep && ((views) => keep({ views }))];
}
