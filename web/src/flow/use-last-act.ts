import type { Feedback } from '@vectrum/core/scan';
import { useCallback, useRef, useState } from 'react';
import { ProblemError, type Dto } from '../api/client';
import { useUndo } from '../ui/tape';
import { type LastAct, lastActOf } from './last-act';
import { queue } from './queue';

interface Hands {
  /** Lets go of a command that was never sent. */
  letGo: (id: string) => void;
  show: (feedback: Feedback) => void;
  /** The documents that its acts are kept under; absent where they may be kept under others. */
  documents?: readonly string[] | undefined;
}

/** Keeps the acts that were made here, and takes the last of them back, also while it is on its way. */
export function useLastAct(entries: readonly Dto['TapeEntryDto'][], { letGo, show, documents }: Hands) {
  const [acts, setActs] = useState<readonly LastAct[]>([]);
  const latest = useRef<readonly LastAct[]>([]);
  /** The command that is to be taken back as soon as the server has answered it. */
  const wanted = useRef<string | null>(null);
  const { mutate } = useUndo();
  const set = useCallback((next: readonly LastAct[]) => {
    latest.current = next;
    setActs(next);
  }, []);
  const without = useCallback((id: string) => set(latest.current.filter((a) => a.id !== id)), [set]);

  const takeBack = useCallback(
    (act: LastAct & { activityId: number }) =>
      mutate(act.activityId, {
        onSuccess: (done) => {
          if (act.id) without(act.id);
          show({ band: 'accepted', title: 'Undone', detail: done.title });
        },
        onError: (thrown) => {
          show({
            band: 'not-this',
            title: 'Not undone',
            detail: thrown instanceof ProblemError ? thrown.message : 'No network. Try again',
          });
        },
      }),
    [mutate, show, without],
  );

  const made = useCallback(
    (act: Omit<LastAct, 'activityId'> & { id: string }) => set([...latest.current, { ...act, activityId: null }]),
    [set],
  );
  const answered = useCallback(
    (id: string, activityId: number) => {
      const act = latest.current.find((a) => a.id === id);
      if (!act) return;
      set(latest.current.map((a) => (a === act ? { ...a, activityId } : a)));
      if (wanted.current !== id) return;
      wanted.current = null;
      takeBack({ ...act, activityId });
    },
    [set, takeBack],
  );

  const undo = useCallback(async () => {
    const last = lastActOf(latest.current, entries, documents);
    if (!last) return show({ band: 'not-this', title: 'Nothing to undo', detail: 'The last act cannot be taken back here' });
    if (last.activityId !== null) return void takeBack({ ...last, activityId: last.activityId });
    const { id } = last;
    if (id !== undefined && (await queue.takeBack(id))) {
      without(id);
      letGo(id);
      return show({ band: 'accepted', title: 'Undone', detail: 'It was not sent yet' });
    }
    wanted.current = id ?? null;
    return show({ band: 'accepted', title: 'To be undone', detail: `${last.title}: as soon as the server has answered` });
  }, [entries, letGo, show, takeBack, without, documents]);

  return { acts, made, answered, refused: without, undo };
}
