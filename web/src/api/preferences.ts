import { useQuery, useQueryClient } from '@tanstack/react-query';
import { api, ask } from './client';
import { key } from './keys';
import { useAct } from './use-act';

/** What a person has arranged for themselves under a name, and a way to change it. Shown at once, kept behind it. */
export function usePreference<T extends Record<string, unknown>>(name: string, start: T): [T, (value: T) => void] {
  const client = useQueryClient();
  const own = key('preference', name);
  const query = useQuery({
    queryKey: own,
    queryFn: async () => (await ask(api.GET('/api/preferences/{name}', { params: { path: { name } } }))).value as T,
    staleTime: Infinity,
  });
  const keep = useAct({
    act: (value: T, once) => ask(api.PUT('/api/preferences/{name}', { params: { path: { name } }, body: { value }, headers: once })),
  });
  const choose = (value: T) => {
    // What was asked for before the choice must not come in after it.
    void client.cancelQueries({ queryKey: own });
    client.setQueryData(own, value);
    keep.mutate(value);
  };
  return [{ ...start, ...query.data }, choose];
}
