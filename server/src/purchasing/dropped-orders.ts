import { Injectable } from '@nestjs/common';
import type { Tx } from '../platform/index.js';

type Listener = (tx: Tx, orderId: number) => Promise<void>;

/** Tells whoever must know that nobody waits for an order any more, in the transaction in which that happens. */
@Injectable()
export class DroppedOrders {
  private readonly listeners: Listener[] = [];

  listen(listener: Listener): void {
    this.listeners.push(listener);
  }

  async tell(tx: Tx, orderId: number): Promise<void> {
    for (const listener of this.listeners) await listener(tx, orderId);
  }
}
