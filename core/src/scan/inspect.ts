import { readAnswer, standOf, type Check, type CheckAnswers } from '../inspection/index.js';
import { spell } from '../quantity/index.js';
import type { ItemId, LotId, PlaceId, SiteId } from '../ids/index.js';
import { accepted, refuse, sentence, stay } from './feedback.js';
import { flowOf, type FlowState, type Moment } from './flow.js';
import type { How, ItemFacts, PlaceFacts, Refusal, Step } from './types.js';

/** Goods of one delivery that stand in one place and wait to be looked at. */
export interface GoodsToInspect {
  inspection: string;
  itemId: ItemId;
  lotId: LotId;
  lot: string | null;
  placeId: PlaceId;
  place: string;
  units: number;
  supplier: string;
  /** Why they are looked at. */
  why: string;
  checks: readonly Check[];
  answers: CheckAnswers;
}

export interface InspectTask {
  siteId: SiteId;
  /** Where rejected goods go; null where the site has no such place. */
  quarantine: PlaceFacts | null;
  /** The oldest delivery first. */
  goods: readonly GoodsToInspect[];
}

/** Into stock, to quarantine, or back to the supplier. */
export const VERDICTS = ['pass', 'quarantine', 'back'] as const;
export type Verdict = (typeof VERDICTS)[number];

export interface JudgeCommand {
  kind: 'judge';
  id: string;
  inspection: string;
  lotId: LotId;
  placeId: PlaceId;
  units: number;
  verdict: Verdict;
  /** Why they are rejected, or pass all the same. */
  reason: string;
  how: How;
}
export interface CheckCommand {
  kind: 'check';
  id: string;
  inspection: string;
  no: number;
  value: string;
}
export type InspectCommand = JudgeCommand | CheckCommand;

export interface InspectState extends FlowState<InspectCommand> {
  /**
   * The goods in hand, by `inspectKey`, and how many the next verdict is on: all that waited when they were scanned, or as
   * many as were counted. `of` is what waited then.
   */
  hand: { goods: string; units: number; of: number; how: How } | null;
  reason: string;
}

export type InspectInput =
  | { kind: 'count'; id: string; packId: number; count: number }
  | { kind: 'check'; id: string; no: number; value: string }
  | { kind: 'reason'; id: string; value: string }
  | { kind: 'verdict'; id: string; verdict: Verdict };

export const startInspect: InspectState = { hand: null, reason: '', pending: [] };

export const inspectKey = (g: Pick<GoodsToInspect, 'inspection' | 'lotId' | 'placeId'>): string =>
  `${g.inspection}/${g.lotId}/${g.placeId}`;

/** Units that still wait, less what this phone has judged and not yet heard back about. */
export function unjudged(goods: GoodsToInspect, state: Pick<InspectState, 'pending'>): number {
  const key = inspectKey(goods);
  return state.pending.reduce((left, c) => left - (c.kind === 'judge' && inspectKey(c) === key ? c.units : 0), goods.units);
}

/** The answers known so far, with those that are on their way. */
export function answersOf(goods: GoodsToInspect, state: Pick<InspectState, 'pending'>): CheckAnswers {
  const mine = state.pending.flatMap((c) => (c.kind === 'check' && c.inspection === goods.inspection ? [[c.no, c.value] as const] : []));
  return { ...goods.answers, ...Object.fromEntries(mine) };
}

export const goodsInHand = (task: InspectTask, state: InspectState): GoodsToInspect | undefined =>
  task.goods.find((g) => inspectKey(g) === state.hand?.goods && unjudged(g, state) > 0);

/** The rule for judging goods, on the phone and on the server alike. `waiting` is what still stands there unjudged. */
export function checkVerdict(
  item: ItemFacts,
  checks: readonly Check[],
  answers: CheckAnswers,
  asked: Pick<JudgeCommand, 'units' | 'verdict' | 'reason'>,
  waiting: number,
  quarantine: PlaceFacts | null,
): Refusal | null {
  if (!Number.isSafeInteger(asked.units) || asked.units <= 0)
    return { band: 'too-many', title: 'Nothing counted', detail: `Say how many of ${item.name} you judge` };
  if (asked.units > waiting)
    return {
      band: 'too-many',
      title: `Only ${spell(Math.max(0, waiting), item.packs)} wait here`,
      detail: `${item.name}: count again, or judge what is there`,
    };
  if (asked.verdict !== 'pass') return rejectRefusal(item, asked, quarantine);
  const { open, failed } = standOf(checks, answers);
  const next = open[0] ?? failed[0];
  if (open.length > 0)
    return { band: 'not-this', title: `${open.length} of ${checks.length} checks open`, detail: `Before it passes: ${next?.says ?? ''}` };
  if (failed.length > 0 && asked.reason.trim() === '')
    return {
      band: 'not-this',
      title: 'A check was not fulfilled',
      detail: `${next?.says ?? ''}. Reject it, or say why it passes all the same`,
    };
  return null;
}

function rejectRefusal(item: ItemFacts, asked: Pick<JudgeCommand, 'verdict' | 'reason'>, quarantine: PlaceFacts | null): Refusal | null {
  if (asked.reason.trim() === '')
    return { band: 'not-this', title: 'Say why', detail: `Whoever deals with ${item.name} next must know what is wrong with it` };
  if (asked.verdict === 'quarantine' && !quarantine)
    return {
      band: 'not-this',
      title: 'No quarantine here',
      detail: 'This site has no place for rejected goods. Send them back, or make one in Shelves',
    };
  return null;
}

type Result = Step<InspectState, InspectCommand>;
type Now = Moment<InspectTask, InspectState>;

const emptied = (state: InspectState): InspectState => ({ ...startInspect, pending: state.pending });

/** Looking at goods before they are stock: the goods, the checks, the verdict. */
export const inspect = flowOf<InspectTask, InspectState, InspectInput, InspectCommand>({
  kind: 'inspect',
  start: startInspect,
  owns: ['check', 'judge'],
  emptied,
  strays({ task, book, state }) {
    const hand = state.hand;
    if (!hand) return null;
    const goods = task.goods.find((g) => inspectKey(g) === hand.goods);
    const left = goods ? unjudged(goods, state) : 0;
    if (left >= hand.of || hand.units <= left) return null;
    const name = book.items[goods?.itemId ?? 0]?.name ?? 'These goods';
    return { band: 'not-this', title: name, detail: 'Somebody has judged some of it meanwhile. Scan it again' };
  },
  item: (now, { item, lot }) => takeInHand(now, item, lot),
  place: (now, place) =>
    // The label of the place for rejected goods, scanned with goods in hand, says what is to become of them.
    place.id === now.task.quarantine?.id && goodsInHand(now.task, now.state)
      ? judge(now, 'quarantine')
      : refuse(now.state, { band: 'not-this', title: place.code, detail: 'Scan the goods that you look at' }, now),
  cards: { confirm: (now) => judge(now, 'pass'), apart: (now) => judge(now, 'quarantine') },
  inputs: {
    count({ task, book, state }, input) {
      const goods = goodsInHand(task, state);
      const pack = book.items[goods?.itemId ?? 0]?.packs.find((p) => p.id === input.packId);
      if (!goods || !pack || !state.hand) return stay(state);
      return stay({ ...state, hand: { ...state.hand, units: input.count * pack.factor, of: unjudged(goods, state) } });
    },
    check: onCheck,
    reason: ({ state }, input) => stay({ ...state, reason: input.value }),
    verdict: (now, input) => judge(now, input.verdict),
  },
});

function takeInHand({ task, state, ...now }: Now, item: ItemFacts, lot: string | null): Result {
  const waiting = task.goods.filter((g) => g.itemId === item.id && unjudged(g, state) > 0);
  const goods = waiting.find((g) => !lot || g.lot === lot);
  if (!goods) {
    const detail = waiting.length > 0 ? `Lot ${lot ?? ''} does not wait to be looked at` : 'None of it waits to be looked at';
    return refuse(state, { band: 'not-this', title: item.name, detail }, now);
  }
  const left = unjudged(goods, state);
  const said = `${spell(left, item.packs)} at ${goods.place}: ${goods.why}`;
  const hand = { goods: inspectKey(goods), units: left, of: left, how: now.how };
  return stay({ ...emptied(state), hand }, accepted(item.name, said));
}

function onCheck({ task, state, id }: Now, input: Extract<InspectInput, { kind: 'check' }>): Result {
  const goods = goodsInHand(task, state);
  const check = goods?.checks.find((c) => c.no === input.no);
  if (!goods || !check) return stay(state);
  const reading = readAnswer(check, input.value);
  if ('fault' in reading) return stay(state, { band: 'not-this', title: check.says, detail: reading.fault });
  return {
    state,
    feedback: reading.ok ? null : { band: 'not-this', title: 'Not fulfilled', detail: check.says },
    commands: [{ kind: 'check', id, inspection: goods.inspection, no: input.no, value: input.value.trim() }],
  };
}

const DONE: Readonly<Record<Verdict, string>> = { pass: 'passed', quarantine: 'set aside', back: 'goes back to its supplier' };

function judge({ task, book, state, ...now }: Now, verdict: Verdict): Result {
  const goods = goodsInHand(task, state);
  const item = goods && book.items[goods.itemId];
  if (!goods || !item || !state.hand)
    return refuse(
      state,
      { band: 'not-this', title: 'Nothing in hand', detail: 'Scan the goods first, then say what becomes of them' },
      now,
    );
  const waiting = unjudged(goods, state);
  const { units, how } = state.hand;
  const asked = { units, verdict, reason: state.reason.trim() };
  const refusal = checkVerdict(item, goods.checks, answersOf(goods, state), asked, waiting, task.quarantine);
  if (refusal) return refuse(state, refusal, { ...now, code: now.code ?? item.sku });
  const { inspection, lotId, placeId } = goods;
  const left = waiting - units;
  return {
    state: { ...emptied(state), hand: left > 0 ? { goods: state.hand.goods, units: left, of: left, how } : null },
    feedback: accepted(
      `${sentence(spell(units, item.packs))} ${DONE[verdict]}`,
      left > 0 ? `${item.name}, ${spell(left, item.packs)} still to judge` : item.name,
    ),
    commands: [{ kind: 'judge', id: now.id, inspection, lotId, placeId, ...asked, how }],
  };
}
