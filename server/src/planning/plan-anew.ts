import type { Tx } from '../platform/index.js';

/** What a rule or a mark is about: an item, a class or everything, at a site or at all. */
export interface About {
  item_id: number | null;
  class: string | null;
  site_id: number | null;
}

/** What a rule or a mark is about is planned anew. */
export async function planAnew(tx: Tx, of: About): Promise<void> {
  await tx.query(
    `UPDATE item_plan p JOIN item i ON i.id = p.item_id SET p.due_at = UTC_TIMESTAMP(3) WHERE ${[
      ...(of.site_id === null ? [] : ['p.site_id = ?']),
      ...(of.item_id === null ? [] : ['p.item_id = ?']),
      ...(of.class === null ? [] : ['i.class = ?']),
      '1 = 1',
    ].join(' AND ')}`,
    [of.site_id, of.item_id, of.class].filter((v) => v !== null),
  );
}
