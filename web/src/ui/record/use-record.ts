import { useCallback, useEffect, useRef, useState } from 'react';
import { type DefaultValues, type FieldValues, type Path, type PathValue, useForm, type UseFormReturn } from 'react-hook-form';
import { ProblemError } from '../../api/client';
import { type Once, useAct } from '../../api/use-act';
import { type Conflict, mergeRecord, sameValue } from './merge';
import { useDraft } from './use-draft';
import { useUnkept } from './unkept';

/** A record as a form can change it, with the version that it has now; without one it is new. */
export interface Source<V> {
  values: V;
  version?: number | undefined;
}

export interface RecordState<V extends FieldValues> {
  form: UseFormReturn<V>;
  /** What the server says against a field. */
  fault: (field: string) => string | undefined;
  conflicts: readonly Conflict[];
  choose: (field: string, whose: 'theirs' | 'mine') => void;
  submit: (e: React.FormEvent) => void;
  isSaving: boolean;
  /** What was written here before the page was loaded anew is back; with the way to begin afresh. */
  restored: { forget: () => void } | null;
  problem: unknown;
}

/**
 * A form over a record that others may change meanwhile. What was typed stays, whatever happens elsewhere: fields that only
 * others changed follow them, fields that both changed wait until the person has chosen, and it is saved from the version
 * that is shown.
 */
export function useRecord<V extends FieldValues, T>({
  source,
  save,
  onSaved,
  part = '',
  unwritten = [],
}: {
  source: Source<V>;
  /** Tells this form from others on its page. */
  part?: string;
  /** Fields that are never written down before they are kept, such as passwords. */
  unwritten?: readonly (keyof V & string)[];
  save: (values: V, version: number | undefined, once: Once) => Promise<T>;
  /** Where it goes on to; without it the form stays open on what was kept. */
  onSaved?: (answer: T) => unknown;
}): RecordState<V> {
  const form = useForm<V>({ defaultValues: source.values as DefaultValues<V> });
  const base = useRef(source);
  const sent = useRef<number | undefined>(undefined);
  const asks = useRef(false);
  const [conflicts, setConflicts] = useState<readonly Conflict[]>([]);
  const [moved, setMoved] = useState(false);
  const { getValues, setValue, reset } = form;
  const put = useCallback(
    (field: string, value: unknown) => setValue(field as Path<V>, value as PathValue<V, Path<V>>, { shouldDirty: true }),
    [setValue],
  );

  /** Takes a record for what the form began from: what was typed beyond it is what is not kept yet. */
  const beginFrom = useCallback(
    (from: Source<V>) => {
      base.current = from;
      const typed: Readonly<Record<string, unknown>> = getValues();
      reset(from.values, { keepValues: true });
      for (const field of Object.keys(from.values)) if (!sameValue(typed[field], from.values[field])) put(field, typed[field]);
    },
    [getValues, reset, put],
  );

  const act = useAct({
    act: async (values: V, once) => {
      const version = base.current.version;
      sent.current = version;
      const answer = await save(values, version, once);
      // What is read now may say it in other words, or with what the server has filled in: that is no other person's change.
      beginFrom({ values, version });
      return answer;
    },
    ...(onSaved ? { onDone: onSaved } : {}),
    onFailed: (problem) => setMoved(problem instanceof ProblemError && problem.status === 412),
  });
  const { isPending } = act;
  // Asked of the values themselves, since what has just been kept may not have been painted.
  const isUnkept = useCallback(() => {
    const now: Readonly<Record<string, unknown>> = getValues();
    return Object.entries(base.current.values).some(([field, value]) => !sameValue(now[field], value));
  }, [getValues]);
  useUnkept(isUnkept);
  const [restored, forget] = useDraft({ form, baseRef: base, part, unwritten, begin: beginFrom, put, isUnkept });
  useEffect(() => {
    // While it is on its way, what moves may be the very thing that was sent.
    if (isPending || source.version === base.current.version) return;
    const merged = mergeRecord(base.current.values, source.values, getValues());
    for (const [field, value] of merged.taken) put(field, value);
    beginFrom(source);
    asks.current ||= merged.conflicts.length > 0;
    setConflicts((open) => [...open.filter((c) => !merged.conflicts.some((m) => m.field === c.field)), ...merged.conflicts]);
  }, [source, isPending, getValues, put, beginFrom]);
  const { mutate } = act;
  // The record moved on while this was on its way. Where nobody has to choose, it is sent again from what stands there now.
  useEffect(() => {
    if (!moved || isPending || source.version === sent.current) return;
    setMoved(false);
    if (!asks.current) void form.handleSubmit((values) => mutate(values))();
  }, [moved, isPending, source.version, form, mutate]);
  const faults = act.error instanceof ProblemError ? act.error.fields : {};
  const choose = (field: string, whose: 'theirs' | 'mine') => {
    const conflict = conflicts.find((c) => c.field === field);
    if (conflict && whose === 'theirs') put(field, conflict.theirs);
    const left = conflicts.filter((c) => c.field !== field);
    asks.current = left.length > 0;
    setConflicts(left);
  };
  return {
    form,
    fault: (field) => faults[field],
    conflicts,
    choose,
    submit: (e) => void form.handleSubmit((values) => act.mutate(values))(e),
    isSaving: act.isPending,
    restored: restored ? { forget: () => forget(source) } : null,
    // Another version is no fault of the person's: what has changed is shown field by field.
    problem: !moved && act.error instanceof ProblemError && act.error.status === 412 ? null : act.error,
  };
}
