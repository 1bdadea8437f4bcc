import { QueryClient, useQuery } from '@tanstack/react-query';
import { showUnits } from '../ui/units';
import { kept } from '../flow/kept';
import { api, ask, ProblemError } from './client';
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
    queryKey: ['me'],
    queryFn: async () => {
      const me = await kept('me', () => ask(api.GET('/api/session')));
      showUnits(me.units);
      if (me.sites[0]) liveIn(me.sites[0].timeZone);
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
