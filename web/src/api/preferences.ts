import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, ask } from './client';

/** What a person has arranged for themselves under a name, and a way to change it. Shown at once, kept behind it. */
export function usePreference<T extends Record<string, unknown>>(name: string, start: T): [T, (value: T) => void] {
  const client = useQueryClient();
  const key = ['preference', name];
  const query = useQuery({
    queryKey: key,
    queryFn: async () => (await ask(api.GET('/api/preferences/{name}', { params: { path: { name } } }))).value as T,
    staleTime: Infinity,
  });
  const keep = useMutation({
    mutationFn: (value: T) => ask(api.PUT('/api/preferences/{name}', { params: { path: { name } }, body: { value } })),
    onMutate: (value) => client.setQueryData(key, value),
  });
  return [{ ...start, ...query.data }, (value) => keep.mutate(value)];
}
