import { readAnswer, standOf, type Check, type CheckAnswers } from '../inspection/index.js';
import { spell } from '../quantity/index.js';
import { accepted, refuse, sentence, stay, unknownCode } from './feedback.js';
import { resolve } from './resolve.js';
import type { Codebook, How, ItemFacts, PlaceFacts, Refusal, ScanInput, Step } from './types.js';

/** Goods of one delivery that stand in one place and wait to be looked at. */
export interface GoodsToInspect {
  inspection: string;
  itemId: number;
  lotId: number;
  lot: string | null;
  placeId: number;
  place: string;
  units: number;
  supplier: string;
  /** Why they are looked at. */
  why: string;
  checks: readonly Check[];
  answers: CheckAnswers;
}

export interface InspectTask {
  siteId: number;
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
  lotId: number;
  placeId: number;
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

type Pending = { id: string; goods: string; units: number } | { id: string; inspection: string; no: number; value: string };

export interface InspectState {
  /** The goods in hand, by `inspectKey`. */
  hand: string | null;
  /** Base units that the next verdict is on; null for all that stand there. */
  units: number | null;
  reason: string;
  how: How;
  pending: readonly Pending[];
}

export const startInspect: InspectState = { hand: null, units: null, reason: '', how: 'scanned', pending: [] };

export const inspectKey = (g: Pick<GoodsToInspect, 'inspection' | 'lotId' | 'placeId'>): string =>
  `${g.inspection}/${g.lotId}/${g.placeId}`;

/** Units that still wait, less what this phone has judged and not yet heard back about. */
export function unjudged(goods: GoodsToInspect, state: Pick<InspectState, 'pending'>): number {
  return state.pending.reduce((left, p) => left - ('goods' in p && p.goods === inspectKey(goods) ? p.units : 0), goods.units);
}

/** The answers known so far, with those that are on their way. */
export function answersOf(goods: GoodsToInspect, state: Pick<InspectState, 'pending'>): CheckAnswers {
  const mine = state.pending.flatMap((p) => ('no' in p && p.inspection === goods.inspection ? [[p.no, p.value] as const] : []));
  return { ...goods.answers, ...Object.fromEntries(mine) };
}

export const goodsInHand = (task: InspectTask, state: InspectState): GoodsToInspect | undefined =>
  task.goods.find((g) => inspectKey(g) === state.hand && unjudged(g, state) > 0);

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
type From = { id: string; code?: string; how?: How };

/** What one input means while goods are looked at. Pure; O(goods + checks + length of the code). */
export function inspect(task: InspectTask, book: Codebook, state: InspectState, input: ScanInput): Result {
  switch (input.kind) {
    case 'code':
      return onCode(task, book, state, input);
    case 'count': {
      const item = book.items[goodsInHand(task, state)?.itemId ?? 0];
      const pack = item?.packs.find((p) => p.id === input.packId);
      return stay(pack ? { ...state, units: input.count * pack.factor } : state);
    }
    case 'check':
      return onCheck(task, state, input);
    case 'text':
      return stay(input.field === 'reason' ? { ...state, reason: input.value } : state);
    case 'confirm':
      return judge(task, book, state, 'pass', input);
    case 'answer':
      return input.answer === 'take' ? stay(state) : judge(task, book, state, input.answer === 'apart' ? 'quarantine' : 'back', input);
    case 'clear':
      return stay({ ...startInspect, pending: state.pending });
    case 'settled':
      return stay({ ...state, pending: state.pending.filter((p) => p.id !== input.id) });
    case 'not-here':
    case 'condition':
    case 'tie':
      return stay(state);
  }
}

function onCode(task: InspectTask, book: Codebook, state: InspectState, input: Extract<ScanInput, { kind: 'code' }>): Result {
  const meaning = resolve(input.code, book);
  switch (meaning.kind) {
    case 'item':
      return takeInHand(task, state, meaning.item, meaning.lot, input);
    case 'place':
      // The label of the place for rejected goods, scanned with goods in hand, says what is to become of them.
      return meaning.place.id === task.quarantine?.id && goodsInHand(task, state)
        ? judge(task, book, state, 'quarantine', input)
        : refuse(state, { band: 'not-this', title: meaning.place.code, detail: 'Scan the goods that you look at' }, input);
    case 'command':
      if (meaning.command === 'undo') return { ...stay<InspectState, InspectCommand>(state), undo: true };
      if (meaning.command === 'confirm') return judge(task, book, state, 'pass', input);
      return meaning.command === 'apart' ? judge(task, book, state, 'quarantine', input) : stay(state);
    case 'pallet':
      return refuse(state, unknownCode(meaning.sscc), input);
    case 'unknown':
      return refuse(state, unknownCode(meaning.code), input);
  }
}

function takeInHand(
  task: InspectTask,
  state: InspectState,
  item: ItemFacts,
  lot: string | null,
  input: Extract<ScanInput, { kind: 'code' }>,
): Result {
  const waiting = task.goods.filter((g) => g.itemId === item.id && unjudged(g, state) > 0);
  const goods = waiting.find((g) => !lot || g.lot === lot);
  if (!goods) {
    const detail = waiting.length > 0 ? `Lot ${lot ?? ''} does not wait to be looked at` : 'None of it waits to be looked at';
    return refuse(state, { band: 'not-this', title: item.name, detail }, input);
  }
  const said = `${spell(unjudged(goods, state), item.packs)} at ${goods.place}: ${goods.why}`;
  return stay({ ...startInspect, hand: inspectKey(goods), how: input.how, pending: state.pending }, accepted(item.name, said));
}

function onCheck(task: InspectTask, state: InspectState, input: Extract<ScanInput, { kind: 'check' }>): Result {
  const goods = goodsInHand(task, state);
  const check = goods?.checks.find((c) => c.no === input.no);
  if (!goods || !check) return stay(state);
  const reading = readAnswer(check, input.value);
  if ('fault' in reading) return stay(state, { band: 'not-this', title: check.says, detail: reading.fault });
  const { inspection } = goods;
  const { no } = input;
  const value = input.value.trim();
  return {
    state: { ...state, pending: [...state.pending, { id: input.id, inspection, no, value }] },
    feedback: reading.ok ? null : { band: 'not-this', title: 'Not fulfilled', detail: check.says },
    commands: [{ kind: 'check', id: input.id, inspection, no, value }],
  };
}

const DONE: Readonly<Record<Verdict, string>> = { pass: 'passed', quarantine: 'set aside', back: 'goes back to its supplier' };

function judge(task: InspectTask, book: Codebook, state: InspectState, verdict: Verdict, from: From): Result {
  const goods = goodsInHand(task, state);
  const item = goods && book.items[goods.itemId];
  if (!goods || !item)
    return refuse(
      state,
      { band: 'not-this', title: 'Nothing in hand', detail: 'Scan the goods first, then say what becomes of them' },
      from,
    );
  const waiting = unjudged(goods, state);
  const units = state.units ?? waiting;
  const asked = { units, verdict, reason: state.reason.trim() };
  const refusal = checkVerdict(item, goods.checks, answersOf(goods, state), asked, waiting, task.quarantine);
  if (refusal) return refuse(state, refusal, { ...from, code: from.code ?? item.sku });
  const { inspection, lotId, placeId } = goods;
  const left = waiting - units;
  return {
    state: {
      ...startInspect,
      hand: left > 0 ? state.hand : null,
      pending: [...state.pending, { id: from.id, goods: inspectKey(goods), units }],
    },
    feedback: accepted(
      `${sentence(spell(units, item.packs))} ${DONE[verdict]}`,
      left > 0 ? `${item.name}, ${spell(left, item.packs)} still to judge` : item.name,
    ),
    commands: [{ kind: 'judge', id: from.id, inspection, lotId, placeId, ...asked, how: state.how }],
  };
}
