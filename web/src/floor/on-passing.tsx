import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api, ask } from '../api/client';
import { key } from '../api/keys';
import { useMe } from '../api/queries';
import { useAct } from '../api/use-act';
import { plural } from '../ui/format';
import { Glyph } from '../ui/glyph';
import { PhoneItem, PhoneLink, PhoneList, Say } from '../ui/phone/parts';
import { ProblemNote } from '../ui/states';

/** What is to be counted at a place, for whoever may count, and the way to count it at once. */
function usePassing(code: string | undefined) {
  const navigate = useNavigate();
  const may = useMe().data?.rights.includes('count') ?? false;
  const path = { params: { path: { code: code ?? '' } } };
  const query = useQuery({
    queryKey: key('passing', code),
    queryFn: () => ask(api.GET('/api/places/{code}/passing', path)),
    enabled: may && code !== undefined,
    retry: false,
  });
  const begin = useAct({
    act: (_: void, once) => ask(api.POST('/api/places/{code}/passing', { ...path, headers: once })),
    onDone: (count) => navigate(`/floor/tally/${count.code}`),
  });
  // A place whose goods are not counted answers with a refusal, and has nothing to say here.
  return { passing: query.data, begin };
}

/** Somebody at other work stands at a bin: what is due there is said in a word, and nothing where nothing is. */
export function PassingWord({ code }: { code: string | undefined }) {
  const { passing, begin } = usePassing(code);
  if (!passing || (passing.due === 0 && passing.count === null)) return null;
  return (
    <Say className="mt-2 text-[17px]">
      <PhoneLink disabled={begin.isPending} onClick={() => begin.mutate()}>
        {code}: {passing.count ? 'in a count, count it' : `${plural(passing.due, 'line', 'lines')} to check`}
      </PhoneLink>
      <ProblemNote problem={begin.error} />
    </Say>
  );
}

/** Whoever looks at a bin is told what the plan wants counted there, and may count it at once. */
export function OnPassing({ code }: { code: string }) {
  const { passing, begin } = usePassing(code);
  if (!passing) return null;
  const { due, count } = passing;
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
