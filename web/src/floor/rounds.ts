import { useQuery } from '@tanstack/react-query';
import { api, ask, at, type Dto } from '../api/client';
import { key } from '../api/keys';
import { useSite } from '../api/queries';
import { kept } from '../flow/kept';

/** The rounds of the site that are not through; as they were last seen where there is no network. */
export function useRounds(isWanted = true) {
  const { site } = useSite();
  return useQuery({
    queryKey: key('rounds', site?.id),
    queryFn: () => kept(`round-page-${site?.id ?? ''}`, () => ask(api.GET('/api/rounds', at(site)))),
    enabled: site !== undefined && isWanted,
  });
}

/** Whether a round stands at a wall and waits to be sorted. */
export const isToSort = (r: Dto['RoundRowDto']): boolean => r.pooled && r.state === 'set-down' && !r.isSorted;
