import { useQueryClient } from '@tanstack/react-query';
import { key } from '../api/keys';
import type {
  Codebook,
  Feedback,
  Flow,
  FloorCommand,
  FlowState,
  How,
  OwnInput,
  RefusedCommand,
  SharedInput,
  Step,
} from '@vectrum/core/scan';
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { newKey, type ProblemError, type Dto } from '../api/client';
import { useMe, useTape } from '../api/queries';
import type { Outcome } from './command-queue';
import type { KeptCommand } from './device-store';
import { keepDraft } from './drafts';
import { lastActOf } from './last-act';
import { queue, useQueue } from './queue';
import { soundBand } from './sound';
import type { Ready } from './task-gate';
import { useLastAct } from './use-last-act';

type WithoutId<T> = T extends unknown ? Omit<T, 'id'> : never;
const PASSING_MS = 2_000;
const NO_ENTRIES: readonly Dto['TapeEntryDto'][] = [];

interface Options<Task, State extends FlowState<Command>, Own extends OwnInput, Command extends FloorCommand> {
  flow: Flow<Task, State, Own, Command>;
  task: Task;
  ready: Omit<Ready, 'bundle'>;
  /** The code under which the tape keeps what is refused. */
  document?: string | undefined;
  /** The documents that the acts of the task are kept under, where an undo is to keep to them. */
  documents?: readonly string[];
  /** Hears what comes of each command. */
  onAnswer?: (command: Command, answer: Dto['FloorAnswerDto']) => void;
  onRefused?: (command: Command, problem: ProblemError) => void;
  /** Hears of another document that a scan opens in place of this one, with what is said of it. */
  onOpens?: (opens: NonNullable<Step<State, Command>['opens']>, says: Feedback | null) => void;
}

/** Where the house wants everything scanned. */
const SCAN_IT: Feedback = {
  band: 'not-this',
  title: 'Scan it',
  detail: 'Nothing is typed or chosen by hand in this house. Ask for a fresh label where one is torn',
};

/**
 * Runs a floor flow: inputs go through its rules at once, so that the band shows in the same frame; commands go to the
 * device's queue. The flow decides what a scan means, never the screen.
 */
export function useFlow<Task, State extends FlowState<Command>, Own extends OwnInput, Command extends FloorCommand>(
  options: Options<Task, State, Own, Command>,
) {
  const { flow, task, ready, document } = options;
  const latest = useRef(options);
  useEffect(() => {
    latest.current = options;
  });
  const [state, setState] = useState<State>(() => flow.revive(ready.draft, ready.pending));
  const current = useRef(state);
  const [feedback, setFeedback] = useState<Feedback | null>(null);
  const me = useMe();
  const client = useQueryClient();
  const mine = useTape(10, { mine: true });
  const line = useQueue();

  const show = useCallback((f: Feedback | null) => {
    if (!f) return;
    soundBand(f.band);
    setFeedback({ ...f });
  }, []);

  const types = me.data?.typesCodes !== false;
  const person = me.data;
  const hands = useRef({ letGo: (_: string) => {} });
  const letGo = useCallback((id: string) => hands.current.letGo(id), []);
  const entries = mine.data?.entries ?? NO_ENTRIES;
  const { acts, made: actMade, answered, refused, undo } = useLastAct(entries, { letGo, show, documents: options.documents });
  /** Takes a step over: its state, its band, and its commands into the queue. */
  const take = useCallback(
    (step: Step<State, Command>) => {
      const { ready: at, document: code } = latest.current;
      current.current = step.state;
      setState(step.state);
      keepDraft(at.address, person?.id ?? 0, step.state);
      show(step.feedback);
      for (const made of step.commands) {
        const { title = '', detail = '' } = step.feedback ?? {};
        if (made.kind !== 'refused') actMade({ id: made.id, title, detail });
        void queue.add({
          id: made.id,
          address: at.address,
          command: made.kind === 'refused' ? refusalOf(made, at.siteId, code) : made,
          title,
          detail,
          personId: person?.id ?? 0,
          person: person?.name ?? '',
          madeAt: new Date().toISOString(),
        });
      }
    },
    [show, person, actMade],
  );

  const run = useCallback(
    (input: SharedInput | Own) => {
      const { flow: rules, task: now, ready: at } = latest.current;
      const step = rules.step(now, at.book, current.current, input);
      take(step);
      return step;
    },
    [take],
  );

  useEffect(() => {
    hands.current.letGo = (id) => run({ kind: 'settled', id: newKey(), ids: [id] });
  }, [run]);

  const input = useCallback(
    (given: WithoutId<SharedInput | Own>) => {
      const step = run({ ...given, id: newKey(), at: Date.now() } as SharedInput | Own);
      if (step.undo) void undo();
      if (step.opens) latest.current.onOpens?.(step.opens, step.feedback);
    },
    [run, undo],
  );

  // What the server said of this task's commands.
  useEffect(() => {
    const { address } = latest.current.ready;
    return queue.listen(address, (command, outcome) => {
      const { flow: rules, onAnswer, onRefused, ready: at } = latest.current;
      if ('answer' in outcome) {
        answered(command.id, outcome.answer.activityId);
        if (rules.owns(command.command)) onAnswer?.(command.command, outcome.answer);
      } else {
        refused(command.id);
        run({ kind: 'settled', id: newKey(), ids: [command.id] });
        if (command.command.kind !== 'refused') show(bandOf(outcome));
        if (rules.owns(command.command)) onRefused?.(command.command, outcome.problem);
      }
      if (!at.hasUnsent()) void at.refetch();
      void client.invalidateQueries({ queryKey: key('tape') });
      if (!('answer' in outcome) && outcome.late) void client.invalidateQueries({ queryKey: key('questions') });
    });
  }, [run, show, client, answered, refused]);

  // A task that was read anew shows what was done; goods in hand that somebody else took are let go, with a band.
  const applied = ready.applied;
  useEffect(() => {
    run({ kind: 'settled', id: newKey(), ids: applied });
    void queue.seen(latest.current.ready.address, applied);
  }, [applied, task, run]);

  usePassing(feedback, setFeedback);

  return {
    state: flow.step(task, ready.book, state, { kind: 'settled', id: '', ids: applied }).state,
    feedback,
    input,
    scan: useCallback(
      (code: string, how: How = 'scanned') => (how === 'typed' && !types ? show(SCAN_IT) : input({ kind: 'code', code, how })),
      [input, show, types],
    ),
    undo: () => void undo(),
    show,
    /** Shows a band that no step of the flow leads to. */
    say: show,
    /** What an undo would take back. */
    last: lastActOf(acts, entries, options.documents),
    newest: entries,
    /** Those of this task that are not sent yet. */
    unsent: line.unsent.filter((c) => c.address === ready.address && c.command.kind !== 'refused'),
    offline: line.offline,
    document,
  };
}

const refusalOf = (made: RefusedCommand, siteId: number, document: string | undefined): RefusedCommand => ({
  ...made,
  title: made.title.slice(0, 150),
  detail: made.detail.slice(0, 280),
  code: made.code.slice(0, 200),
  siteId,
  ...(document ? { document } : {}),
});

function bandOf(outcome: Extract<Outcome, { problem: ProblemError }>): Feedback {
  const { problem, late } = outcome;
  const bands: readonly string[] = ['not-this', 'too-many', 'unknown'];
  return {
    band: bands.includes(problem.band ?? '') ? (problem.band as Feedback['band']) : 'not-this',
    title: late ? 'Came too late' : (problem.title ?? 'Not done'),
    detail: problem.message,
  };
}

/** "Accepted" passes after a moment; the others stay until the next scan. */
function usePassing(feedback: Feedback | null, set: React.Dispatch<React.SetStateAction<Feedback | null>>): void {
  useLayoutEffect(() => {
    if (!feedback) return;
    // Measured where a scanner or the camera read: from its last key or frame to the one that shows the answer.
    const frame = requestAnimationFrame(
      () => performance.getEntriesByName('scan-input').length > 0 && performance.measure('scan-feedback', 'scan-input'),
    );
    const timer = feedback.band === 'accepted' ? window.setTimeout(() => set((f) => (f === feedback ? null : f)), PASSING_MS) : undefined;
    return () => {
      cancelAnimationFrame(frame);
      window.clearTimeout(timer);
    };
  }, [feedback, set]);
}

/** What a flow's screens hand their parts. */
export type FlowInput<Own extends OwnInput> = WithoutId<SharedInput | Own>;
export type { Codebook, KeptCommand };
