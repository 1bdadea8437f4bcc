import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { useSite } from '../../api/queries';
import { Page } from '../../ui/page';
import { Empty, Shown, Skeleton } from '../../ui/states';
import { PickingWords } from './picking-words';

const WalksNow = lazy(async () => ({ default: (await import('./walks-now')).WalksNow }));
/** Who is where changes with each scan; when they will be through, also with time. */
const AGAIN_MS = 30_000;

/** Who walks now: where they are on the plan, what is ahead of them, and whether they will be through before their van. */
export function WalksPage() {
  const { site } = useSite();
  const siteId = site?.id ?? 0;
  const walks = useQuery({
    queryKey: key('walks', siteId),
    queryFn: () => ask(api.GET('/api/sites/{siteId}/walks', { params: { path: { siteId } } })),
    enabled: siteId > 0,
    refetchInterval: AGAIN_MS,
  });
  const plan = useQuery({
    queryKey: key('plan', siteId),
    queryFn: () => ask(api.GET('/api/plans/{siteId}', { params: { path: { siteId } } })),
    enabled: siteId > 0,
  });
  return (
    <Page className="flex flex-col h-full" aria-label="Who is where">
      <h1 className="sr">Who is where</h1>
      <PickingWords at="walks">{site && <span className="note">{site.name}</span>}</PickingWords>
      <Shown query={walks}>
        {(found) =>
          found.walks.length === 0 ? (
            <Empty title="Nobody walks a round">Whoever begins one on their phone shows here, with the way ahead of them.</Empty>
          ) : (
            <Shown query={plan}>
              {(drawn) => (
                <Suspense fallback={<Skeleton />}>
                  <WalksNow found={found} plan={drawn} />
                </Suspense>
              )}
            </Shown>
          )
        }
      </Shown>
    </Page>
  );
}
