import type { ItemId } from '../ids/index.js';
import { spell } from '../quantity/index.js';
import { accepted, refuse, sentence, stay } from './feedback.js';
import { flowOf, type FlowState, type Moment } from './flow.js';
import type { How, ItemFacts, Refusal, Step } from './types.js';

export interface PackLine {
  line: number;
  itemId: ItemId;
  /** Base units that were picked for this line, and those already proved into a parcel. */
  picked: number;
  packed: number;
  /** What one base unit weighs, in grams, and how much room it takes; null where it is not known. */
  unitG: number | null;
  unitMl: number | null;
}

/** A parcel of the order that has not left the table. */
export interface PackParcel {
  number: number;
  code: string;
  /** A closed one has its weight and service, and its label is on its way or there. */
  open: boolean;
  contents: readonly { line: number; units: number }[];
}

/** Goods in a tote or open parcel of an order that wants them no longer; `code` is where they lie. */
export interface SpareGoods {
  itemId: ItemId;
  units: number;
  code: string;
}

export interface PackTask {
  order: string;
  customer: string;
  lines: readonly PackLine[];
  note: string | null;
  noteSeen: boolean;
  parcels: readonly PackParcel[];
  /** What is to be taken out and put away; absent where nothing is. */
  spare?: readonly SpareGoods[];
}

/** Goods proved into a parcel, which is begun where it is not there yet. */
export interface PackCommand {
  kind: 'pack';
  id: string;
  order: string;
  parcel: number;
  line: number;
  units: number;
  how: How;
}

export interface NoteSeenCommand {
  kind: 'note-seen';
  id: string;
  order: string;
}

/** Closes a parcel and asks for its label. */
export interface CloseParcelCommand {
  kind: 'close-parcel';
  id: string;
  order: string;
  parcel: number;
  carton: string;
  weightG: number;
  /** Null leaves it to the cheapest that takes the parcel: so a parcel is closed while no carrier can be asked. */
  service: { carrier: string; code: string } | null;
  /** A person has looked into the box and says that the weight is right. */
  weightSeen: boolean;
  /** What is still to be packed goes into another parcel, which need not be begun; absent: no. */
  more?: boolean;
}

export interface PackState extends FlowState<PackCommand | NoteSeenCommand | CloseParcelCommand> {
  /** The line last touched, for a keyed quantity. */
  line: number | null;
  /** The parcel that goods go into; null means the one that is open, or the next. */
  parcel: number | null;
}

export type PackInput =
  | { kind: 'count'; id: string; packId: number; count: number }
  /** The customer's note was read. */
  | { kind: 'confirm'; id: string }
  /** From now on goods go into this parcel, or into a new one. */
  | { kind: 'parcel'; id: string; number: number | 'next' }
  | {
      kind: 'close';
      id: string;
      carton: string;
      weightG: number;
      service: CloseParcelCommand['service'];
      weightSeen: boolean;
      more?: boolean;
    };

export const startPack: PackState = { line: null, parcel: null, pending: [] };

/** What a line still wants proved, with what this bench has posted and not yet heard back about. */
export function toPack(state: Pick<PackState, 'pending'>, line: PackLine): number {
  return state.pending.reduce((left, c) => left - (c.kind === 'pack' && c.line === line.line ? c.units : 0), line.picked - line.packed);
}

/** All that is still to be proved. */
export const leftToPack = (task: PackTask, state: Pick<PackState, 'pending'>): number =>
  task.lines.reduce((sum, line) => sum + toPack(state, line), 0);

/** The line at hand: the one touched while it is open, otherwise the first that is open. */
export function openLine(task: PackTask, state: PackState): PackLine | undefined {
  const open = task.lines.filter((l) => toPack(state, l) > 0);
  return open.find((l) => l.line === state.line) ?? open[0];
}

export const noteIsRead = (task: PackTask, state: Pick<PackState, 'pending'>): boolean =>
  !task.note || task.noteSeen || state.pending.some((c) => c.kind === 'note-seen');

/** The order's parcels with what is on its way, by number. */
export function parcelsNow(task: PackTask, state: Pick<PackState, 'pending'>): PackParcel[] {
  const parcels = new Map(task.parcels.map((p) => [p.number, p]));
  for (const c of state.pending) {
    if (c.kind === 'note-seen') continue;
    const parcel = parcels.get(c.parcel) ?? { number: c.parcel, code: `${task.order}-${c.parcel}`, open: true, contents: [] };
    parcels.set(
      c.parcel,
      c.kind === 'pack' ? { ...parcel, contents: [...parcel.contents, { line: c.line, units: c.units }] } : { ...parcel, open: false },
    );
  }
  return [...parcels.values()].sort((a, b) => a.number - b.number);
}

/** The parcel that goods go into now. */
export function parcelInUse(task: PackTask, state: PackState): number {
  const all = parcelsNow(task, state);
  const chosen = all.find((p) => p.number === state.parcel);
  if (state.parcel !== null && (!chosen || chosen.open)) return state.parcel;
  return all.find((p) => p.open)?.number ?? nextNumber(all);
}

const nextNumber = (all: readonly PackParcel[]): number => all.reduce((n, p) => Math.max(n, p.number), 0) + 1;

/** What the goods in a parcel weigh, in grams; null where one weight is not known. */
export function goodsWeightG(task: Pick<PackTask, 'lines'>, contents: PackParcel['contents']): number | null {
  return contents.reduce<number | null>((sum, { line, units }) => {
    const each = task.lines.find((l) => l.line === line)?.unitG ?? null;
    return sum === null || each === null ? null : sum + each * units;
  }, 0);
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

/**
 * The rule for closing a parcel: something is in it, the note is read, and what is still to be packed has another parcel that
 * is begun, or is said to get one (`more`). `left` is what is still to be proved, in base units.
 */
export function checkClose(parcels: readonly PackParcel[], number: number, left: number, noteRead: boolean, more = false): Refusal | null {
  const parcel = parcels.find((p) => p.number === number);
  if (parcel && !parcel.open) return { band: 'not-this', title: parcel.code, detail: 'It is closed already' };
  if (left > 0 && !more && !parcels.some((p) => p.open && p.number !== number))
    return {
      band: 'not-this',
      title: `Parcel ${number}`,
      detail: `${left} ${left === 1 ? 'piece is' : 'pieces are'} still to scan into the parcel`,
    };
  if (!parcel || parcel.contents.every((c) => c.units <= 0))
    return { band: 'not-this', title: `Parcel ${number}`, detail: 'Nothing is in it yet' };
  if (!noteRead)
    return { band: 'not-this', title: 'Note to answer', detail: 'Read the customer’s note and say so before the label is printed' };
  return null;
}

type Command = PackCommand | NoteSeenCommand | CloseParcelCommand;
type Result = Step<PackState, Command>;
type Now = Moment<PackTask, PackState>;

/** Packing: each scan proves goods into the parcel that is open. Hands are never full: what is scanned is in the box. */
export const pack = flowOf<PackTask, PackState, PackInput, Command>({
  kind: 'pack',
  start: startPack,
  owns: ['pack', 'note-seen', 'close-parcel'],
  emptied: (state) => ({ ...state, line: null }),
  strays: () => null,
  item(now, meaning) {
    const lines = now.task.lines.filter((l) => l.itemId === meaning.item.id);
    const line = lines.find((l) => toPack(now.state, l) > 0) ?? lines[0];
    if (line) return prove(now, line, meaning.pack.factor);
    const home = meaning.item.home ? ` Belongs in ${meaning.item.home}` : '';
    return refuse(now.state, { band: 'not-this', title: meaning.item.name, detail: `Not on ${now.task.order}.${home}` }, now);
  },
  place: (now, place) =>
    refuse(now.state, { band: 'not-this', title: place.code, detail: `${now.task.order} is open. Finish it before the next tote` }, now),
  cards: { confirm: readNote },
  inputs: {
    count(now, input) {
      const line = now.task.lines.find((l) => l.line === now.state.line);
      const unit = line && now.book.items[line.itemId]?.packs.find((p) => p.id === input.packId);
      return line && unit ? prove(now, line, input.count * unit.factor) : stay(now.state);
    },
    confirm: readNote,
    parcel({ task, state }, input) {
      const all = parcelsNow(task, state);
      const number = input.number === 'next' ? nextNumber(all) : input.number;
      if (input.number !== 'next' && !all.some((p) => p.number === number && p.open)) return stay(state);
      return stay({ ...state, parcel: number }, accepted(`Parcel ${number}`, 'What is scanned now goes into it'));
    },
    close,
  },
});

function readNote({ task, state, id }: Now): Result {
  if (!task.note || noteIsRead(task, state)) return stay(state);
  return { state, feedback: accepted('Note read', task.note), commands: [{ kind: 'note-seen', id, order: task.order }] };
}

function prove({ task, book, state, ...now }: Now, line: PackLine, units: number): Result {
  const item = book.items[line.itemId];
  const wanted = toPack(state, line);
  const refusal = checkPack(task.order, item, units, wanted);
  if (refusal || !item) return refuse(state, refusal ?? { band: 'unknown', title: task.order, detail: 'No such item' }, now);
  const left = wanted - units;
  return {
    state: { ...state, line: line.line },
    feedback: accepted(item.name, left > 0 ? `${spell(left, item.packs)} to go` : `all ${spell(line.picked, item.packs)} in`),
    commands: [{ kind: 'pack', id: now.id, order: task.order, parcel: parcelInUse(task, state), line: line.line, units, how: now.how }],
  };
}

function close({ task, state, ...now }: Now, input: Extract<PackInput, { kind: 'close' }>): Result {
  const number = parcelInUse(task, state);
  const refusal = checkClose(parcelsNow(task, state), number, leftToPack(task, state), noteIsRead(task, state), input.more);
  if (refusal) return refuse(state, refusal, now);
  const { carton, weightG, service, weightSeen, more = false } = input;
  return {
    state: { ...state, parcel: null },
    feedback: accepted(`Parcel ${number} closed`, service ? 'Its label is on its way' : 'Its label comes once the carriers can be asked'),
    commands: [
      {
        kind: 'close-parcel',
        id: now.id,
        order: task.order,
        parcel: number,
        carton,
        weightG,
        service,
        weightSeen,
        ...(more ? { more } : {}),
      },
    ],
  };
}
