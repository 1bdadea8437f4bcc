import { Injectable } from '@nestjs/common';
import { PAPER, task, Work } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import type { OrderDto } from './orders.dto.js';
import type { packingListPdf, packingListsPdf } from './packing-list.pdf.js';
import type { pricedPaperPdf } from './priced-paper.pdf.js';

const PACKING_LISTS = task<typeof packingListsPdf>('orders/packingListsPdf', ...PAPER);
const PRICED = task<typeof pricedPaperPdf>('orders/pricedPaperPdf', ...PAPER);
const PACKING_LIST = task<typeof packingListPdf>('orders/packingListPdf', ...PAPER);

/** The papers of a sales order. */
@Injectable()
export class OrderPapers {
  constructor(
    private readonly work: Work,
    private readonly settings: SettingsService,
  ) {}

  async packingList(order: OrderDto): Promise<Buffer> {
    return this.work.run(PACKING_LIST, order, await this.settings.letterhead());
  }

  /** The packing lists of several orders, as one paper. */
  async packingLists(orders: readonly OrderDto[]): Promise<Buffer> {
    return this.work.run(PACKING_LISTS, orders, await this.settings.letterhead());
  }

  /** The quote, or the confirmation of an order: goods with prices. */
  async priced(order: OrderDto): Promise<Buffer> {
    return this.work.run(PRICED, order, await this.settings.letterhead());
  }
}
