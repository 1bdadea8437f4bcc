import { QueryClient, useQuery } from '@tanstack/react-query';
import { key } from './keys';
import { showUnits } from '../ui/units';
import { useChosenSite } from '../flow/device-choices';
import { kept } from '../flow/kept';
import { api, ask, type Dto, ProblemError } from './client';
import { liveIn } from './site-day';

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2_000,
      retry: (count, error) => !(error instanceof ProblemError) && count < 3,
      refetchOnWindowFocus: true,
      // Whether there is a network is found out by asking: what is kept on the device answers where there is none.
      networkMode: 'always',
    },
  },
});

export const useMe = () =>
  useQuery({
    queryKey: key('me'),
    queryFn: async () => {
      const me = await kept('me', () => ask(api.GET('/api/session')));
      showUnits(me.units);
      if (me.sites[0]) liveIn(me.sites[0].timeZone);
      return me;
    },
    staleTime: 60_000,
    retry: false,
  });
export const useLine = () => useQuery({ queryKey: key('line'), queryFn: () => ask(api.GET('/api/line')), refetchInterval: 60_000 });
export const useNow = () => useQuery({ queryKey: key('now'), queryFn: () => ask(api.GET('/api/now')), refetchInterval: 60_000 });
export const useTape = (limit: number, filter: { document?: string; mine?: boolean; stage?: 'picking' } = {}) =>
  useQuery({
    queryKey: key('tape', limit, filter),
    queryFn: () =>
      ask(
        api.GET('/api/tape', {
          params: {
            query: {
              limit: String(limit),
              ...(filter.document ? { document: filter.document } : {}),
              ...(filter.mine ? { mine: '1' } : {}),
              ...(filter.stage ? { stage: filter.stage } : {}),
            } as never,
          },
        }),
      ),
    placeholderData: (was) => was,
  });

/** All suppliers, to choose one of. */
export const useSuppliers = () =>
  useQuery({
    queryKey: key('suppliers', 'all'),
    queryFn: () =>
      allOf((from, limit) => ask(api.GET('/api/suppliers', { params: { query: { from: String(from), limit: String(limit) } } }))),
  });

const AT_ONCE = 1_000;
async function allOf<R>(load: (from: number, limit: number) => Promise<{ rows: R[] }>): Promise<R[]> {
  const all: R[] = [];
  for (;;) {
    const { rows } = await load(all.length, AT_ONCE);
    all.push(...rows);
    if (rows.length < AT_ONCE) return all;
  }
}

const NO_DRAWINGS: ReadonlyMap<string, string> = new Map();
/** The drawings of goods by name; they never change while the server runs, and are kept for when there is no network. */
export function useDrawings(): ReadonlyMap<string, string> {
  const drawings = useQuery({
    queryKey: key('drawings'),
    queryFn: () => kept('drawings', () => ask(api.GET('/api/drawings'))),
    staleTime: Infinity,
    select: byName,
  });
  return drawings.data ?? NO_DRAWINGS;
}
const byName = (list: readonly { name: string; svg: string }[]): ReadonlyMap<string, string> => new Map(list.map((d) => [d.name, d.svg]));

/** The site that this device works at, and a way to choose another of the person's. */
export function useSite(): { site: Dto['SiteDto'] | undefined; sites: readonly Dto['SiteDto'][]; choose: (id: number) => void } {
  const me = useMe();
  const [site, choose] = useChosenSite(me.data?.sites, me.data?.deviceSiteId);
  return { site, sites: me.data?.sites ?? [], choose };
}
