import { type RefObject, useCallback, useEffect, useRef, useState } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import { draftAt, keepDraftAt } from './unkept';
import type { Source } from './use-record';

const GATHER_MS = 150;

/**
 * Keeps what is being written in a form for a reload of its page, and puts it back then: what others have changed meanwhile is
 * brought together with it as if the page had stood open. Returns whether it did, and what puts the form back to the record.
 */
export function useDraft<V extends FieldValues>({
  form,
  baseRef,
  part,
  unwritten,
  begin,
  put,
  isUnkept,
}: {
  form: UseFormReturn<V>;
  baseRef: RefObject<Source<V>>;
  part: string;
  unwritten: readonly string[];
  begin: (from: Source<V>) => void;
  put: (field: string, value: unknown) => void;
  isUnkept: () => boolean;
}): [boolean, (source: Source<V>) => void] {
  const [address] = useState(() => `${window.location.pathname}#${part}`);
  const [draft] = useState(() => draftAt(address));
  const [restored, setRestored] = useState(draft !== null);
  const { getValues, reset, subscribe } = form;
  const latest = useRef(unwritten);

  useEffect(() => {
    if (!draft) return;
    for (const [field, value] of Object.entries(draft.typed)) if (field in getValues()) put(field, value);
    // From what the record was when it was written: the page goes on to what it is now.
    begin({ values: { ...getValues(), ...draft.base }, version: draft.version });
  }, [draft, getValues, put, begin]);

  useEffect(() => {
    let timer: number | undefined;
    const write = () => {
      window.clearTimeout(timer);
      timer = undefined;
      const written = (values: object) => Object.fromEntries(Object.entries(values).filter(([field]) => !latest.current.includes(field)));
      keepDraftAt(
        address,
        isUnkept() ? { version: baseRef.current.version, base: written(baseRef.current.values), typed: written(getValues()) } : null,
      );
    };
    const stop = subscribe({
      formState: { values: true, isDirty: true },
      callback: () => {
        window.clearTimeout(timer);
        timer = window.setTimeout(write, GATHER_MS);
      },
    });
    const leave = () => timer !== undefined && write();
    window.addEventListener('pagehide', leave);
    return () => {
      stop();
      window.clearTimeout(timer);
      window.removeEventListener('pagehide', leave);
      // The page goes on without it: it was kept, or left by choice.
      keepDraftAt(address, null);
    };
  }, [address, baseRef, getValues, subscribe, isUnkept]);

  const forget = useCallback(
    (source: Source<V>) => {
      baseRef.current = source;
      reset(source.values);
      keepDraftAt(address, null);
      setRestored(false);
    },
    [address, baseRef, reset],
  );
  return [restored && isUnkept(), forget];
}
