import type { Rotation } from './choose-bins.js';

/** Goods of one lot in one bin of one site. Dates are ISO days. */
export interface StockRow {
  item: string;
  site: string;
  bin: string;
  lot: string;
  expires?: string | null;
  received?: string | null;
  units: number;
  /** Whether it lies where a picker may take it. */
  pickable: boolean;
}

export interface StockRule {
  rotation: Rotation;
  /** What expires within so many days is not given to anybody; null where anything will do. */
  minLifeDays: number | null;
}

export interface Demand {
  id: string;
  /** The higher is served first. */
  priority: number;
  /** Instants, in milliseconds. */
  due: number;
  placed: number;
  /** Where it may be sent from, the best first. */
  sites: readonly string[];
  /** All of it or nothing. */
  completeOnly: boolean;
  lines: readonly { line: number; item: string; units: number }[];
}

export interface Allocation {
  order: string;
  line: number;
  site: string;
  bin: string;
  lot: string;
  units: number;
}

export interface Allocated {
  allocations: Allocation[];
  /** What each line lacks, also where it lacks nothing; orders in the order in which they were served. */
  short: { order: string; line: number; units: number }[];
}

interface Row {
  row: StockRow;
  left: number;
}
/** What a site has of one rotation date. */
interface Heap {
  left: number;
  rows: Row[];
}
/** Everything of one item that rotates by one date, by site. */
interface DateHeap {
  date: string;
  sites: Map<string, Heap>;
}

const LAST = '9999-12-31';
const DAY_MS = 86_400_000;
const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);
const NO_RULE: StockRule = { rotation: 'fifo', minLifeDays: null };

/**
 * Gives stock to orders: higher priority first, then what is due first, then what was placed first, then by id; lines in their
 * order. Of what an order's sites have together, the earliest rotation date goes first. Among rows of one date the first site
 * that can fill the rest of the line alone, otherwise the sites in the order's own order; in a site the row that the need just
 * empties, then by bin and lot. The answer does not depend on the order of rows or orders. O(n log n) in orders and rows, plus the
 * rows that a line looks at.
 */
export function allocate(
  today: string,
  stock: readonly StockRow[],
  rules: ReadonlyMap<string, StockRule>,
  orders: readonly Demand[],
): Allocated {
  const shelves = heaped(today, stock, rules);
  const answer: Allocated = { allocations: [], short: [] };
  for (const order of [...orders].sort(inTurn)) {
    const taken: (Allocation & { from: Row; heap: Heap })[] = [];
    const lacks = order.lines.map((line) => ({ ...line, lacks: take(shelves.get(line.item) ?? [], order, line, taken) }));
    const refused = order.completeOnly && lacks.some((l) => l.lacks > 0);
    if (refused)
      for (const t of taken) {
        t.from.left += t.units;
        t.heap.left += t.units;
      }
    else answer.allocations.push(...taken.map(({ from: _from, heap: _heap, ...allocation }) => allocation));
    answer.short.push(...lacks.map((l) => ({ order: order.id, line: l.line, units: refused ? l.units : l.lacks })));
  }
  return answer;
}

const inTurn = (a: Demand, b: Demand) => b.priority - a.priority || a.due - b.due || a.placed - b.placed || compare(a.id, b.id);

/** What may be given out, by item and rotation date, each site's rows by bin and lot. */
function heaped(today: string, stock: readonly StockRow[], rules: ReadonlyMap<string, StockRule>): Map<string, DateHeap[]> {
  const items = new Map<string, Map<string, DateHeap>>();
  const now = Date.parse(today);
  for (const row of [...stock].sort(byPlace)) {
    const rule = rules.get(row.item) ?? NO_RULE;
    if (!row.pickable || row.units <= 0 || !livesFor(row, rule, now)) continue;
    const date = (rule.rotation === 'fefo' ? row.expires : row.received) ?? LAST;
    const dates = items.get(row.item) ?? new Map<string, DateHeap>();
    items.set(row.item, dates);
    const heap = dates.get(date) ?? { date, sites: new Map<string, Heap>() };
    dates.set(date, heap);
    const site = heap.sites.get(row.site) ?? { left: 0, rows: [] };
    heap.sites.set(row.site, site);
    site.left += row.units;
    site.rows.push({ row, left: row.units });
  }
  return new Map([...items].map(([item, dates]) => [item, [...dates.values()].sort((a, b) => compare(a.date, b.date))]));
}

/** Rows in an order of their own, whatever the order they came in. */
function byPlace(a: StockRow, b: StockRow): number {
  return (
    compare(a.bin, b.bin) ||
    compare(a.lot, b.lot) ||
    compare(a.expires ?? LAST, b.expires ?? LAST) ||
    compare(a.received ?? LAST, b.received ?? LAST) ||
    a.units - b.units
  );
}

function livesFor(row: StockRow, rule: StockRule, now: number): boolean {
  if (rule.minLifeDays === null || !row.expires) return true;
  return (Date.parse(row.expires) - now) / DAY_MS >= rule.minLifeDays;
}

/** Takes what a line may have and notes it; returns what it lacks. */
function take(
  dates: readonly DateHeap[],
  order: Demand,
  line: { line: number; units: number },
  taken: (Allocation & { from: Row; heap: Heap })[],
): number {
  let need = line.units;
  for (const { sites } of dates) {
    while (need > 0) {
      const having = order.sites.filter((site) => (sites.get(site)?.left ?? 0) > 0);
      const site = having.find((s) => (sites.get(s)?.left ?? 0) >= need) ?? having[0];
      const heap = site === undefined ? undefined : sites.get(site);
      if (site === undefined || !heap) break;
      const from = heap.rows.find((r) => r.left === need) ?? heap.rows.find((r) => r.left > 0);
      if (!from) break;
      const units = Math.min(from.left, need);
      from.left -= units;
      heap.left -= units;
      need -= units;
      taken.push({ order: order.id, line: line.line, site, bin: from.row.bin, lot: from.row.lot, units, from, heap });
    }
    if (need === 0) break;
  }
  return need;
}
