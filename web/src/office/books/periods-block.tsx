import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { day } from '../../ui/format';
import { Input } from '../../ui/input';
import { BlockHead } from '../../ui/page';
import { ProblemNote } from '../../ui/states';

/** The last day of the month before, as an ISO date: what is usually closed next. */
function lastMonthEnds(): string {
  const now = new Date();
  return new Date(Date.UTC(now.getFullYear(), now.getMonth(), 0)).toISOString().slice(0, 10);
}

/** Periods that are closed: what was told outside stays as it was. */
export function PeriodsBlock() {
  const query = useQuery({ queryKey: key('periods'), queryFn: () => ask(api.GET('/api/books/periods')) });
  const [through, setThrough] = useState(lastMonthEnds);
  const [why, setWhy] = useState('');
  const close = useAct({ act: (_: void, once) => ask(api.POST('/api/books/periods/close', { headers: once, body: { through } })) });
  const reopen = useAct({
    act: (_: void, once) => ask(api.POST('/api/books/periods/reopen', { headers: once, body: { why } })),
    onDone: () => setWhy(''),
  });
  const closed = query.data?.closedThrough ?? null;
  return (
    <section aria-label="Periods">
      <BlockHead className="mt-5">
        <h2>{closed ? `Closed to the end of ${day(closed)}` : 'No period is closed'}</h2>
        <span className="note">no payment or bill is dated in what is closed</span>
      </BlockHead>
      <div className="flex flex-wrap gap-x-4 gap-y-2 items-center">
        <label className="flex gap-2 items-center">
          to the end of{' '}
          <Input
            type="date"
            className="w-[150px]"
            aria-label="Close to the end of"
            value={through}
            onChange={(e) => setThrough(e.target.value)}
          />
        </label>
        <Button type="button" disabled={through === '' || close.isPending} onClick={() => close.mutate()}>
          Close it
        </Button>
        {closed && (
          <span className="flex gap-2 items-center">
            <Input
              aria-label="Why it is opened again"
              placeholder="why it is opened again"
              maxLength={200}
              style={{ width: 210 }}
              value={why}
              onChange={(e) => setWhy(e.target.value)}
            />
            <Button type="button" disabled={why.trim() === '' || reopen.isPending} onClick={() => reopen.mutate()}>
              Open the last again
            </Button>
          </span>
        )}
      </div>
      <ProblemNote problem={close.error ?? reopen.error} />
      {query.data?.rows.map((p) => (
        <p key={p.at} className="note">
          {day(p.throughOn)} closed by {p.by}, {day(p.at)}
          {p.reopenedAt && `; opened again by ${p.reopenedBy ?? ''}, ${day(p.reopenedAt)}: ${p.reopenedWhy}`}
        </p>
      ))}
    </section>
  );
}
