import { findCycle } from '@vectrum/core/catalogue';
import { type Act, badForm, find, insertMany, mustBeAt, remove, rows, type Tx, update } from '../platform/index.js';
import { type ItemKind } from './kinds.js';
import type { EditItemPartDto, EditItemSiteDto } from './items.dto.js';

/** A row that says nothing of an item at a site is none. */
const NOTHING_SAID = {
  home_place_id: null,
  cost: null,
  reorder_point: null,
  order_up_to: null,
  refill_below: null,
  refill_up_to: null,
} as const;

/** Tags are kept in lower case, each once. */
export const tidyTags = (tags: readonly string[]) => [...new Set(tags.map((t) => t.trim().toLowerCase()).filter(Boolean))];

export async function writeTags(tx: Tx, itemId: number, tags: readonly string[]): Promise<void> {
  await remove(tx, 'item_tag', { item_id: itemId });
  await insertMany(
    tx,
    'item_tag',
    ['item_id', 'tag'],
    tidyTags(tags).map((t) => [itemId, t]),
  );
}

/** The bin that a code names at a site; refuses one that is not there. */
export async function homeAt(tx: Tx, siteId: number, code: string): Promise<number> {
  const place = (
    await rows<{ id: number }>(tx, 'SELECT id FROM place WHERE code = ? AND site_id = ?', [code.trim().toUpperCase(), siteId])
  )[0];
  if (!place) throw badForm({ home: `There is no place ${code} at that site. Type the code of a bin` });
  return place.id;
}

/** What an item is at each site: its home, its cost there, when to buy. Costs stay as they are for those who may not see them. */
export async function writeSites(tx: Tx, act: Act, itemId: number, sites: readonly EditItemSiteDto[]): Promise<void> {
  for (const s of sites) {
    mustBeAt(act.person, s.siteId);
    const [low, high] = [s.reorderPoint ?? null, s.orderUpTo ?? null];
    if (low !== null && high !== null && high < low) throw badForm({ orderUpTo: 'Order up to at least the reorder point' });
    const [below, upTo] = [s.refillBelow ?? null, s.refillUpTo ?? null];
    if (below !== null && upTo !== null && upTo < below) throw badForm({ refillUpTo: 'Fill up to at least what it is refilled below' });
    const home = s.home ? await homeAt(tx, s.siteId, s.home) : null;
    await tx.query(
      `INSERT INTO item_site (item_id, site_id, home_place_id, reorder_point, order_up_to, refill_below, refill_up_to) VALUES (?, ?, ?, ?, ?, ?, ?)
       ON DUPLICATE KEY UPDATE home_place_id = VALUES(home_place_id), reorder_point = VALUES(reorder_point), order_up_to = VALUES(order_up_to),
         refill_below = VALUES(refill_below), refill_up_to = VALUES(refill_up_to)`,
      [itemId, s.siteId, home, low, high, below, upTo],
    );
    if (act.person.seesCosts && s.cost !== undefined) {
      await update(tx, 'item_site', { item_id: itemId, site_id: s.siteId }, { cost: s.cost });
    }
  }
  await remove(tx, 'item_site', { item_id: itemId, ...NOTHING_SAID });
}

/** Replaces an item's parts. Refuses a part that is not known, and a list that leads back to the item. */
export async function writeParts(tx: Tx, itemId: number, kind: ItemKind, parts: readonly EditItemPartDto[]): Promise<void> {
  if (kind === 'single' && parts.length > 0) throw badForm({ parts: 'Only kits and assemblies have parts. Say which of them it is' });
  if (kind !== 'single' && parts.length === 0) throw badForm({ parts: 'Name at least one part' });
  const wanted = new Map<number, number>();
  for (const part of parts) {
    const item = await find(tx, 'item', { sku: part.sku.toUpperCase() });
    if (!item) throw badForm({ parts: `There is no item ${part.sku}. Make the part first` });
    if (wanted.has(item.id)) throw badForm({ parts: `${item.sku} stands on the list twice. Write it once, with all of its units` });
    wanted.set(item.id, part.units);
  }
  await mustNotCircle(tx, new Map([[itemId, [...wanted.keys()]]]));
  await remove(tx, 'item_part', { item_id: itemId });
  await insertMany(
    tx,
    'item_part',
    ['item_id', 'part_item_id', 'units'],
    [...wanted].map(([id, units]) => [itemId, id, units]),
  );
}

/** Refuses parts lists, as they will be with `changed`, that lead from an item back to itself. */
export async function mustNotCircle(tx: Tx, changed: ReadonlyMap<number, readonly number[]>): Promise<void> {
  const list = await rows<{ item_id: number; part_item_id: number }>(tx, 'SELECT item_id, part_item_id FROM item_part FOR UPDATE');
  const parts = new Map<number, readonly number[]>();
  for (const p of list) parts.set(p.item_id, [...(parts.get(p.item_id) ?? []), p.part_item_id]);
  for (const [id, of] of changed) parts.set(id, of);
  for (const id of changed.keys()) {
    const way = findCycle(id, (i) => parts.get(i) ?? []);
    if (!way) continue;
    const names = await rows<{ id: number; sku: string }>(tx, 'SELECT id, sku FROM item WHERE id IN (?)', [way]);
    const named = way.map((i) => names.find((n) => n.id === i)?.sku ?? 'this item');
    throw badForm({ parts: `An item cannot be a part of itself: ${named.join(' holds ')}` });
  }
}
