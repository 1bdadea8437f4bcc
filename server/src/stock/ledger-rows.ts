import { type BalanceChange, balanceKey, type Movement } from '@vectrum/core/ledger';
import {
  type Act,
  isUnknownReference,
  marks,
  more,
  one,
  type OfRows,
  preparedRows,
  preparedTogether,
  Problem,
  rows,
  TryAgain,
  type Tx,
  update,
} from '../platform/index.js';
import type { KnownPlaces } from './known-places.js';
import type { Posting } from './ledger.service.js';

/** The most rows of one statement. */
const MANY = 500;

const COLUMNS = [
  'item_id',
  'lot_id',
  'stock_condition',
  'to_condition',
  'from_place_id',
  'to_place_id',
  'units',
  'reverses_id',
  'task',
  'document',
  'reason',
  'how',
  'person_id',
  'device_id',
  'command_id',
  'device_at',
  'unit_cost',
  'moved_at',
];

const parted = <T>(list: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(list.length / MANY) }, (_, i) => list.slice(i * MANY, (i + 1) * MANY));

const ADD = `INSERT INTO movement (${COLUMNS.join(', ')}) VALUES`;

/** What writes movements, a part of them at a time. */
function adding({ act, movements, posting, reverses }: Posted): OfRows[] {
  const values = movements.map((m, i) => [
    m.itemId,
    m.lotId,
    m.condition,
    m.toCondition ?? null,
    m.fromPlaceId,
    m.toPlaceId,
    m.units,
    reverses[i] ?? null,
    posting.task,
    posting.document,
    posting.reason ?? null,
    posting.how ?? null,
    act.person.id,
    act.deviceId,
    act.key,
    act.deviceAt,
    posting.unitCosts?.[i] ?? null,
    act.madeAt ?? null,
  ]);
  return parted(values).map((part) => ({ before: ADD, given: part, after: 'RETURNING id' }));
}

const CHANGE = 'INSERT INTO balance (item_id, place_id, lot_id, stock_condition, units, bounded, site_id) VALUES';
const AND_SITES = 'ON DUPLICATE KEY UPDATE units = units + VALUES(units) RETURNING units, site_id AS siteId';

/** What changes balances. */
const changing = (changes: readonly BalanceChange[], places: KnownPlaces): OfRows[] =>
  // A new row begins unbounded where its change is negative: the table checks what is inserted before it sees that the row
  // is there. What was not there to be taken comes back below nought, and is refused then.
  parted(
    changes.map(({ itemId, placeId, lotId, condition, change }) => {
      const bounded = change < 0 || places.isOutside(placeId) ? 0 : 1;
      return [itemId, placeId, lotId, condition, change, bounded, places.siteOf(placeId)];
    }),
  ).map((part) => ({ before: CHANGE, given: part, after: AND_SITES }));

/** Movements that are written together, and what for. */
export interface Posted {
  act: Act;
  movements: readonly Movement[];
  posting: Posting;
  /** The movements that they take back, in the same order; none where they take nothing back. */
  reverses: readonly number[];
}

/**
 * Writes movements and changes balances in their order. Returns the numbers of the movements, in their order, and the sites
 * of the balances that changed, in theirs: null outside the house. Through their references movements hold the rows of their places and
 * items until the transaction ends, so that none changes its kind or site meanwhile. A balance that is there knows its site; a new one is
 * told where its place was last seen, which the table refuses where that is not so any more. Throws where a place or an item is not known,
 * `TryAgain` where one has moved, and a `stock` problem where a place in the house would go below nought.
 */
export async function writeRows(
  tx: Tx,
  posted: readonly Posted[],
  changes: readonly BalanceChange[],
  places: KnownPlaces,
): Promise<{ ids: number[][]; sites: (number | null)[] }> {
  const added = posted.map(adding);
  const answers = await preparedTogether(tx, [...added.flat(), ...changing(changes, places)]).catch(async (thrown: unknown) => {
    if (isUnknownReference(thrown)) {
      const touched = changes.map((c) => c.placeId);
      if (await places.haveMoved(tx, touched)) throw new TryAgain('A container has come to another site');
      throw new Problem(404, 'not-found', 'One of these places or goods is not known here');
    }
    const code = await shortPlace(tx, changes);
    throw code === undefined ? thrown : notThere(code);
  });
  const ids = added.map((of) => (answers.splice(0, of.length).flat() as { id: string }[]).map((m) => Number(m.id)));
  // In the order in which they were given, and so in that of the changes.
  const now = answers.flat() as { units: number; siteId: number | null }[];
  const short = changes.find((c, i) => (now[i]?.units ?? 0) < 0 && !places.isOutside(c.placeId));
  if (short) throw notThere((await one<{ code: string }>(tx, 'SELECT code FROM place WHERE id = ?', [short.placeId]))?.code ?? '');
  return { ids, sites: now.map((b) => b.siteId) };
}

const notThere = (code: string) =>
  new Problem(409, 'stock', `There is not that much in ${code} any more. Look at what is there and try again`);

/** The first place in the house that holds less than is to be taken from it. */
async function shortPlace(tx: Tx, changes: readonly BalanceChange[]): Promise<string | undefined> {
  const taken = changes.filter((c) => c.change < 0);
  if (taken.length === 0) return undefined;
  const held = await rows<{
    itemId: number;
    placeId: number;
    lotId: number;
    condition: BalanceChange['condition'];
    units: number;
    code: string;
  }>(
    tx,
    `SELECT b.item_id AS itemId, b.place_id AS placeId, b.lot_id AS lotId, b.stock_condition AS \`condition\`, b.units, p.code
     FROM balance b JOIN place p ON p.id = b.place_id WHERE b.bounded = 1 AND b.item_id IN (${marks(taken)}) AND b.place_id IN (${marks(taken)})`,
    [...taken.map((c) => c.itemId), ...taken.map((c) => c.placeId)],
  );
  const byKey = new Map(held.map((h) => [balanceKey(h), h]));
  return taken.map((c) => ({ c, h: byKey.get(balanceKey(c)) })).find(({ c, h }) => h && h.units + c.change < 0)?.h?.code;
}

/** What an item's figures at a site become more or less. */
export interface FigureChange {
  siteId: number;
  itemId: number;
  onHand: number;
  held: number;
}

const FIGURES = 'INSERT INTO site_stock (site_id, item_id, on_hand, held) VALUES';
const ADDED = 'ON DUPLICATE KEY UPDATE on_hand = on_hand + VALUES(on_hand), held = held + VALUES(held)';

/** Changes site figures, in their order. What becomes more may be new, and goes in together; what becomes less is there. */
export async function changeFigures(tx: Tx, changes: readonly FigureChange[]): Promise<void> {
  const row = (c: FigureChange) => [c.siteId, c.itemId, c.onHand, c.held];
  const grows = (c: FigureChange) => c.onHand >= 0 && c.held >= 0;
  if (changes.every(grows)) {
    for (let i = 0; i < changes.length; i += MANY)
      await preparedRows(tx, { before: FIGURES, given: changes.slice(i, i + MANY).map(row), after: ADDED });
    return;
  }
  for (const c of changes)
    if (grows(c)) await preparedRows(tx, { before: FIGURES, given: [row(c)], after: ADDED });
    else if (
      (await update(tx, 'site_stock', { site_id: c.siteId, item_id: c.itemId }, { on_hand: more(c.onHand), held: more(c.held) })) === 0
    )
      throw new Error(`Site ${c.siteId} has no figures of item ${c.itemId}, whose balances went down`);
}
