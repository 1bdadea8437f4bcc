import type { ItemId } from '../ids/index.js';
import type { FlowState } from './flow.js';
import type { How } from './types.js';

export interface PackLine {
  line: number;
  itemId: ItemId;
  /** Base units that were picked for this line, and those already proved into a parcel. */
  picked: number;
  packed: number;
  /** What one base unit weighs, in grams, and how much room it takes; null where it is not known. */
  unitG: number | null;
  unitMl: number | null;
  /** All that is left of it was scanned at its bins, and the house trusts that: it need not be scanned again. Absent: no. */
  trusted?: boolean;
  /** It goes along where there is some, and never holds up its order: it may be left out. Absent: no. */
  insert?: boolean;
}

/** A kit of the order: sold as one, picked by its parts. */
export interface PackKit {
  /** Its line; the parts have lines of their own. */
  line: number;
  itemId: ItemId;
  /** The lines of its parts, and how many base units of each make one kit. */
  parts: readonly { line: number; each: number }[];
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
  /** The kits among what was ordered; absent: none. */
  kits?: readonly PackKit[];
  note: string | null;
  noteSeen: boolean;
  /** The badge of whoever packs, where the house wants the note acknowledged by it; absent or null: a key or a card will do. */
  noteBadge?: string | null;
  parcels: readonly PackParcel[];
  /** Serial numbers that are in its parcels; absent: none. */
  serials?: readonly { line: number; parcel: number; serial: string }[];
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
  /** The serial number of the piece, where the item asks for one; absent: none. */
  serial?: string;
  how: How;
}

/** All goods that are left and were scanned at their bins, into one parcel: nobody scans them a second time. */
export interface PackAllCommand {
  kind: 'pack-all';
  id: string;
  order: string;
  parcel: number;
  lines: { line: number; units: number }[];
}

/** Whole kits into one parcel, by the code on the kit: so many of each part. */
export interface PackKitCommand {
  kind: 'pack-kit';
  id: string;
  order: string;
  parcel: number;
  /** The line of the kit, and how many of it. */
  kit: number;
  kits: number;
  lines: { line: number; units: number }[];
  how: How;
}

/** Inserts that do not go along this time. */
export interface LeaveOutCommand {
  kind: 'leave-out';
  id: string;
  order: string;
  lines: { line: number; units: number }[];
}

export interface NoteSeenCommand {
  kind: 'note-seen';
  id: string;
  order: string;
  /** The badge that was scanned for it, where the house wants one. */
  badge?: string;
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
  /** Why a weight is right that is not as expected, in their words; absent: they have looked. */
  weightWhy?: string;
  /** What is still to be packed goes into another parcel, which need not be begun; absent: no. */
  more?: boolean;
}

/** Opens a closed parcel that has not left: its label is void. */
export interface OpenParcelCommand {
  kind: 'open-parcel';
  id: string;
  order: string;
  parcel: number;
}

/** Takes goods out of one open parcel of an order and puts them into another, which is begun where it is not there yet. */
export interface RepackCommand {
  kind: 'repack';
  id: string;
  order: string;
  from: number;
  to: number;
  line: number;
  units: number;
  /** The serial number of the piece, where the item asks for one. */
  serial?: string;
  how: How;
}

/** The number of a piece that was taken out since the order wants fewer: which one it was only says whoever took it. */
export interface SerialOutCommand {
  kind: 'serial-out';
  id: string;
  order: string;
  line: number;
  serial: string;
}

/** The order waits, and why; its goods stay where they are. Whatever is done with it next ends that. */
export interface ParkCommand {
  kind: 'park';
  id: string;
  order: string;
  why: string;
}

/** All that a packing table asks for. */
export type PackingCommand =
  | PackCommand
  | PackAllCommand
  | PackKitCommand
  | LeaveOutCommand
  | NoteSeenCommand
  | CloseParcelCommand
  | OpenParcelCommand
  | RepackCommand
  | SerialOutCommand
  | ParkCommand;

export interface PackState extends FlowState<PackingCommand> {
  /** The line last touched, for a keyed quantity. */
  line: number | null;
  /** The parcel that goods go into; null means the one that is open, or the next. */
  parcel: number | null;
  /** The parcel that scanned goods come out of; null while they come out of the tote. */
  outOf: number | null;
  /** The line of the piece in hand whose serial number is to be scanned; null where none is. */
  serialOf: number | null;
}

export type PackInput =
  | { kind: 'count'; id: string; packId: number; count: number }
  /** The customer's note was read. */
  | { kind: 'confirm'; id: string }
  /** From now on goods go into this parcel, or into a new one. */
  | { kind: 'parcel'; id: string; number: number | 'next' }
  /** Opens a closed parcel again; without a number the one closed last. */
  | { kind: 'open'; id: string; number?: number }
  /** From now on goods come out of the parcel in use into another one, or no longer. */
  | { kind: 'apart'; id: string }
  | { kind: 'park'; id: string; why: string }
  /** All that was scanned at its bins is in the box. */
  | { kind: 'all'; id: string }
  /** The inserts that are left do not go along. */
  | { kind: 'leave-out'; id: string }
  | {
      kind: 'close';
      id: string;
      carton: string;
      weightG: number;
      service: CloseParcelCommand['service'];
      weightSeen: boolean;
      weightWhy?: string;
      more?: boolean;
    };

export const startPack: PackState = { line: null, parcel: null, outOf: null, serialOf: null, pending: [] };

/** What a line still wants proved, with what this bench has posted and not yet heard back about. */
export function toPack(state: Pick<PackState, 'pending'>, line: PackLine): number {
  return state.pending.reduce((left, c) => left - onTheWay(c, line.line), line.picked - line.packed);
}

/** What a command settles of a line. */
function onTheWay(c: PackingCommand, line: number): number {
  if (c.kind === 'pack') return c.line === line ? c.units : 0;
  return 'lines' in c ? (c.lines.find((l) => l.line === line)?.units ?? 0) : 0;
}

/** The inserts that are not in a parcel yet. */
export const insertsLeft = (task: PackTask, state: Pick<PackState, 'pending'>): { line: number; units: number }[] =>
  task.lines.flatMap((l) => (l.insert && toPack(state, l) > 0 ? [{ line: l.line, units: toPack(state, l) }] : []));

/** What need not be scanned again, line by line. */
export const trustedRest = (task: PackTask, state: Pick<PackState, 'pending'>): { line: number; units: number }[] =>
  task.lines.flatMap((l) => (l.trusted && toPack(state, l) > 0 ? [{ line: l.line, units: toPack(state, l) }] : []));

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
  const change = (number: number, to: (parcel: PackParcel) => PackParcel) =>
    parcels.set(number, to(parcels.get(number) ?? { number, code: `${task.order}-${number}`, open: true, contents: [] }));
  const add = (line: number, units: number) => (p: PackParcel) => ({ ...p, contents: [...p.contents, { line, units }] });
  for (const c of state.pending) {
    if (c.kind === 'pack') change(c.parcel, add(c.line, c.units));
    if (c.kind === 'pack-all' || c.kind === 'pack-kit') for (const { line, units } of c.lines) change(c.parcel, add(line, units));
    if (c.kind === 'close-parcel') change(c.parcel, (p) => ({ ...p, open: false }));
    if (c.kind === 'open-parcel') change(c.parcel, (p) => ({ ...p, open: true }));
    if (c.kind !== 'repack') continue;
    change(c.from, add(c.line, -c.units));
    change(c.to, add(c.line, c.units));
  }
  return [...parcels.values()].sort((a, b) => a.number - b.number);
}

/** The serial numbers in the order's parcels, with what is on its way. */
export function serialsNow(task: PackTask, state: Pick<PackState, 'pending'>): { line: number; parcel: number; serial: string }[] {
  let all = [...(task.serials ?? [])];
  for (const c of state.pending) {
    if (!('serial' in c) || c.serial === undefined) continue;
    all = all.filter((s) => s.line !== c.line || s.serial !== c.serial);
    if (c.kind === 'pack') all.push({ line: c.line, parcel: c.parcel, serial: c.serial });
    if (c.kind === 'repack') all.push({ line: c.line, parcel: c.to, serial: c.serial });
  }
  return all;
}

/** The parcel that a serial number lies in, with what is on its way; undefined where it lies in none of this order. */
export const parcelOfSerial = (task: PackTask, state: Pick<PackState, 'pending'>, line: number, serial: string): number | undefined =>
  serialsNow(task, state).find((s) => s.line === line && s.serial === serial)?.parcel;

/** Lines of which a parcel has more serial numbers than pieces: some were taken out, and nobody has said which. */
export function numbersOver(task: PackTask, state: Pick<PackState, 'pending'>, parcel: number): { line: number; over: number }[] {
  const own = parcelsNow(task, state).find((p) => p.number === parcel);
  const counts = new Map<number, number>();
  for (const s of serialsNow(task, state)) if (s.parcel === parcel) counts.set(s.line, (counts.get(s.line) ?? 0) + 1);
  return [...counts].flatMap(([line, n]) => (n > unitsIn(own, line) ? [{ line, over: n - unitsIn(own, line) }] : []));
}

/** The parcel that goods go into now. */
export function parcelInUse(task: PackTask, state: PackState): number {
  const all = parcelsNow(task, state);
  const chosen = all.find((p) => p.number === state.parcel);
  if (state.parcel !== null && (!chosen || chosen.open)) return state.parcel;
  return all.find((p) => p.open)?.number ?? nextNumber(all);
}

/** The number of the next parcel. */
export const nextNumber = (all: readonly PackParcel[]): number => all.reduce((n, p) => Math.max(n, p.number), 0) + 1;

/** What the goods in a parcel weigh, in grams; null where one weight is not known. */
export function goodsWeightG(task: Pick<PackTask, 'lines'>, contents: PackParcel['contents']): number | null {
  return contents.reduce<number | null>((sum, { line, units }) => {
    const each = task.lines.find((l) => l.line === line)?.unitG ?? null;
    return sum === null || each === null ? null : sum + each * units;
  }, 0);
}

/** How many units of a line lie in a parcel. */
export const unitsIn = (parcel: PackParcel | undefined, line: number): number =>
  parcel?.contents.reduce((sum, c) => sum + (c.line === line ? c.units : 0), 0) ?? 0;
