import { useQuery } from '@tanstack/react-query';
import { key } from '../../../api/keys';

import { api, ask } from '../../../api/client';
import { oftenWords } from './rules-sheet';
import { TextLink } from '../../../ui/button';

/** How often deliveries of an item, or of a supplier, are looked at; nothing where they are not. */
export function LookedAt({ sku, supplier }: { sku?: string; supplier?: string }) {
  const rules = useQuery({
    queryKey: key('inspection-rules'),
    queryFn: () => ask(api.GET('/api/inspection-rules')),
    staleTime: 60_000,
  });
  const own = (rules.data ?? []).filter((r) => (sku ? r.sku === sku : r.supplierCode === supplier));
  if (own.length === 0) return null;
  return (
    <p className="mt-2">
      Looked at before it is stock:{' '}
      {own
        .map((r) => [oftenWords(r), sku ? r.supplier && `from ${r.supplier}` : r.item && `of ${r.item}`].filter(Boolean).join(' '))
        .join('; ')}{' '}
      <TextLink to="/inbound/inspection/rules">What is looked at</TextLink>
    </p>
  );
}
