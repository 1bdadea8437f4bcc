import { spell } from '../quantity/index.js';
import { accepted, refuse, stay } from './feedback.js';
import { flowOf, type Moment } from './flow.js';
import { leaveOut, wholeKit } from './pack-along.js';
import { checkClose, checkPack, checkRepack, numberToScan } from './pack-rules.js';
import {
  leftToPack,
  nextNumber,
  noteIsRead,
  numbersOver,
  type PackingCommand,
  type PackInput,
  type PackLine,
  type PackState,
  type PackTask,
  parcelInUse,
  parcelOfSerial,
  parcelsNow,
  serialsNow,
  startPack,
  toPack,
  trustedRest,
  unitsIn,
} from './pack-task.js';
import type { Meaning } from './resolve.js';
import type { Step } from './types.js';

const MOST_SERIAL = 60;

type Result = Step<PackState, PackingCommand>;
type Now = Moment<PackTask, PackState>;

/** Packing: each scan proves goods into the parcel that is open. Hands are never full: what is scanned is in the box. */
export const pack = flowOf<PackTask, PackState, PackInput, PackingCommand>({
  kind: 'pack',
  start: startPack,
  owns: ['pack', 'note-seen', 'close-parcel', 'open-parcel', 'repack', 'park', 'pack-all', 'pack-kit', 'leave-out', 'serial-out'],
  emptied: (state) => ({ ...state, line: null, outOf: null, serialOf: null }),
  strays: () => null,
  item(now, meaning) {
    const lines = now.task.lines.filter((l) => l.itemId === meaning.item.id);
    const line = lines.find((l) => toPack(now.state, l) > 0) ?? lines[0];
    const inHand = now.task.lines.find((l) => l.line === now.state.serialOf);
    if (inHand && inHand.itemId !== meaning.item.id)
      return refuse(now.state, { band: 'not-this', title: nameOf(now, inHand), detail: 'Scan its serial number first, or let it go' }, now);
    if (line && meaning.item.asksSerial) return onePiece(now, line, meaning);
    if (line) return now.state.outOf === null ? prove(now, line, meaning.pack.factor) : takeOut(now, lines, meaning.pack.factor);
    if (now.task.kits?.some((k) => k.itemId === meaning.item.id)) return wholeKit(now, meaning.item, meaning.pack.factor);
    const home = meaning.item.home ? ` Belongs in ${meaning.item.home}` : '';
    return refuse(now.state, { band: 'not-this', title: meaning.item.name, detail: `Not on ${now.task.order}.${home}` }, now);
  },
  place: (now, place) =>
    refuse(
      now.state,
      { band: 'not-this', title: place.code, detail: `${now.task.order} is open here. Finish it or park it before the next tote` },
      now,
    ),
  unknown: (now, code) => (now.state.serialOf === null ? paper(now, code) : numbered(now, code)),
  cards: {
    confirm: (now) => readNote(now),
    open: (now) => open(now),
    apart,
    parcel: (now) => chooseParcel(now, 'next'),
    take: countRest,
    all: takeAll,
    'leave-out': leaveOut,
  },
  inputs: {
    count(now, input) {
      const line = now.task.lines.find((l) => l.line === now.state.line);
      const unit = line && now.book.items[line.itemId]?.packs.find((p) => p.id === input.packId);
      return line && unit ? counted(now, line, input.count * unit.factor) : stay(now.state);
    },
    confirm: (now) => readNote(now),
    parcel: (now, input) => chooseParcel(now, input.number),
    open: (now, input) => open(now, input.number),
    all: takeAll,
    'leave-out': leaveOut,
    apart,
    park({ task, state, id }, { why }) {
      return { state, feedback: accepted(`${task.order} parked`, why), commands: [{ kind: 'park', id, order: task.order, why }] };
    },
    close,
  },
});

const nameOf = (now: Now, line: PackLine): string => now.book.items[line.itemId]?.name ?? now.task.order;

/** A piece whose serial number is asked for: taken at once where its code says it, asked for otherwise. */
function onePiece(now: Now, line: PackLine, { item, pack: unit, serial }: Extract<Meaning, { kind: 'item' }>): Result {
  if (unit.factor > 1)
    return refuse(
      now.state,
      { band: 'not-this', title: item.name, detail: 'Scan single pieces: each has a serial number of its own' },
      now,
    );
  if (serial) return numbered({ ...now, state: { ...now.state, serialOf: line.line } }, serial);
  if (now.state.serialOf !== null)
    return refuse(now.state, { band: 'not-this', title: item.name, detail: 'That is the code of the goods. Scan the serial number' }, now);
  if (now.state.outOf === null) {
    const refusal = checkPack(now.task.order, item, 1, toPack(now.state, line));
    if (refusal) return refuse(now.state, refusal, now);
  }
  return stay({ ...now.state, line: line.line, serialOf: line.line }, accepted(item.name, 'Now its serial number'));
}

/** The serial number of the piece in hand. */
function numbered(now: Now, scanned: string): Result {
  const line = now.task.lines.find((l) => l.line === now.state.serialOf);
  const serial = scanned.trim().toUpperCase();
  if (!line) return stay({ ...now.state, serialOf: null });
  const lies = parcelOfSerial(now.task, now.state, line.line, serial);
  const no = (detail: string) => refuse<PackState, PackingCommand>(now.state, { band: 'not-this', title: serial, detail }, now);
  if (/^[SRPVHA]-\d+(-\d+)?$/.test(serial)) return no('That is a paper or a badge. Scan the serial number on the piece');
  if (serial.length > MOST_SERIAL) return no('No serial number is as long as that. Scan the one on the piece');
  const { outOf } = now.state;
  if (outOf === null && lies !== undefined) return no(`It is in parcel ${lies} already. Scan the number of another piece`);
  if (outOf !== null && lies !== outOf) return no(`It is not in parcel ${outOf}`);
  const free = { ...now, state: { ...now.state, serialOf: null } };
  const step = outOf === null ? prove(free, line, 1) : takeOut(free, [line], 1);
  return {
    ...step,
    commands: step.commands.map((c) => (c.kind === 'pack' || c.kind === 'repack' ? { ...c, serial } : c)),
  };
}

/** A number keyed for goods of which one was scanned, unless every piece of them is to be scanned. */
function counted(now: Now, line: PackLine, units: number): Result {
  const item = now.book.items[line.itemId];
  if (item?.scanEach || item?.asksSerial)
    return refuse(now.state, { band: 'not-this', title: item.name, detail: 'Scan each piece of it' }, now);
  return prove(now, line, units);
}

/** All that is left of the line last touched was counted into the box. */
function countRest(now: Now): Result {
  const line = now.task.lines.find((l) => l.line === now.state.line);
  const rest = line ? toPack(now.state, line) : 0;
  if (!line || rest === 0) return stay(now.state, { band: 'not-this', title: 'Nothing to count', detail: 'Scan one of them first' });
  return counted(now, line, rest);
}

/** All that was scanned at its bins goes into the box as it is: the scans there have proved it. */
function takeAll({ task, state, id }: Now): Result {
  const lines = trustedRest(task, state);
  if (lines.length === 0)
    return stay(state, { band: 'not-this', title: 'Scan each', detail: 'Nothing that is left was proved by scans at its bins' });
  const units = lines.reduce((n, l) => n + l.units, 0);
  const left = leftToPack(task, state) - units;
  const parcel = parcelInUse(task, state);
  return {
    state: { ...state, line: null },
    feedback: accepted(`Parcel ${parcel}: all ${units} in`, left > 0 ? `${left} more to scan` : 'as they were scanned at their bins'),
    commands: [{ kind: 'pack-all', id, order: task.order, parcel, lines }],
  };
}

function chooseParcel({ task, state }: Now, wanted: number | 'next'): Result {
  const all = parcelsNow(task, state);
  const number = wanted === 'next' ? nextNumber(all) : wanted;
  if (wanted !== 'next' && !all.some((p) => p.number === number && p.open)) return stay(state);
  return stay({ ...state, parcel: number, outOf: null }, accepted(`Parcel ${number}`, 'What is scanned now goes into it'));
}

/** A docket, parcel or tracking number: of this order it is known; of another one it has to wait. */
function paper(now: Now, scanned: string): Result | undefined {
  const { task, state } = now;
  const code = scanned.trim().toUpperCase();
  if (code === task.order) return stay(state, accepted(task.order, 'It is open here'));
  const out = cameOut(now, code);
  if (out) return out;
  const own = parcelsNow(task, state).find((p) => p.code === code);
  if (own?.open) return chooseParcel(now, own.number);
  if (own) return stay(state, accepted(own.code, 'It is closed. Scan the card “Open again” to open it'));
  if (/^S-\d+(-\d+)?$/.test(code))
    return refuse(state, { band: 'not-this', title: code, detail: `It is of another order. Finish ${task.order} or park it first` }, now);
  const waits = task.note !== null && task.noteBadge && !noteIsRead(task, state);
  if (/^V-\d+$/.test(code) && waits) return readNote(now, code);
  if (/^V-\d+$/.test(code))
    return refuse(
      state,
      { band: 'not-this', title: 'A badge', detail: 'Sign out first, or let your colleague scan at a table of their own' },
      now,
    );
  return undefined;
}

/** The number of a piece that was taken out, where a parcel has more numbers than pieces of its line. */
function cameOut({ task, state, id }: Now, serial: string): Result | undefined {
  const known = serialsNow(task, state).find((s) => s.serial === serial);
  const isOver = known && numbersOver(task, state, known.parcel).some((o) => o.line === known.line);
  if (!isOver) return undefined;
  return {
    state,
    feedback: accepted(`${serial} is out`, `of parcel ${known.parcel}`),
    commands: [{ kind: 'serial-out', id, order: task.order, line: known.line, serial }],
  };
}

function open({ task, state, ...now }: Now, number?: number): Result {
  const closed = parcelsNow(task, state).filter((p) => !p.open && (number === undefined || p.number === number));
  const parcel = closed.at(-1);
  if (!parcel) return refuse(state, { band: 'not-this', title: task.order, detail: 'No parcel of it is closed' }, now);
  return {
    state: { ...state, parcel: parcel.number, outOf: null },
    feedback: accepted(`Parcel ${parcel.number} is open again`, 'Its label is void: take it off'),
    commands: [{ kind: 'open-parcel', id: now.id, order: task.order, parcel: parcel.number }],
  };
}

function apart({ task, state }: Now): Result {
  if (state.outOf !== null) return stay({ ...state, outOf: null }, accepted('Goods go in again', `Parcel ${parcelInUse(task, state)}`));
  const from = parcelInUse(task, state);
  if (!parcelsNow(task, state).some((p) => p.number === from && p.contents.length > 0))
    return stay(state, { band: 'not-this', title: `Parcel ${from}`, detail: 'Nothing is in it that could come out' });
  return stay(
    { ...state, outOf: from },
    accepted('What is scanned now comes out', `of parcel ${from}, into parcel ${intoFrom(task, state, from)}`),
  );
}

/** The parcel that goods out of another one go into: an open one, or the next. */
function intoFrom(task: PackTask, state: PackState, from: number): number {
  const all = parcelsNow(task, state);
  return all.find((p) => p.open && p.number !== from)?.number ?? nextNumber(all);
}

function takeOut({ task, book, state, ...now }: Now, lines: readonly PackLine[], units: number): Result {
  const from = state.outOf ?? parcelInUse(task, state);
  const all = parcelsNow(task, state);
  const to = intoFrom(task, state, from);
  const source = all.find((p) => p.number === from);
  const line = lines.find((l) => unitsIn(source, l.line) >= units) ?? lines[0];
  const refusal = checkRepack(
    task.order,
    source,
    all.find((p) => p.number === to),
    line?.line ?? 0,
    units,
  );
  if (refusal || !line) return refuse(state, refusal ?? { band: 'unknown', title: task.order, detail: 'No such item' }, now);
  const item = book.items[line.itemId];
  return {
    state,
    feedback: accepted(item?.name ?? task.order, `out of parcel ${from}, into parcel ${to}`),
    commands: [{ kind: 'repack', id: now.id, order: task.order, from, to, line: line.line, units, how: now.how }],
  };
}

/** The note was read; where the house wants that, by the badge of whoever packs. */
function readNote({ task, state, id, ...now }: Now, badge?: string): Result {
  if (!task.note || noteIsRead(task, state)) return stay(state);
  if (task.noteBadge && badge !== task.noteBadge)
    return refuse(
      state,
      {
        band: 'not-this',
        title: 'Your badge',
        detail: badge ? 'That is the badge of somebody else. Scan your own' : 'Read the note, then scan your own badge',
      },
      { id, ...now },
    );
  return {
    state,
    feedback: accepted('Note read', task.note),
    commands: [{ kind: 'note-seen', id, order: task.order, ...(badge ? { badge } : {}) }],
  };
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
  const [over] = numbersOver(task, state, number);
  const refusal =
    checkClose(parcelsNow(task, state), number, leftToPack(task, state), noteIsRead(task, state), input.more) ??
    (over && numberToScan(over.over));
  if (refusal) return refuse(state, refusal, now);
  const { carton, weightG, service, weightSeen, weightWhy, more = false } = input;
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
        ...(weightSeen && weightWhy ? { weightWhy } : {}),
        ...(more ? { more } : {}),
      },
    ],
  };
}
