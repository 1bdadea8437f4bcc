import { useQueryClient } from '@tanstack/react-query';
import type { Bundle, Codebook, Feedback, How, RefusedCommand, ScanInput, Step } from '@vectrum/core/scan';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { api, ask, newKey, ProblemError } from '../api/client';
import { useTape } from '../api/queries';
import { useUndo } from '../ui/tape';
import { CommandQueue } from './command-queue';
import { soundBand } from './sound';

/** Every flow's state keeps what it has posted and not yet seen in its bundle. */
interface Pending {
  pending: readonly { id: string }[];
}
interface Sendable {
  kind: string;
  id: string;
}
interface FlowOptions<Task extends Bundle, State extends Pending, Command extends Sendable> {
  task: Task;
  book: Codebook;
  start: State;
  reduce: (task: Task, book: Codebook, state: State, input: ScanInput) => Step<State, Command>;
  /** Posts a command under its own key. */
  send: (command: Command) => Promise<unknown>;
  /** Fetches the bundle anew. */
  refetch: () => Promise<{ data?: Task | undefined }>;
  siteId: number;
  document: string | undefined;
}

type WithoutId<T> = T extends unknown ? Omit<T, 'id'> : never;
export type FlowInput = WithoutId<ScanInput>;

const PASSING_MS = 2_000;

function postRefusal(c: RefusedCommand, siteId: number, document: string | undefined): Promise<unknown> {
  const body = {
    band: c.band,
    title: c.title.slice(0, 150),
    detail: c.detail.slice(0, 280),
    code: c.code.slice(0, 200),
    how: c.how,
    siteId,
    ...(document ? { document } : {}),
  };
  return ask(api.POST('/api/floor/refusals', { body, headers: { 'idempotency-key': c.id } }));
}

/** The state without the commands whose effect the bundle already holds. */
function settled<Task extends Bundle, State extends Pending, Command extends Sendable>(
  { task, book, reduce }: FlowOptions<Task, State, Command>,
  state: State,
  ids: readonly string[] = task.applied,
): State {
  return state.pending
    .filter((p) => ids.includes(p.id))
    .reduce((s, p) => reduce(task, book, s, { kind: 'settled', id: p.id }).state, state);
}

/**
 * Runs a floor flow: inputs go through the reducer at once, so that the band shows in the same frame; commands are posted
 * behind it. The reducer decides what a scan means, never the screen.
 */
export function useFlow<Task extends Bundle, State extends Pending, Command extends Sendable>(options: FlowOptions<Task, State, Command>) {
  const latest = useRef(options);
  useEffect(() => {
    latest.current = options;
  });
  const [state, setState] = useState(options.start);
  const [feedback, setFeedback] = useState<Feedback | null>(null);
  const [line, setLine] = useState({ waiting: 0, offline: false });
  const current = useRef(options.start);
  const client = useQueryClient();
  const queue = useMemo(() => new CommandQueue((waiting, offline) => setLine({ waiting, offline })), []);
  const mine = useTape(10, { mine: true });
  const undo = useUndo();

  const show = useCallback((f: Feedback | null) => {
    if (!f) return;
    soundBand(f.band);
    setFeedback({ ...f });
  }, []);

  const post = useCallback(
    (command: Command | RefusedCommand) => {
      const { send, siteId, document } = latest.current;
      const refusal = command.kind === 'refused';
      queue.add({
        id: command.id,
        send: () => (refusal ? postRefusal(command as RefusedCommand, siteId, document) : send(command as Command)),
        onDone: async (problem, left) => {
          if (problem && !refusal)
            show({
              band: (problem.band as Feedback['band'] | null) ?? 'not-this',
              title: problem.title ?? 'Not done',
              detail: problem.message,
            });
          // A bundle that holds the command settles it when it is shown; only a refused command must be let go by hand.
          if (problem) {
            current.current = settled(latest.current, current.current, [command.id]);
            setState(current.current);
          }
          // With more on the way, one bundle after the last of them tells of all.
          if (left === 0) await latest.current.refetch().catch(() => undefined);
          void client.invalidateQueries({ queryKey: ['tape'] });
        },
      });
    },
    [queue, show, client],
  );

  const undoNewest = useCallback(() => {
    const newest = mine.data?.entries.find((e) => e.undoable);
    if (!newest)
      return show({
        band: 'not-this',
        title: 'Nothing to undo',
        detail: 'The last act cannot be taken back here',
      });
    undo.mutate(newest.id, {
      onSuccess: (done) => {
        void latest.current.refetch();
        show({ band: 'accepted', title: 'Undone', detail: done.title });
      },
      onError: (thrown) =>
        show({
          band: 'not-this',
          title: 'Not undone',
          detail: thrown instanceof ProblemError ? thrown.message : 'No network. Try again',
        }),
    });
  }, [mine.data, undo, show]);

  const input = useCallback(
    (given: FlowInput) => {
      const { reduce, task, book } = latest.current;
      const step = reduce(task, book, settled(latest.current, current.current), { ...given, id: newKey() });
      current.current = step.state;
      setState(step.state);
      show(step.feedback);
      step.commands.forEach(post);
      if (step.undo) undoNewest();
    },
    [post, show, undoNewest],
  );

  useLayoutEffect(() => {
    if (!feedback) return;
    // Measured where a scanner typed: from its last key to the frame that shows the answer.
    const frame = requestAnimationFrame(
      () => performance.getEntriesByName('scan-input').length > 0 && performance.measure('scan-feedback', 'scan-input'),
    );
    const timer =
      feedback.band === 'accepted' ? window.setTimeout(() => setFeedback((f) => (f === feedback ? null : f)), PASSING_MS) : undefined;
    return () => {
      cancelAnimationFrame(frame);
      window.clearTimeout(timer);
    };
  }, [feedback]);

  return {
    state: settled(options, state),
    feedback,
    input,
    scan: useCallback((code: string, how: How = 'scanned') => input({ kind: 'code', code, how }), [input]),
    undo: undoNewest,
    newest: mine.data?.entries ?? [],
    ...line,
  };
}
