import type { ItemId, LineId, LotId, PlaceId, SiteId } from '../ids/index.js';
import { commaLot, goodsWords, lotWords, spell } from '../quantity/index.js';
import { accepted, refuse, stay } from './feedback.js';
import { flowOf, type FlowState, type Moment } from './flow.js';
import type { Meaning } from './resolve.js';
import type { How, ItemFacts, Refusal, Step } from './types.js';

/** A bin from which goods of a line may be taken, in the order in which they are due. */
export interface GatherBin {
  placeId: PlaceId;
  code: string;
  lotId: LotId;
  lot: string | null;
  /** What no round comes for. */
  spare: number;
}
export interface GatherLine {
  lineId: LineId;
  itemId: ItemId;
  units: number;
  gathered: number;
  bins: readonly GatherBin[];
}
/** A parcel of it, as the desk has packed it. */
export interface GatherParcel {
  code: string;
  /** Who carries it; null where it goes without a label. */
  carrier: string | null;
  /** Whether its label has come, where it waits for one. */
  isReady: boolean;
}
/** What goes to another site, as the phone that gathers it has it. */
export interface GatherTask {
  document: string;
  siteId: SiteId;
  to: string;
  note: string;
  lines: readonly GatherLine[];
  /** None where nobody has packed any, or where it is built and not sent. */
  parcels: readonly GatherParcel[];
}

/** Goods of a bin are set apart for another site. */
export interface GatherCommand {
  kind: 'gather';
  id: string;
  document: string;
  lineId: LineId;
  itemId: ItemId;
  lotId: LotId;
  placeId: PlaceId;
  units: number;
  how: How;
}
/** What was gathered is on the road. */
export interface SendOffCommand {
  kind: 'send-off';
  id: string;
  document: string;
  carrier: string;
  tracking: string;
}
export type AnyGatherCommand = GatherCommand | SendOffCommand;

export interface GatherState extends FlowState<AnyGatherCommand> {
  at: PlaceId | null;
  hand: { lineId: LineId; lotId: LotId; units: number; how: How } | null;
}
export type GatherInput =
  | { kind: 'number'; id: string; units: number }
  | { kind: 'confirm'; id: string }
  | { kind: 'choose'; id: string; lotId: LotId }
  | { kind: 'send'; id: string; carrier: string; tracking: string };

export const startGather: GatherState = { at: null, hand: null, pending: [] };

type Result = Step<GatherState, AnyGatherCommand>;
type Now = Moment<GatherTask, GatherState>;
const notThis = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });
const gathers = (c: AnyGatherCommand): c is GatherCommand => c.kind === 'gather';

/** What is still to be gathered of a line. */
export const toGather = (line: GatherLine, state: Pick<GatherState, 'pending'>): number =>
  line.units -
  line.gathered -
  state.pending
    .filter(gathers)
    .filter((c) => c.lineId === line.lineId)
    .reduce((n, c) => n + c.units, 0);

/** What a bin still has for it. */
export const spareOf = (line: GatherLine, bin: GatherBin, state: Pick<GatherState, 'pending'>): number =>
  bin.spare -
  state.pending
    .filter(gathers)
    .filter((c) => c.itemId === line.itemId && c.placeId === bin.placeId && c.lotId === bin.lotId)
    .reduce((n, c) => n + c.units, 0);

/** The next bin to go to, with how many to take there; undefined where nothing is left to take. */
export function nextGather(
  task: GatherTask,
  state: Pick<GatherState, 'pending'>,
): { line: GatherLine; bin: GatherBin; units: number } | undefined {
  for (const line of task.lines) {
    const left = toGather(line, state);
    if (left <= 0) continue;
    for (const bin of line.bins) {
      const units = Math.min(left, spareOf(line, bin, state));
      if (units > 0) return { line, bin, units };
    }
  }
  return undefined;
}

/** Why goods cannot be gathered; null where they can. */
export function checkGather(item: ItemFacts | undefined, left: number, spare: number, units: number): Refusal | null {
  const [name, packs] = [item?.name ?? 'These goods', item?.packs ?? []];
  if (!Number.isSafeInteger(units) || units < 1) return notThis(name, 'Say how many, from one upwards');
  if (units > left)
    return {
      band: 'too-many',
      title: spell(units, packs),
      detail: left > 0 ? `Only ${spell(left, packs)} more are wanted` : 'All that is wanted of it is gathered',
    };
  if (units > spare)
    return { band: 'too-many', title: spell(units, packs), detail: `Only ${spell(Math.max(0, spare), packs)} of it may go from here` };
  return null;
}

/** Gathering what goes to another site: bin, goods, number; then it is sent off. */
export const gather = flowOf<GatherTask, GatherState, GatherInput, AnyGatherCommand>({
  kind: 'gather',
  start: startGather,
  owns: ['gather', 'send-off'],
  emptied: (state) => ({ ...state, hand: null }),
  strays({ task, state, book }) {
    const line = state.hand && task.lines.find((l) => l.lineId === state.hand?.lineId);
    if (!state.hand || !line) return null;
    return toGather(line, state) >= state.hand.units
      ? null
      : notThis(book.items[line.itemId]?.name ?? '', 'Somebody has gathered it meanwhile. Put it back');
  },
  place: ({ task, book, state, ...now }, place) => {
    if (state.hand) return refuse(state, notThis(place.code, 'Say first how many you have taken'), now);
    const lines = task.lines.filter(
      (l) => toGather(l, state) > 0 && l.bins.some((b) => b.placeId === place.id && spareOf(l, b, state) > 0),
    );
    const next = nextGather(task, state);
    if (lines.length === 0)
      return refuse(state, notThis(place.code, next ? `Nothing to take here. Go to ${next.bin.code}` : 'Nothing more to take'), now);
    const first = lines[0] ? book.items[lines[0].itemId] : undefined;
    return stay({ ...state, at: place.id }, accepted(`Bin ${place.code}`, `Take ${first?.name ?? 'the goods'}`));
  },
  item: onItem,
  unknown: ({ task, book, state, ...now }, code) => {
    const line = state.hand && task.lines.find((l) => l.lineId === state.hand?.lineId);
    const bin = line?.bins.find((b) => b.placeId === state.at && b.lot === code);
    return line && bin && state.hand
      ? stay({ ...state, hand: { ...state.hand, lotId: bin.lotId } }, accepted(code, book.items[line.itemId]?.name ?? ''))
      : refuse(state, notThis(code, 'On no item or place here'), now);
  },
  cards: { confirm },
  inputs: {
    number: (now, { units }) =>
      now.state.hand ? take({ ...now, state: { ...now.state, hand: { ...now.state.hand, units } } }) : stay(now.state),
    confirm,
    choose: ({ state }, { lotId }) => stay(state.hand ? { ...state, hand: { ...state.hand, lotId } } : state),
    send: ({ task, state, id, ...now }, { carrier, tracking }) => {
      if (state.hand) return refuse(state, notThis(task.document, 'Say first how many you have taken'), { ...now, id });
      if (task.lines.every((l) => toGather(l, state) === l.units))
        return refuse(state, notThis(task.document, 'Nothing of it is gathered yet'), { ...now, id });
      return {
        state,
        feedback: accepted(`${task.document} is on the road`, `to ${task.to}`),
        commands: [{ kind: 'send-off', id, document: task.document, carrier: carrier.trim(), tracking: tracking.trim() }],
      };
    },
  },
});

function onItem(now: Now, { item, pack, lot, count }: Extract<Meaning, { kind: 'item' }>): Result {
  const { task, state } = now;
  const line = task.lines.find((l) => l.itemId === item.id && toGather(l, state) > 0);
  if (!line) return refuse(state, notThis(item.name, `Nothing of it goes to ${task.to}. Leave it`), now);
  const bins = line.bins.filter((b) => b.placeId === state.at && spareOf(line, b, state) > 0 && (lot === null || b.lot === lot));
  const [first] = bins;
  if (state.at === null || !first) {
    const next = nextGather(task, state);
    return refuse(
      state,
      notThis(
        item.name,
        state.at === null
          ? `Scan the bin first${next ? `: ${next.bin.code}` : ''}`
          : `None of it may go from here${lot ? `, of lot ${lot}` : ''}`,
      ),
      now,
    );
  }
  const units = pack.factor * (count ?? 1);
  const before = state.hand?.lineId === line.lineId ? state.hand.units : 0;
  const lotId = state.hand?.lineId === line.lineId && lot === null ? state.hand.lotId : first.lotId;
  const hand = { lineId: line.lineId, lotId, units: before + units, how: now.how };
  const which = bins.length > 1 && lot === null && before === 0 ? `. ${lotWords(item, first.lot)} is due first` : '';
  return stay(
    { ...state, hand },
    accepted(
      item.name,
      `${spell(hand.units, item.packs)} of ${spell(toGather(line, state), item.packs)}${which}. Scan on, key the number, or confirm`,
    ),
  );
}

function confirm(now: Now): Result {
  return now.state.hand ? take(now) : stay(now.state);
}

function take(now: Now): Result {
  const { task, book, state, id, how } = now;
  const { hand, at } = state;
  const line = task.lines.find((l) => l.lineId === hand?.lineId);
  const bin = line?.bins.find((b) => b.placeId === at && b.lotId === hand?.lotId);
  if (!hand || !line || !bin || at === null) return stay({ ...state, hand: null });
  const item = book.items[line.itemId];
  const refusal = checkGather(item, toGather(line, state), spareOf(line, bin, state), hand.units);
  if (refusal) return refuse({ ...state, hand: refusal.band === 'too-many' ? { ...hand, units: 0 } : hand }, refusal, now);
  return {
    state: { ...state, hand: null },
    feedback: accepted(item ? goodsWords(hand.units, item) : '', `from ${bin.code}${commaLot(item, bin.lot)}`),
    commands: [
      {
        kind: 'gather',
        id,
        document: task.document,
        lineId: line.lineId,
        itemId: line.itemId,
        lotId: bin.lotId,
        placeId: bin.placeId,
        units: hand.units,
        how: hand.how === 'scanned' ? hand.how : how,
      },
    ],
  };
}
