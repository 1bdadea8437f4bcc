import { useQuery } from '@tanstack/react-query';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { kept } from '../../flow/kept';

/** The counts at a site of which this person can count bins now; as they were last read where there is no network. */
export const useOpenCounts = (siteId: number | undefined) =>
  useQuery({
    queryKey: key('open-counts', siteId),
    queryFn: () =>
      kept(`open-counts-${siteId ?? ''}`, () =>
        ask(api.GET('/api/sites/{siteId}/open-counts', { params: { path: { siteId: siteId ?? 0 } } })),
      ),
    enabled: siteId !== undefined,
  });
