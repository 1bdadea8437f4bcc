import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAddress, withParam } from '../../../ui/address';
import { Select } from '../../../ui/input';
import { Page } from '../../../ui/page';
import { Shown, Skeleton } from '../../../ui/states';
import { PickingWords } from '../picking-words';

const Board = lazy(async () => ({ default: (await import('./release-board')).Board }));

/** Deciding what is picked next: what waits, rounds over it with their walks, who walks them and when. */
export function ReleasePage() {
  const me = useMe();
  const [params, change] = useAddress();
  const sites = me.data?.sites ?? [];
  const siteId = Number(params.get('site') ?? sites[0]?.id ?? 0);
  const board = useQuery({
    queryKey: key('release-board', siteId),
    queryFn: () => ask(api.GET('/api/sites/{siteId}/release-board', { params: { path: { siteId } } })),
    enabled: siteId > 0,
  });
  const plan = useQuery({
    queryKey: key('plan', siteId),
    queryFn: () => ask(api.GET('/api/plans/{siteId}', { params: { path: { siteId } } })),
    enabled: siteId > 0,
  });
  return (
    <Page className="release-page" aria-label="Release">
      <h1 className="sr">Release</h1>
      <PickingWords at="release">
        {sites.length > 1 && (
          <Select
            style={{ width: 170 }}
            aria-label="Site"
            value={siteId}
            onChange={(e) => change((p) => withParam(p, 'site', e.target.value))}
          >
            {sites.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </Select>
        )}
      </PickingWords>
      <Shown query={board}>
        {(found) => (
          <Shown query={plan}>
            {(drawn) => (
              <Suspense fallback={<Skeleton />}>
                <Board key={siteId} board={found} plan={drawn} />
              </Suspense>
            )}
          </Shown>
        )}
      </Shown>
    </Page>
  );
}
