import { commaLot, spell } from '../quantity/index.js';
import type { AnyTallyCommand, TallyBin, TallyCommand, TallyHand, TallyLine, TallyState, TallyTask } from './tally-task.js';
import type { Codebook, ItemFacts, Refusal } from './types.js';

type Pending = Pick<TallyState, 'pending'>;
type Goods = Pick<TallyLine, 'itemId' | 'lot' | 'isDamaged'>;

const notThis = (title: string, detail: string): Refusal => ({ band: 'not-this', title, detail });

const isFor = (c: AnyTallyCommand, placeId: number): c is TallyCommand => c.kind === 'tally' && c.placeId === placeId;
const isSame = (a: Goods, b: Goods) => a.itemId === b.itemId && a.lot === b.lot && a.isDamaged === b.isDamaged;

/** What was counted of goods in a bin, here or by others; null where nothing was. What this phone has said last holds. */
export function countedOf(bin: TallyBin, state: Pending, goods: Goods): number | null {
  const said = state.pending.filter((c): c is TallyCommand => isFor(c, bin.placeId) && isSame(c, goods)).at(-1);
  return said?.units ?? bin.lines.find((l) => isSame(l, goods))?.counted ?? null;
}

/** Whether all of a bin was said to be counted, here or by others. */
export const isDone = (bin: TallyBin, state: Pending): boolean =>
  bin.state === 'counted' ||
  state.pending.some((c) => c.placeId === bin.placeId && (c.kind === 'tally-bin' || (c.kind === 'tally' && c.isLast)));

/** What a bin's list names that nobody has counted. */
export const uncounted = (bin: TallyBin, state: Pending): TallyLine[] =>
  isDone(bin, state) ? [] : bin.lines.filter((l) => countedOf(bin, state, l) === null);

/** The goods of a bin as they were counted, those that its list does not name behind the others. */
export function talliedIn(bin: TallyBin, state: Pending): (Goods & { counted: number | null; isListed: boolean })[] {
  const listed = bin.lines.map((l) => ({ ...l, counted: countedOf(bin, state, l) ?? (isDone(bin, state) ? 0 : null), isListed: true }));
  const added: (Goods & { counted: number | null; isListed: boolean })[] = [];
  for (const c of state.pending) {
    if (!isFor(c, bin.placeId) || [...listed, ...added].some((l) => isSame(l, c))) continue;
    added.push({ itemId: c.itemId, lot: c.lot, isDamaged: c.isDamaged, counted: countedOf(bin, state, c), isListed: false });
  }
  return [...listed, ...added];
}

/** The bins that this person still has to count, in walking order. */
export const openBins = (task: TallyTask, state: Pending): TallyBin[] => task.bins.filter((b) => b.isMine && !isDone(b, state));

export const binAt = (task: TallyTask, state: Pick<TallyState, 'at'>): TallyBin | undefined =>
  task.bins.find((b) => b.placeId === state.at);

/** Where to go: the bin at hand until it is counted, then the next on the walk. */
export function nextBin(task: TallyTask, state: TallyState): TallyBin | undefined {
  const here = binAt(task, state);
  if (here && !isDone(here, state)) return here;
  return openBins(task, state)[0];
}

/** Why a bin is not counted by this person; null where it may be. */
export function checkTallyBin(task: TallyTask, state: Pending, code: string, bin: TallyBin | undefined): Refusal | null {
  const next = openBins(task, state)[0];
  const go = next ? `Go to ${next.code}` : 'All bins of yours are counted';
  if (!bin) return notThis(code, `It is not in this count. ${go}`);
  if (!bin.isMine) return notThis(code, `${bin.by ?? 'Somebody else'} counts it. ${go}`);
  return null;
}

/** Why goods cannot be counted here; null where they can. `lots`: those of the item that the bin's list names. */
export function checkTally(
  { wholeBins }: Pick<TallyTask, 'wholeBins'>,
  bin: TallyBin,
  item: ItemFacts,
  goods: Goods,
  units: number,
): Refusal | null {
  if (!Number.isSafeInteger(units) || units < 0) return notThis(item.name, 'A count is a whole number of units');
  if (item.tracking === 'serial' && units > 1)
    return { band: 'too-many', title: item.name, detail: 'Each piece has a number of its own. Scan the number of each' };
  if (item.tracking !== 'none' && goods.lot === null)
    return notThis(
      item.name,
      item.tracking === 'serial' ? 'Scan the number of this piece' : 'Say which lot it is: scan it, or choose it below',
    );
  const isListed = bin.lines.some((l) => isSame(l, goods));
  if (!wholeBins && !isListed && !bin.lines.some((l) => l.itemId === item.id))
    return notThis(item.name, 'This count is not about it. Leave it, and count what the list names');
  return null;
}

/** Lots of an item that a bin's list names, those not counted yet first. */
export const lotsListed = (bin: TallyBin, state: Pending, itemId: number): TallyLine[] =>
  bin.lines
    .filter((l) => l.itemId === itemId && l.lot !== null)
    .sort((a, b) => Number(countedOf(bin, state, a) !== null) - Number(countedOf(bin, state, b) !== null));

/** What of a bin is not counted yet, in words: "Lid, gold and 2 more". */
export function leftWords(book: Codebook, left: readonly TallyLine[]): string {
  const first = left[0];
  if (!first) return '';
  const item = book.items[first.itemId];
  const name = `${item?.name ?? 'Something'}${commaLot(item, first.lot)}`;
  return left.length === 1 ? name : `${name} and ${left.length - 1} more`;
}

/** Goods in hand in words: "1 tray and 2 jars". */
export const handWords = (item: ItemFacts | undefined, hand: Pick<TallyHand, 'units'>): string => spell(hand.units, item?.packs ?? []);
