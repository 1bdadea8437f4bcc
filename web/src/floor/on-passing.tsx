import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api, ask } from '../api/client';
import { key } from '../api/keys';
import { useMe } from '../api/queries';
import { useAct } from '../api/use-act';
import { plural } from '../ui/format';
import { Glyph } from '../ui/glyph';
import { PhoneItem, PhoneList } from '../ui/phone/parts';
import { ProblemNote } from '../ui/states';

/** Whoever stands at a bin is told what the plan wants counted there, and may count it at once. */
export function OnPassing({ code }: { code: string }) {
  const navigate = useNavigate();
  const may = useMe().data?.rights.includes('count') ?? false;
  const path = { params: { path: { code } } };
  const query = useQuery({
    queryKey: key('passing', code),
    queryFn: () => ask(api.GET('/api/places/{code}/passing', path)),
    enabled: may,
    retry: false,
  });
  const begin = useAct({
    act: (_: void, once) => ask(api.POST('/api/places/{code}/passing', { ...path, headers: once })),
    onDone: (count) => navigate(`/floor/tally/${count.code}`),
  });
  // A place whose goods are not counted answers with a refusal, and has nothing to say here.
  if (!query.data) return null;
  const { due, count } = query.data;
  return (
    <PhoneList className="mt-3" aria-label="Counting">
      <PhoneItem next={due > 0 || count !== null}>
        <button type="button" disabled={begin.isPending} onClick={() => begin.mutate()}>
          <b>{count ? 'Count it: it is in a count' : due > 0 ? `${plural(due, 'line', 'lines')} to check here` : 'Count this bin'}</b>
          <Glyph name="go" size={22} />
          <span>{count ? <span className="code">{count}</span> : due > 0 ? 'due by the plan of counting' : 'nothing of it is due'}</span>
        </button>
      </PhoneItem>
      <ProblemNote problem={begin.error} />
    </PhoneList>
  );
}
