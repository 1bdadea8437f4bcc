import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { api, ask } from './client';
import { key } from './keys';
import { LatestOnly } from './latest-only';
import { keepUnsent, unsentAt, wasSent } from './unsent';
import { useAct } from './use-act';

/**
 * What a person has arranged for themselves under a name, and a way to change it, which shows at once and is kept behind it. There is
 * no way to change it until it has been read: a choice made on top of the usual would undo what was arranged before. What was chosen
 * just before the page was loaded anew holds, also where the server had not heard of it when it was asked.
 */
export function usePreference<T extends Record<string, unknown>>(name: string, usual: T): [T, ((value: T) => void) | null] {
  const own = key('preference', name);
  const client = useQueryClient();
  const person = client.getQueryData<{ id: number }>(key('me'))?.id ?? 0;
  const query = useQuery({
    queryKey: own,
    queryFn: async () => (await ask(api.GET('/api/preferences/{name}', { params: { path: { name } } }))).value as T,
    staleTime: Infinity,
  });
  const keep = useAct({
    // It is carried to its end though the page is left meanwhile.
    act: (value: T, once) =>
      ask(api.PUT('/api/preferences/{name}', { params: { path: { name } }, body: { value }, headers: once, keepalive: true })),
  });
  const { mutateAsync } = keep;
  const latest = useMemo(
    () =>
      new LatestOnly<T>(async (value) => {
        await mutateAsync(value);
        wasSent(name, person, value);
      }),
    [mutateAsync, name, person],
  );
  useEffect(() => {
    const leave = () => latest.leave();
    globalThis.addEventListener('pagehide', leave);
    return () => {
      globalThis.removeEventListener('pagehide', leave);
      leave();
    };
  }, [latest]);
  const isRead = query.isSuccess;
  useEffect(() => {
    const unsent = isRead ? unsentAt(name, person) : undefined;
    if (unsent === undefined) return;
    client.setQueryData(key('preference', name), unsent);
    latest.choose(unsent as T);
  }, [isRead, name, person, client, latest]);
  // Beside the cache, which tells its readers in a later turn: a box that is ticked must be ticked when the click is over.
  const [chosen, setChosen] = useState<T | null>(null);
  const choose = (value: T) => {
    keepUnsent(name, person, value);
    setChosen(value);
    client.setQueryData(own, value);
    latest.choose(value);
  };
  return [{ ...usual, ...(chosen ?? query.data) }, query.isSuccess ? choose : null];
}
