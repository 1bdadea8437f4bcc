import { dueFor } from '@vectrum/core/counting';
import { marks, num, rows, type Tx } from '../platform/index.js';
import { conditionIs, COUNTABLE } from './count-rows.js';
import { LIMITS, ruleJoins } from './count-rules.js';
import { DRAWN_BY, type DrawnBy, type DrawUpDto } from './counts.dto.js';

/** Goods of a bin, or a bin with none, as a count is drawn up. */
export interface Drawn {
  placeId: number;
  area: string;
  itemId: number | null;
  lotId: number;
  damaged: number;
}

/** Ways of choosing by which whole bins are counted; by the others only the goods that they name are. */
export const WHOLE: readonly DrawnBy[] = ['area', 'bins', 'value', 'suspicion'];
export const isDrawnBy = (text: string): text is DrawnBy => (DRAWN_BY as readonly string[]).includes(text);

/** The aisle of a place, otherwise its zone: what somebody calls the stretch of shelves that it stands in. */
export const AREA = `COALESCE(NULLIF(a.label, ''), NULLIF(z.name, ''), z.code, '')`;
export const AREA_JOINS = `LEFT JOIN plan_shape a ON a.id = p.aisle_id LEFT JOIN place z ON z.id = p.parent_id AND z.kind = 'zone'`;
const SUSPECT_DAYS = 60;

interface Choice {
  joins?: string;
  where: string;
  params: readonly unknown[];
}

/** What is asked for, as conditions on goods of a bin (`b`, with item `i`) or on the bin (`p`). */
function choiceOf(asked: DrawUpDto): Choice {
  const words = asked.words.map((w) => w.trim()).filter(Boolean);
  const list = marks(words);
  switch (asked.by) {
    case 'area':
      return { where: `(${AREA} IN (${list}))`, params: words };
    case 'bins':
      return { where: `p.code IN (${list})`, params: words };
    case 'items':
      return { where: `i.sku IN (${list})`, params: words };
    case 'class':
      return { where: `i.class IN (${list})`, params: words };
    case 'lot':
      return { where: `EXISTS (SELECT 1 FROM lot t WHERE t.id = b.lot_id AND t.code IN (${list}))`, params: words };
    case 'supplier':
      return {
        where: `EXISTS (SELECT 1 FROM supplier_item si JOIN supplier s ON s.id = si.supplier_id WHERE si.item_id = i.id AND s.code IN (${list}))`,
        params: words,
      };
    case 'field':
      return { where: `JSON_VALUE(i.extra, ?) = ?`, params: [`$."${(words[0] ?? '').replace(/["\\]/g, '')}"`, words[1] ?? ''] };
    // Chosen by their rank among all, in a query of its own.
    case 'value':
    case 'suspicion':
    case 'plan':
      return { where: '1 = 1', params: [] };
  }
}

/** The bins with the most worth in them. */
async function dearest(tx: Tx, siteId: number, most: number): Promise<number[]> {
  const found = await rows<{ id: number }>(
    tx,
    `SELECT p.id FROM place p JOIN balance b ON b.place_id = p.id AND b.units > 0 AND b.stock_condition <> 'apart' JOIN item i ON i.id = b.item_id LEFT JOIN cost_pool c ON c.item_id = i.id AND c.units > 0
     WHERE p.site_id = ? AND p.kind IN ${COUNTABLE} GROUP BY p.id ORDER BY SUM(b.units * COALESCE(c.value / c.units, i.cost, 0)) DESC, p.id LIMIT ?`,
    [siteId, most],
  );
  return found.map((f) => f.id);
}

/** Bins that pickers found short more than once, or where a count has differed lately. */
async function suspected(tx: Tx, siteId: number): Promise<number[]> {
  const found = await rows<{ id: number }>(
    tx,
    `SELECT p.id FROM place p WHERE p.site_id = ? AND p.kind IN ${COUNTABLE} AND (
       EXISTS (SELECT 1 FROM spot_count c WHERE c.place_id = p.id AND c.state <> 'dropped' AND c.raised_at > UTC_TIMESTAMP() - INTERVAL ${SUSPECT_DAYS} DAY AND (c.state = 'open' OR c.counted_units <> c.booked_units))
       OR (SELECT COUNT(*) FROM round_stop s WHERE s.place_id = p.id AND s.short_units > 0) >= 2
       OR EXISTS (SELECT 1 FROM count_line l WHERE l.place_id = p.id AND l.state = 'accepted' AND l.within_limits = 0 AND l.settled_at > UTC_TIMESTAMP() - INTERVAL ${SUSPECT_DAYS} DAY))`,
    [siteId],
  );
  return found.map((f) => f.id);
}

/** Goods that the plan of counting wants counted, the longest overdue first. */
async function due(
  tx: Pick<Tx, 'query'>,
  siteId: number,
  most: number,
  placeId: number | null = null,
): Promise<{ placeId: number; itemId: number }[]> {
  const found = await rows<{
    placeId: number;
    itemId: number;
    intervalDays: number | null;
    daysSince: number | null;
    lines: string | null;
    right: string | null;
  }>(
    tx,
    `SELECT g.place_id AS placeId, g.item_id AS itemId, ${LIMITS.interval} AS intervalDays, DATEDIFF(UTC_TIMESTAMP(), h.last_at) AS daysSince, h.n AS \`lines\`, h.ok AS \`right\`
     FROM (SELECT DISTINCT b.place_id, b.item_id FROM balance b JOIN place p ON p.id = b.place_id WHERE p.site_id = ? ${placeId === null ? '' : 'AND p.id = ?'} AND p.kind IN ${COUNTABLE} AND b.units > 0 AND b.stock_condition <> 'apart') g
       JOIN item i ON i.id = g.item_id ${ruleJoins('i')}
       LEFT JOIN (SELECT l.place_id, l.item_id, MAX(l.settled_at) AS last_at, COUNT(*) AS n, SUM(l.within_limits) AS ok FROM count_line l JOIN stock_count c ON c.id = l.count_id AND c.site_id = ? WHERE l.state = 'accepted' GROUP BY l.place_id, l.item_id) h
         ON h.place_id = g.place_id AND h.item_id = g.item_id`,
    [siteId, ...(placeId === null ? [] : [placeId]), siteId],
  );
  return dueFor(found.map((f) => ({ ...f, accuracy: num(f.lines) > 0 ? num(f.right) / num(f.lines) : null }))).slice(0, most);
}

/** How many goods of one bin the plan wants counted now. */
export const dueAt = async (tx: Pick<Tx, 'query'>, siteId: number, placeId: number): Promise<number> =>
  (await due(tx, siteId, Infinity, placeId)).length;

/** How many goods in bins the plan wants counted now. */
export const dueNow = async (tx: Tx, siteId: number): Promise<number> => (await due(tx, siteId, Infinity)).length;

/**
 * The goods, bin by bin in walking order, that a count would be of. Where whole bins are counted, empty ones are among them.
 * O(goods of the site).
 */
export async function draw(tx: Tx, asked: DrawUpDto): Promise<Drawn[]> {
  const isWhole = WHOLE.includes(asked.by);
  const { where, params } = choiceOf(asked);
  const ranked =
    asked.by === 'value'
      ? await dearest(tx, asked.siteId, asked.most)
      : asked.by === 'suspicion'
        ? await suspected(tx, asked.siteId)
        : null;
  const except = (asked.except ?? []).map((w) => w.trim()).filter(Boolean);
  const found = await rows<Drawn>(
    tx,
    `SELECT p.id AS placeId, ${AREA} AS area, b.item_id AS itemId, COALESCE(b.lot_id, 0) AS lotId, COALESCE(b.stock_condition = 'damaged', 0) AS damaged
     FROM place p ${AREA_JOINS} ${isWhole ? 'LEFT ' : ''}JOIN balance b ON b.place_id = p.id AND b.units > 0 AND (${conditionIs('b.stock_condition', '0')} OR b.stock_condition = 'damaged')
       LEFT JOIN item i ON i.id = b.item_id
     WHERE p.site_id = ? AND p.kind IN ${COUNTABLE} AND ${where} ${ranked ? `AND p.id IN (${marks([0, ...ranked])})` : ''} ${except.length > 0 ? `AND p.code NOT IN (${marks(except)})` : ''}
     GROUP BY p.id, b.item_id, b.lot_id, b.stock_condition = 'damaged' ORDER BY p.walk_order, p.id, i.name, b.lot_id`,
    [asked.siteId, ...params, ...(ranked ? [0, ...ranked] : []), ...except],
  );
  if (asked.by !== 'plan') return found;
  const wanted = new Set((await due(tx, asked.siteId, asked.most)).map((d) => `${d.placeId}/${d.itemId}`));
  return found.filter((f) => wanted.has(`${f.placeId}/${f.itemId ?? ''}`));
}
