import { useQuery } from '@tanstack/react-query';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { kept } from '../../flow/kept';

/** What goes from a site and what comes to it; as it was last read where there is no network. */
export const useOpenTransfers = (siteId: number | undefined) =>
  useQuery({
    queryKey: key('open-transfers', siteId),
    queryFn: () =>
      kept(`open-transfers-${siteId ?? ''}`, () =>
        ask(api.GET('/api/transfers/open/{siteId}', { params: { path: { siteId: siteId ?? 0 } } })),
      ),
    enabled: siteId !== undefined,
  });
