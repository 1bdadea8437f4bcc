import { useQuery } from '@tanstack/react-query';
import { api, ask, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { when } from '../../ui/format';
import { Select } from '../../ui/input';
import { ProblemNote } from '../../ui/states';

type Every = 'day' | 'week' | 'month';
const EVERY: Readonly<Record<Every, string>> = { day: 'every day', week: 'every Monday', month: 'on the first of the month' };

/** How often something is done by itself, in whose name, and what came of it the last time. */
export function TimetableLine({ what, says }: { what: 'export' | 'invoices'; says: string }) {
  const query = useQuery({ queryKey: key('timetables'), queryFn: () => ask(api.GET('/api/books/timetables')) });
  const kept = query.data?.find((t) => t.what === what);
  const set = useAct({
    act: (every: Every | null, once) =>
      ask(
        api.PUT('/api/books/timetables/{what}', {
          params: { path: { what } },
          headers: { ...once, ...ifMatch(kept?.version ?? 0) },
          body: { every },
        }),
      ),
  });
  if (!query.data) return null;
  return (
    <div className="flex flex-wrap gap-x-3 gap-y-1 items-center mt-2">
      <label className="flex gap-2 items-center">
        {says}
        <Select
          className="w-[210px]"
          value={kept?.every ?? ''}
          disabled={set.isPending}
          onChange={(e) => set.mutate(e.target.value === '' ? null : (e.target.value as Every))}
        >
          <option value="">by hand</option>
          {(Object.keys(EVERY) as Every[]).map((every) => (
            <option key={every} value={every}>
              {EVERY[every]}
            </option>
          ))}
        </Select>
      </label>
      {kept && (
        <span className="note">
          in the name of {kept.keptBy}
          {kept.lastAt && `; ${when(kept.lastAt)}: ${kept.lastSays}`}
        </span>
      )}
      <ProblemNote problem={set.error} />
    </div>
  );
}
