import type { Codebook, FloorCommand, TaskKind } from '@vectrum/core/scan';
import { type ReactNode, useEffect, useMemo, useState } from 'react';
import { useMe } from '../api/queries';
import { ProblemError } from '../api/client';
import { dayIn } from '../api/site-day';
import { scannerProfile } from '../scanner/profile';
import { ProblemNote } from '../ui/states';
import { useBook } from './book';
import { draftOf } from './drafts';
import { isOffline } from './kept';
import { queue } from './queue';
import { addressOf, type BundleOf, useTask } from './tasks';
import { PhoneHead } from '../ui/phone/parts';

/** All that a flow needs before its first scan. */
export interface Ready<K extends TaskKind = TaskKind> {
  bundle: BundleOf<K>;
  address: string;
  siteId: number;
  applied: readonly string[];
  book: Codebook;
  /** What this person had in hand here, and the device's commands that the task may not show yet. */
  draft: object | null;
  pending: readonly FloorCommand[];
  refetch: () => Promise<unknown>;
  hasUnsent: () => boolean;
}

/** Waits for a task, the site's codes and what the device remembers; says what is missing, with a way back. */
export function TaskGate<K extends TaskKind>({
  kind,
  taskKey,
  back,
  children,
}: {
  kind: K;
  taskKey: string | number | undefined;
  back?: ReactNode;
  children: (ready: Ready<K>) => ReactNode;
}) {
  const task = useTask(kind, taskKey);
  const bundle = task.data;
  const book = useBook(bundle?.siteId);
  const address = addressOf(kind, taskKey ?? '');
  const memory = useMemory(address);
  const dated = useMemo(
    () =>
      book.data && bundle
        ? { ...book.data, today: dayIn(bundle.timeZone, new Date()), separatorsSeen: scannerProfile().separatorsSeen }
        : undefined,
    [book.data, bundle],
  );
  if (bundle && dated && memory) {
    const hasUnsent = () => queue.pendingOf(address).some((c) => c.answeredAt === null);
    const { siteId, applied } = bundle;
    const { draft, pending } = memory;
    return children({ bundle, address, siteId, applied, book: dated, draft, pending, refetch: task.refetch, hasUnsent });
  }
  const again = () => void Promise.all([task.refetch(), book.refetch()]);
  return (
    <div className="p-4">
      <h1 className="sr">{task.error ? 'This task cannot be had' : 'The task is fetched'}</h1>
      {back && <PhoneHead>{back}</PhoneHead>}
      <ProblemNote problem={inWords(task.error ?? book.error)} onRetry={again} />
    </div>
  );
}

/** Without a network, only what was open here before can be shown. */
const inWords = (error: Error | null): Error | null =>
  error && isOffline(error)
    ? new ProblemError(503, 'offline', 'No network, and this was not open on this device before. It opens when the network is back')
    : error;

/** What the device remembers of a task, read once. */
function useMemory(address: string) {
  const me = useMe();
  const personId = me.data?.id;
  const [memory, setMemory] = useState<{ address: string; draft: object | null; pending: readonly FloorCommand[] }>();
  useEffect(() => {
    if (personId === undefined) return;
    let gone = false;
    void Promise.all([draftOf(address, personId), queue.ready]).then(([draft]) => {
      if (!gone) setMemory({ address, draft, pending: queue.pendingOf(address).map((c) => c.command) });
    });
    return () => {
      gone = true;
    };
  }, [address, personId]);
  return memory?.address === address ? memory : undefined;
}
