import { useQuery } from '@tanstack/react-query';
import { key } from '../../api/keys';
import type { ComponentProps } from 'react';
import { api, ask } from '../../api/client';
import { Select } from '../../ui/input';

/** The docks of a site, or whichever is free. */
export function DoorSelect({ siteId, ...select }: { siteId: number } & ComponentProps<'select'>) {
  const docks = useQuery({
    queryKey: key('places', { kind: 'dock' }),
    queryFn: () => ask(api.GET('/api/places', { params: { query: { kind: 'dock', from: '0', limit: '100' } } })),
    staleTime: 60_000,
  });
  return (
    <Select {...select}>
      <option value="">any</option>
      {docks.data?.rows
        .filter((d) => d.siteId === siteId)
        .map((d) => (
          <option key={d.code} value={d.code}>
            {d.code}
          </option>
        ))}
    </Select>
  );
}
