import { useMemo, useState } from 'react';
import type { RoundLimits } from '@vectrum/core/rounds';
import type { Dto } from '../../../api/client';
import type { BoardOrder } from './board-filter';
import {
  type Draft,
  figuresOf,
  type Figures,
  type Ground,
  metresOf,
  moved,
  roundKey,
  stillThere,
  type Target,
  type Walker,
  walkersOf,
} from './draft-rounds';

export interface DraftRounds {
  rounds: Figures[];
  walkers: Walker[];
  /** Orders that are looked at and on no round. */
  waiting: BoardOrder[];
  oneByOne: number;
  put: (draft: Draft) => void;
  move: (code: string, to: Target) => void;
  give: (round: number, person: number | null) => void;
  /** What moving an order would add to all walks. */
  cost: (code: string, to: Target) => { metres: number; minutes: number };
}

/** Rounds while they are put together, with what they come to and who would walk them. */
export function useDraft(
  board: Dto['ReleaseBoardDto'],
  shown: readonly BoardOrder[],
  ground: Ground,
  limits: RoundLimits,
  people: readonly Dto['BoardPickerDto'][],
  now: number,
): DraftRounds {
  const [draft, setDraft] = useState<Draft>([]);
  const [decided, setDecided] = useState<ReadonlyMap<string, number | null>>(new Map());
  const byCode = useMemo(() => new Map(board.orders.map((o) => [o.code, o])), [board.orders]);
  const kept = useMemo(() => stillThere(draft, board.orders), [draft, board.orders]);
  const ordersOf = (codes: readonly string[]) => codes.flatMap((code) => byCode.get(code) ?? []);
  const rounds = useMemo(
    () =>
      figuresOf(
        kept.map((r) => r.flatMap((c) => byCode.get(c) ?? [])),
        ground,
        limits,
      ),
    [kept, byCode, ground, limits],
  );
  const walkers = useMemo(() => walkersOf(rounds, people, decided, now), [rounds, people, decided, now]);
  const oneByOne = useMemo(
    () =>
      metresOf(
        rounds.flatMap((r) => r.orders.map((o) => [o])),
        ground,
      ).reduce((a, b) => a + b, 0),
    [rounds, ground],
  );
  const onRound = new Set(kept.flat());
  return {
    rounds,
    walkers,
    waiting: shown.filter((o) => !onRound.has(o.code) && o.lacks.length === 0),
    oneByOne,
    put: setDraft,
    move: (code, to) => {
      // Who was to walk a round still does when its orders change.
      const next = moved(kept, code, to);
      const people = kept.map((r) => decided.get(roundKey(r)));
      setDecided(
        new Map(
          next.flatMap((r) => {
            const before = kept.findIndex((k) => k.some((c) => c !== code && r.includes(c)));
            const person = people[before];
            return person === undefined ? [] : [[roundKey(r), person] as const];
          }),
        ),
      );
      setDraft(next);
    },
    give: (round, person) => setDecided(new Map([...decided, [roundKey(kept[round] ?? []), person]])),
    cost: (code, to) => {
      const sum = (list: Draft) => {
        const figures = figuresOf(list.map(ordersOf), ground, limits);
        return { metres: figures.reduce((n, f) => n + f.metres, 0), minutes: figures.reduce((n, f) => n + f.minutes, 0) };
      };
      const touched = (list: Draft) => list.filter((r, i) => r.includes(code) || (typeof to === 'object' && to.round === i));
      const before = sum(touched(kept));
      const codes = new Set([code, ...touched(kept).flat()]);
      const after = sum(moved(kept, code, to).filter((r) => r.some((c) => codes.has(c))));
      return { metres: after.metres - before.metres, minutes: after.minutes - before.minutes };
    },
  };
}
