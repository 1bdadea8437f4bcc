import { type UseMutationResult, useMutation, useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef } from 'react';
import { newKey, ProblemError } from './client';
import { freshFor } from './keys';

/** The headers that make an act happen once, however often it is sent. */
export type Once = Readonly<{ 'idempotency-key': string }>;

/** Headers for a request that may be sent again without harm, such as a preview. */
export const afresh = (): Once => ({ 'idempotency-key': newKey() });

/** Whether the server has said how an act ended. Where it has not, nobody knows whether it was done. */
export const isAnswered = (thrown: unknown): boolean => thrown instanceof ProblemError && thrown.status < 500;

/** Gives each act a key of its own, and gives out again the one of an act that nobody knows the end of. */
export class ActKeys {
  private lost: string | null = null;

  take(): string {
    const key = this.lost ?? newKey();
    this.lost = null;
    return key;
  }

  /** An act failed: where the server has not said so, it may have been done, and its key is kept for the next press. */
  failed(key: string, thrown: unknown): void {
    if (!isAnswered(thrown)) this.lost = key;
  }
}

/** How often the pointer was pressed in a row where it was pressed last; a key or a finger elsewhere begins anew. */
let clicks = 1;
globalThis.addEventListener?.('click', (e) => (clicks = e.detail), true);
globalThis.addEventListener?.('keydown', () => (clicks = 1), true);

/** Tells a press from its own echo: the same act while it is under way, or by the second press of a double click. */
export class Presses {
  private last: unknown;

  isNew(values: unknown, inARow: number, isUnderWay: boolean): boolean {
    const said = values instanceof Blob ? values : JSON.stringify({ values });
    const isEcho = this.last === said && (isUnderWay || inARow > 1);
    this.last = said;
    return !isEcho;
  }
}

/**
 * One act of a person at a time, under one key until it is answered: whoever presses again after a lost answer sends the same act
 * again, which the server carries out once; a double click is one press. What the screen shows is read again when it is done.
 */
export function useAct<T, V = void>({
  act,
  onDone,
  onFailed,
}: {
  act: (values: V, once: Once) => Promise<T>;
  onDone?: (answer: T, values: V) => unknown;
  onFailed?: (problem: unknown) => unknown;
}): UseMutationResult<T, Error, V> {
  const client = useQueryClient();
  const keys = useRef(new ActKeys());
  const presses = useRef(new Presses());
  const made = useMutation<T, Error, V>({
    mutationFn: async (values) => {
      const key = keys.current.take();
      try {
        return await act(values, { 'idempotency-key': key });
      } catch (thrown) {
        keys.current.failed(key, thrown);
        if (thrown instanceof ProblemError && thrown.code === 'key-reused') throw alreadyDone(thrown);
        throw thrown;
      }
    },
    onSuccess: async (answer, values) => {
      await client.invalidateQueries({ predicate: freshFor(null) });
      await onDone?.(answer, values);
    },
    onError: async (problem) => {
      // Another version, or a state that it was not in: what stands there now is shown beside the refusal.
      if (problem instanceof ProblemError && problem.status !== 400) await client.invalidateQueries({ predicate: freshFor(null) });
      onFailed?.(problem);
    },
  });
  const { mutate, isPending } = made;
  const press = useCallback(
    (...pressed: Parameters<typeof mutate>) => {
      if (presses.current.isNew(pressed[0], clicks, isPending)) mutate(...pressed);
    },
    [mutate, isPending],
  );
  return { ...made, mutate: press };
}

/** What was pressed first did arrive, though its answer was lost; what is pressed now is something else. */
const alreadyDone = (problem: ProblemError) =>
  new ProblemError(
    problem.status,
    problem.code,
    'What you sent before did arrive, though no answer came back. Look at what is there now before you send this',
  );
