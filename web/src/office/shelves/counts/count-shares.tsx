import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { Button } from '../../../ui/button';
import { BlockHead } from '../../../ui/page';
import { ProblemNote } from '../../../ui/states';

/** Shares the bins out among people, a stretch of shelves each, so that nobody crosses another. */
export function CountShares({ count: c }: { count: Dto['CountDto'] }) {
  const mayDecide = useMe().data?.rights.includes('settle-counts') ?? false;
  const choices = useQuery({
    queryKey: key('count-choices', c.siteId),
    queryFn: () => ask(api.GET('/api/sites/{siteId}/count-choices', { params: { path: { siteId: c.siteId } } })),
    enabled: mayDecide,
  });
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const share = useAct({
    act: (personIds: readonly number[], once) =>
      ask(
        api.POST('/api/counts/{code}/share', {
          params: { path: { code: c.code } },
          body: { personIds: [...personIds] },
          headers: { ...once, ...ifMatch(c.version) },
        }),
      ),
  });
  const isOpen = c.state === 'drawn-up' || c.state === 'open' || c.state === 'review';
  const people = choices.data?.people ?? [];
  if (!mayDecide || !isOpen || people.length === 0 || c.binRows.every((b) => b.state !== 'open')) return null;
  const shared = [...new Set(c.binRows.flatMap((b) => (b.person ? [b.person] : [])))];
  return (
    <>
      <BlockHead>
        <h2>Who counts</h2>
        <span className="note">{shared.length === 0 ? 'whoever comes' : shared.join(', ')}</span>
      </BlockHead>
      <div className="flex flex-wrap gap-x-5 gap-y-2 items-center mb-4">
        {people.map((p) => (
          <label key={p.id} className="flex gap-2 items-center">
            <input
              type="checkbox"
              checked={chosen.includes(p.id)}
              onChange={(e) => setChosen(e.target.checked ? [...chosen, p.id] : chosen.filter((id) => id !== p.id))}
            />
            {p.name}
          </label>
        ))}
        <Button
          type="button"
          disabled={share.isPending || (chosen.length === 0 && shared.length === 0)}
          onClick={() => share.mutate(chosen)}
        >
          {chosen.length === 0 ? 'For whoever comes' : 'Share the bins out'}
        </Button>
      </div>
      <ProblemNote problem={share.error} />
    </>
  );
}
