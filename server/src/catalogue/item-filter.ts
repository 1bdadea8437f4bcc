import { ordersIn } from '@vectrum/core/orders';
import { likeAny, promisedSql, sqlList, wholeOf } from '../platform/index.js';

const PROMISABLE = sqlList(ordersIn('promisable'));

export const ITEM_STATES = ['all', 'short', 'reorder', 'backordered', 'incomplete', 'no-barcode'] as const;
export type ItemState = (typeof ITEM_STATES)[number];

/** What the list of items is narrowed to. */
export interface ItemFilter {
  search?: string;
  siteId?: number;
  className?: string;
  tag?: string;
  supplier?: string;
  state?: ItemState;
  /** An own field of the company's, and what it holds: the whole value, or a part of it. */
  own?: { field: string; value: string; whole: boolean };
}

/** A name that may stand in a JSON path. */
const FIELD_NAME = /^[^"\\]{1,40}$/;
/** Where an own field's value stands. */
export const ownPath = (field: string): string => `$."${field}"`;

const SORTS: Readonly<Record<string, readonly string[]>> = {
  class: ['i.class', 'i.name', 'i.id'],
  name: ['i.name', 'i.id'],
  sku: ['i.sku'],
  cost: ['i.cost', 'i.id'],
};

export interface Piece {
  sql: string;
  params: unknown[];
}

/** Reads the filter from a request's query; what it does not know is passed over. */
export function itemFilter(query: Record<string, unknown>): ItemFilter {
  const word = (key: string) => (typeof query[key] === 'string' ? query[key].trim().slice(0, 100) : '');
  const state = word('state') as ItemState;
  const siteId = wholeOf(query['site'], 0);
  const [field, is, has] = [word('own'), word('ownIs'), word('ownHas')];
  return {
    search: word('search'),
    className: word('className'),
    tag: word('tag'),
    supplier: word('supplier'),
    ...(siteId > 0 ? { siteId } : {}),
    ...(FIELD_NAME.test(field) && (is || has) ? { own: { field, value: is || has, whole: is !== '' } } : {}),
    state: ITEM_STATES.includes(state) ? state : 'all',
  };
}

/** The sites whose figures count: the one filtered by, where the person may see it, or all of theirs. */
export const sitesOf = (filter: ItemFilter, siteIds: readonly number[]): number[] =>
  filter.siteId ? siteIds.filter((s) => s === filter.siteId) : [...siteIds];

/** The conditions of a filter on `item i`, with AND between them. */
export function itemWhere(filter: ItemFilter, siteIds: readonly number[]): Piece {
  const sites = [0, ...sitesOf(filter, siteIds)];
  const all: Piece[] = [];
  const add = (sql: string, ...params: unknown[]) => all.push({ sql, params });
  for (const word of (filter.search ?? '').split(/\s+/).filter(Boolean).slice(0, 6)) {
    const like = likeAny(word);
    add('(i.name LIKE ? OR i.sku LIKE ? OR i.class LIKE ?)', like, like, like);
  }
  if (filter.className) add('i.class = ?', filter.className);
  if (filter.tag) add('EXISTS (SELECT 1 FROM item_tag t WHERE t.item_id = i.id AND t.tag = ?)', filter.tag);
  if (filter.supplier) {
    add('i.id IN (SELECT si.item_id FROM supplier_item si JOIN supplier s ON s.id = si.supplier_id WHERE s.code = ?)', filter.supplier);
  }
  if (filter.own) {
    const { field, value, whole } = filter.own;
    add(`JSON_VALUE(i.extra, ?) ${whole ? '=' : 'LIKE'} ?`, ownPath(field), whole ? value : likeAny(value));
  }
  if (filter.siteId) {
    add(
      '(EXISTS (SELECT 1 FROM site_stock x WHERE x.item_id = i.id AND x.site_id IN (?) AND x.on_hand > 0) OR EXISTS (SELECT 1 FROM item_site y WHERE y.item_id = i.id AND y.site_id IN (?)))',
      sites,
      sites,
    );
  }
  if (filter.state === 'incomplete') add('(i.lacks_barcode = 1 OR i.lacks_cost = 1 OR i.lacks_size = 1)');
  if (filter.state === 'no-barcode') add('i.lacks_barcode = 1');
  if (filter.state === 'short') {
    // No site is ever below nought, so that none is free in all where none is free at any.
    // What never had any stock lacks nothing: it is only listed.
    add('EXISTS (SELECT 1 FROM site_stock g WHERE g.item_id = i.id AND g.site_id IN (?))', sites);
    add('NOT EXISTS (SELECT 1 FROM site_stock f WHERE f.item_id = i.id AND f.site_id IN (?) AND f.on_hand > f.held + f.reserved)', sites);
  }
  if (filter.state === 'reorder') {
    // What is free at a site and what is on order for it, beside the point that somebody has set there.
    add(
      `EXISTS (SELECT 1 FROM item_site y LEFT JOIN site_stock f ON f.item_id = y.item_id AND f.site_id = y.site_id
        WHERE y.item_id = i.id AND y.site_id IN (?) AND y.reorder_point IS NOT NULL AND COALESCE(f.on_hand - f.held - f.reserved, 0)
          + COALESCE((SELECT SUM(l.open_units) FROM purchase_order_line l JOIN purchase_order o ON o.id = l.order_id
              WHERE l.item_id = y.item_id AND o.site_id = y.site_id AND o.state IN ('placed','part-received')), 0) <= y.reorder_point)`,
      sites,
    );
  }
  if (filter.state === 'backordered') {
    add(
      `i.id IN (SELECT l.item_id FROM sales_order_line l JOIN sales_order o ON o.id = l.order_id
        WHERE l.item_id IS NOT NULL AND ${promisedSql('l')} < l.units AND o.state IN ${PROMISABLE} AND o.site_id IN (?))`,
      sites,
    );
  }
  return { sql: all.length === 0 ? '1 = 1' : all.map((p) => p.sql).join(' AND '), params: all.flatMap((p) => p.params) };
}

/** Sorts that go by stock: the sum over an item's sites. */
export const STOCK_SORTS: Readonly<Record<string, string>> = {
  onHand: 'SUM(f.on_hand)',
  available: 'SUM(f.on_hand - f.held - f.reserved)',
};

/** A sort as a request names it, with `-` in front for the other way round. */
export function sortOf(sort: string | undefined): { key: string; down: boolean } {
  const down = sort?.startsWith('-') === true;
  return { key: (down ? sort?.slice(1) : sort) || 'class', down };
}

/** ORDER BY of a sort; class and name where it is not known, or where it would tell costs to somebody who may not see them. */
export function itemOrder(sort: string | undefined, seesCosts: boolean): string {
  const { key, down } = sortOf(sort);
  const known = Object.hasOwn(SORTS, key) && (key !== 'cost' || seesCosts);
  const columns = (known ? SORTS[key] : SORTS['class']) ?? [];
  return columns.map((c) => (down && known ? `${c} DESC` : c)).join(', ');
}

/** Whether a filter narrows by anything but its state. */
export const isNarrowed = (f: ItemFilter) => Boolean(f.search || f.className || f.tag || f.supplier || f.siteId || f.own);
