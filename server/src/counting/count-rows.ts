import { isFor, PLACE_KINDS } from '@vectrum/core/places';
import { find, marks, notFound, num, type Row, rows, sqlList, type Tx } from '../platform/index.js';

export type CountRow = Row<'stock_count'>;
export type BinRow = Row<'count_bin'>;
export type LineRow = Row<'count_line'>;

/** Places whose goods are counted: all that stand still and keep goods. What lies in a tote or parcel is somebody's already. */
export const COUNTABLE = sqlList(PLACE_KINDS.filter((k) => isFor(k, 'keep') && !isFor(k, 'container')));

/** Goods that nobody can tell apart by looking: what is held or to be inspected looks as good as the rest. */
export const SOUND = ['good', 'held', 'to-inspect'] as const;
const SOUND_SQL = sqlList(SOUND);
/** Whether a condition is that of a counted line, by its column `damaged`. */
export const conditionIs = (condition: string, damaged: string) =>
  `(${damaged} = 0 AND ${condition} IN ${SOUND_SQL} OR ${damaged} = 1 AND ${condition} = 'damaged')`;

/** A count by its code; `hold`: its row is held against whoever would end it, or for ending it. */
export async function countOfCode(tx: Tx, code: string, hold: 'share' | 'lock'): Promise<CountRow> {
  const [row] = await rows<CountRow>(
    tx,
    `SELECT * FROM stock_count WHERE code = ? ${hold === 'lock' ? 'FOR UPDATE' : 'LOCK IN SHARE MODE'}`,
    [code],
  );
  if (!row) throw notFound(`Count ${code.slice(0, 20)}`);
  return row;
}

export async function lineOf(tx: Tx, id: number): Promise<LineRow> {
  const row = await find(tx, 'count_line', { id }, 'lock');
  if (!row) throw notFound('This line of the count');
  return row;
}

/** What moved in and out of a line's goods since somebody looked. */
export interface Moved {
  cameIn: number;
  wentOut: number;
}

/**
 * For each counted line what its place has in the books now and what has moved since the look. O(lines + movements since the count
 * was opened at their places): the movements are found by place, from the one after which the count was opened.
 */
export async function sinceLook(
  tx: Pick<Tx, 'query'>,
  count: Pick<CountRow, 'id' | 'after_movement'>,
  lineIds: readonly number[] | null,
): Promise<Map<number, Moved & { balance: number }>> {
  const only = lineIds === null ? '' : `AND l.id IN (${marks([0, ...lineIds])})`;
  const ids = lineIds === null ? [] : [0, ...lineIds];
  const moved = (place: string, condition: string) =>
    rows<{ id: number; units: string }>(
      tx,
      `SELECT l.id, SUM(m.units) AS units FROM count_line l JOIN movement m ON m.${place} = l.place_id AND m.id > ? AND m.item_id = l.item_id AND m.lot_id = l.lot_id
         AND COALESCE(m.moved_at, m.server_at) > l.looked_at AND ${conditionIs(condition, 'l.damaged')}
       WHERE l.count_id = ? ${only} AND l.looked_at IS NOT NULL GROUP BY l.id`,
      [count.after_movement ?? 0, count.id, ...ids],
    );
  const came = await moved('to_place_id', 'COALESCE(m.to_condition, m.stock_condition)');
  const went = await moved('from_place_id', 'm.stock_condition');
  const have = await rows<{ id: number; units: string }>(
    tx,
    `SELECT l.id, COALESCE(SUM(b.units), 0) AS units FROM count_line l
       LEFT JOIN balance b ON b.item_id = l.item_id AND b.place_id = l.place_id AND b.lot_id = l.lot_id AND ${conditionIs('b.stock_condition', 'l.damaged')}
     WHERE l.count_id = ? ${only} GROUP BY l.id`,
    [count.id, ...ids],
  );
  const [cameOf, wentOf] = [came, went].map((list) => new Map(list.map((r) => [r.id, num(r.units)])));
  return new Map(have.map((h) => [h.id, { balance: num(h.units), cameIn: cameOf?.get(h.id) ?? 0, wentOut: wentOf?.get(h.id) ?? 0 }]));
}
