import { QueryClient, useQuery } from '@tanstack/react-query';
import type { Codebook } from '@vectrum/core/scan';
import { showUnits } from '../ui/units';
import { api, ask, ProblemError } from './client';

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 2_000,
      retry: (count, error) => !(error instanceof ProblemError) && count < 3,
      refetchOnWindowFocus: true,
    },
  },
});

export const useMe = () =>
  useQuery({
    queryKey: ['me'],
    queryFn: async () => {
      const me = await ask(api.GET('/api/session'));
      showUnits(me.units);
      return me;
    },
    staleTime: 60_000,
    retry: false,
  });
export const useLine = () => useQuery({ queryKey: ['line'], queryFn: () => ask(api.GET('/api/line')), refetchInterval: 60_000 });
export const useNow = () => useQuery({ queryKey: ['now'], queryFn: () => ask(api.GET('/api/now')), refetchInterval: 60_000 });
export const useTape = (limit: number, filter: { document?: string; mine?: boolean } = {}) =>
  useQuery({
    queryKey: ['tape', limit, filter],
    queryFn: () =>
      ask(
        api.GET('/api/tape', {
          params: {
            query: {
              limit: String(limit),
              ...(filter.document ? { document: filter.document } : {}),
              ...(filter.mine ? { mine: '1' } : {}),
            } as never,
          },
        }),
      ),
    placeholderData: (was) => was,
  });

/** The codes of a site; refreshed now and then, kept for as long as the page is open. */
export const useCodebook = (siteId: number | undefined) =>
  useQuery({
    queryKey: ['codebook', siteId],
    queryFn: () => ask(api.GET('/api/floor/codebook', { params: { query: { site: String(siteId) } } })) as Promise<Codebook>,
    enabled: siteId !== undefined,
    staleTime: 5 * 60_000,
    gcTime: Infinity,
  });
