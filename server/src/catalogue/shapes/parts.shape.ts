import { cell, fault, skuColumn, textOf, tableShape } from '../../exchange/index.js';
import { mustNotCircle } from '../item-sets.js';
import { marks, Problem, rows } from '../../platform/index.js';

const item = (code: string) => `There is no item ${code}. Take items in first`;

/** The parts of kits and assemblies: one row a part. */
export const partsShape = tableShape({
  kind: 'parts',
  says: 'Parts of kits and assemblies',
  right: 'items',
  table: 'item_part',
  rowKey: ['item_id', 'part_item_id'],
  key: ['sku', 'part'],
  changeBy: 'item_id',
  joins: 'JOIN item i ON i.id = t.item_id JOIN item p ON p.id = t.part_item_id',
  order: 'i.sku, p.sku',
  columns: [
    {
      ...skuColumn('sku', 'Kit or assembly', ['kit', 'assembly', 'parent']),
      column: 'item_id',
      empty: null,
      ref: { table: 'item', by: 'sku', says: item },
      select: 'i.sku',
    },
    {
      ...skuColumn('part', 'Part', ['component', 'part sku']),
      column: 'part_item_id',
      empty: null,
      ref: { table: 'item', by: 'sku', says: item },
      select: 'p.sku',
    },
    {
      key: 'units',
      label: 'Units in one',
      also: ['units', 'quantity', 'qty'],
      required: true,
      column: 'units',
      empty: 1,
      read: cell.whole(1, 100_000),
    },
  ],
  check: async (tx, batch, ids) => {
    const kits = [...(ids.get('sku')?.values() ?? [])];
    const single = await rows<{ sku: string }>(tx, `SELECT sku FROM item WHERE kind = 'single' AND id IN (${marks(kits)})`, kits);
    const names = new Set(single.map((s) => s.sku));
    return batch.flatMap((r) => {
      const sku = textOf(r, 'sku');
      if (names.has(sku)) return [fault(r, 'sku', sku, `${sku} is neither kit nor assembly. Change its kind first`)];
      return sku === textOf(r, 'part') ? [fault(r, 'part', sku, 'An item cannot be a part of itself')] : [];
    });
  },
  after: async (tx, _act, batch, ids) => {
    const kits = [...new Set(batch.map((r) => ids.get('sku')?.get(textOf(r, 'sku')) ?? 0))];
    const parts = await rows<{ item_id: number; part_item_id: number }>(
      tx,
      `SELECT item_id, part_item_id FROM item_part WHERE item_id IN (${marks(kits)})`,
      kits,
    );
    await mustNotCircle(tx, new Map(kits.map((id) => [id, parts.filter((p) => p.item_id === id).map((p) => p.part_item_id)]))).catch(
      (thrown: unknown) => {
        throw thrown instanceof Problem ? new Problem(409, 'state', thrown.detail) : thrown;
      },
    );
  },
});
