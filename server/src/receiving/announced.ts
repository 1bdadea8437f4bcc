import { Injectable } from '@nestjs/common';
import type { Tx } from '../platform/index.js';
import { DroppedOrders } from '../purchasing/index.js';

/** What was announced for an order that nobody waits for any more is not expected either, unless it brings goods of others. */
async function dropAnnounced(tx: Tx, orderId: number): Promise<void> {
  await tx.query(
    `UPDATE arrival a JOIN arrival_order x ON x.arrival_id = a.id SET a.state = 'closed', a.closed_at = UTC_TIMESTAMP(3), a.version = a.version + 1
     WHERE x.order_id = ? AND a.state = 'announced'
       AND NOT EXISTS (SELECT 1 FROM arrival_order y JOIN purchase_order o ON o.id = y.order_id WHERE y.arrival_id = a.id AND o.state IN ('placed','part-received'))`,
    [orderId],
  );
}

/** Listens for orders that nobody waits for any more. */
@Injectable()
export class Announced {
  constructor(dropped: DroppedOrders) {
    dropped.listen(dropAnnounced);
  }
}
