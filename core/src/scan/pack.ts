import { spell } from '../quantity/index.js';
import { accepted, refuse, sentence, stay, unknownCode } from './feedback.js';
import { resolve } from './resolve.js';
import type { Codebook, How, ItemFacts, Refusal, ScanInput, Step } from './types.js';

export interface PackLine {
  line: number;
  itemId: number;
  /** Base units that were picked for this line, and those already proved into a parcel. */
  picked: number;
  packed: number;
}

export interface PackTask {
  order: string;
  customer: string;
  lines: PackLine[];
  note: string | null;
  noteSeen: boolean;
}

export type PackCommand =
  { kind: 'pack'; id: string; order: string; line: number; units: number; how: How } | { kind: 'note-seen'; id: string; order: string };

export interface PackState {
  /** The line last touched, for the quantity pad. */
  line: number | null;
  noteSeen: boolean;
  pending: { id: string; line: number; units: number }[];
}

export const startPack: PackState = { line: null, noteSeen: false, pending: [] };

/** What a line still wants proved, with what this bench has posted and not yet heard back about. */
export function toPack(state: PackState, line: PackLine): number {
  return state.pending.reduce((left, p) => left - (p.line === line.line ? p.units : 0), line.picked - line.packed);
}

/** The line at hand: the one touched while it is open, otherwise the first that is open. */
export function openLine(task: PackTask, state: PackState): PackLine | undefined {
  const open = task.lines.filter((l) => toPack(state, l) > 0);
  return open.find((l) => l.line === state.line) ?? open[0];
}

/** The rule for proving goods into a parcel, at the bench and on the server alike. */
export function checkPack(order: string, item: ItemFacts | undefined, units: number, wanted: number): Refusal | null {
  if (!item) return { band: 'not-this', title: 'Not on this order', detail: `${order} has no such line` };
  if (!Number.isSafeInteger(units) || units <= 0)
    return { band: 'too-many', title: 'Nothing counted', detail: 'Scan what goes into the box' };
  if (units > wanted) {
    const back = item.home ? ` Put it back in ${item.home}` : ' Set it apart';
    return {
      band: 'too-many',
      title: `${sentence(spell(units - wanted, item.packs))} over`,
      detail: `${order} wants ${wanted === 0 ? 'no more' : spell(wanted, item.packs)} of ${item.name}.${back}`,
    };
  }
  return null;
}

type Result = Step<PackState, PackCommand>;

/** What one input means at the packing table. Pure; O(lines + length of the code). */
export function pack(task: PackTask, book: Codebook, state: PackState, input: ScanInput): Result {
  switch (input.kind) {
    case 'code':
      return onCode(task, book, state, input);
    case 'count': {
      const line = task.lines.find((l) => l.line === state.line);
      const item = line && book.items[line.itemId];
      const unit = item?.packs.find((p) => p.id === input.packId);
      return line && unit ? prove(task, book, state, line, input.count * unit.factor, { id: input.id, how: 'typed' }) : stay(state);
    }
    case 'confirm':
      return seeNote(task, state, input.id);
    case 'clear':
      return stay({ ...state, line: null });
    case 'settled':
      return stay({ ...state, pending: state.pending.filter((p) => p.id !== input.id) });
    case 'text':
    case 'not-here':
    case 'condition':
    case 'answer':
    case 'tie':
    case 'check':
      return stay(state);
  }
}

function seeNote(task: PackTask, state: PackState, id: string): Result {
  if (!task.note || task.noteSeen || state.noteSeen) return stay(state);
  return {
    state: { ...state, noteSeen: true },
    feedback: accepted('Note read', task.note),
    commands: [{ kind: 'note-seen', id, order: task.order }],
  };
}

function onCode(task: PackTask, book: Codebook, state: PackState, input: Extract<ScanInput, { kind: 'code' }>): Result {
  const meaning = resolve(input.code, book);
  switch (meaning.kind) {
    case 'item': {
      const lines = task.lines.filter((l) => l.itemId === meaning.item.id);
      const line = lines.find((l) => toPack(state, l) > 0) ?? lines[0];
      if (line) return prove(task, book, state, line, meaning.pack.factor, input);
      const home = meaning.item.home ? ` Belongs in ${meaning.item.home}` : '';
      return refuse(state, { band: 'not-this', title: meaning.item.name, detail: `Not on ${task.order}.${home}` }, input);
    }
    case 'place':
      return refuse(
        state,
        {
          band: 'not-this',
          title: meaning.place.code,
          detail: `${task.order} is open. Finish it before the next tote`,
        },
        input,
      );
    case 'command':
      if (meaning.command === 'confirm') return seeNote(task, state, input.id);
      return meaning.command === 'undo' ? { ...stay<PackState, PackCommand>(state), undo: true } : stay(state);
    case 'pallet':
      return refuse(state, unknownCode(meaning.sscc), input);
    case 'unknown':
      return refuse(state, unknownCode(meaning.code), input);
  }
}

function prove(
  task: PackTask,
  book: Codebook,
  state: PackState,
  line: PackLine,
  units: number,
  from: { id: string; code?: string; how: How },
): Result {
  const item = book.items[line.itemId];
  const wanted = toPack(state, line);
  const refusal = checkPack(task.order, item, units, wanted);
  if (refusal || !item) return refuse(state, refusal ?? unknownCode(''), from);
  const left = wanted - units;
  return {
    state: {
      ...state,
      line: line.line,
      pending: [...state.pending, { id: from.id, line: line.line, units }],
    },
    feedback: accepted(item.name, left > 0 ? `${spell(left, item.packs)} to go` : `all ${spell(line.picked, item.packs)} in`),
    commands: [{ kind: 'pack', id: from.id, order: task.order, line: line.line, units, how: from.how }],
  };
}
