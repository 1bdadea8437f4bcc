import { num, rows, type Tx } from '../platform/index.js';
import type { NewLine } from './order-writer.js';

/** A part of a kit: what a picker takes, and how many for one kit. */
export interface KitPart {
  itemId: number;
  sku: string;
  units: number;
}

/** How deep a kit may hold kits. */
const DEEPEST = 5;

/** The parts of those items that are kits, down to what is no kit itself. Items that are none are left out. */
export async function partsOf(tx: Pick<Tx, 'query'>, itemIds: readonly number[]): Promise<Map<number, KitPart[]>> {
  const kits = new Map<number, KitPart[]>();
  let open = [...new Set(itemIds)];
  const direct = new Map<number, KitPart[]>();
  for (let depth = 0; open.length > 0 && depth < DEEPEST; depth++) {
    const found = await rows<KitPart & { kit: number }>(
      tx,
      `SELECT p.item_id AS kit, p.part_item_id AS itemId, i.sku, p.units FROM item k JOIN item_part p ON p.item_id = k.id JOIN item i ON i.id = p.part_item_id WHERE k.id IN (?) AND k.kind = 'kit' ORDER BY p.item_id, i.sku`,
      [open],
    );
    for (const { kit, ...part } of found) direct.set(kit, [...(direct.get(kit) ?? []), { ...part, units: num(part.units) }]);
    open = [...new Set(found.map((f) => f.itemId))].filter((id) => !direct.has(id));
  }
  for (const id of new Set(itemIds)) if (direct.has(id)) kits.set(id, leaves(direct, id, 1, 0));
  return kits;
}

function leaves(direct: ReadonlyMap<number, readonly KitPart[]>, kit: number, times: number, depth: number): KitPart[] {
  const all = new Map<number, KitPart>();
  for (const part of direct.get(kit) ?? []) {
    const units = part.units * times;
    const within = direct.has(part.itemId) && depth < DEEPEST ? leaves(direct, part.itemId, units, depth + 1) : [{ ...part, units }];
    for (const leaf of within) all.set(leaf.itemId, { ...leaf, units: leaf.units + (all.get(leaf.itemId)?.units ?? 0) });
  }
  return [...all.values()];
}

/** The lines of so many kits' parts; what they cost is in the kit. */
export const partLines = (parts: readonly KitPart[], kits: number): NewLine[] =>
  parts.map((p) => ({ channelSku: p.sku, itemId: p.itemId, quantity: p.units * kits, factor: 1, price: '0' }));
