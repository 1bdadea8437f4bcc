import { useQuery } from '@tanstack/react-query';
import { key as keyOf } from '../api/keys';
import type { TaskKind } from '@vectrum/core/scan';
import { api, ask, type Dto } from '../api/client';
import { deviceDatabase } from './device-store';
import { isOffline } from './kept';
import { queue } from './queue';

/** How many commands the server is asked about at once; those that it may have seen come first. */
const MOST_ASKED = 50;

export type BundleOf<K extends TaskKind> = Extract<Dto['FloorTask'], { kind: K }>;

export const addressOf = (kind: TaskKind, key: string | number): string => `${kind}/${String(key).toUpperCase()}`;

/**
 * A task as it stands, with the commands of this device that it shows the effect of: those that the server names, and those
 * that it had answered before it was asked. The queue keeps these until a page shows the task, since a reading may be dropped
 * for a newer one. Without a network, the task is as it was when it was last read.
 */
export async function readTask<K extends TaskKind>(kind: K, key: string | number): Promise<BundleOf<K>> {
  await queue.ready;
  const address = addressOf(kind, key);
  const pending = queue.pendingOf(address);
  const answered = pending.filter((c) => c.answeredAt !== null).map((c) => c.id);
  const asked = pending.filter((c) => c.answeredAt === null).map((c) => c.id);
  const db = await deviceDatabase();
  const readAt = Date.now();
  try {
    const read = await ask(
      api.GET('/api/floor/tasks/{kind}/{key}', {
        params: { path: { kind, key: String(key) }, query: { asked: asked.slice(0, MOST_ASKED).join(',') } },
      }),
    );
    const bundle = { ...read, applied: [...read.applied, ...answered] };
    if (!isOf(kind, bundle)) throw new TypeError(`Not a task of ${kind}`);
    await db.put('tasks', { address, readAt, bundle });
    return bundle;
  } catch (thrown) {
    if (!isOffline(thrown)) throw thrown;
    const before = (await db.get('tasks', address))?.bundle;
    if (before && isOf(kind, before)) return before;
    throw thrown;
  }
}

const isOf = <K extends TaskKind>(kind: K, bundle: Dto['FloorTask']): bundle is BundleOf<K> => bundle.kind === kind;

/** One task of the floor, kept on the device. */
export const useTask = <K extends TaskKind>(kind: K, key: string | number | undefined) =>
  useQuery({
    queryKey: keyOf('task', kind, String(key ?? '').toUpperCase()),
    queryFn: () => readTask(kind, key ?? ''),
    enabled: key !== undefined && key !== '',
    retry: false,
  });
