import { Injectable } from '@nestjs/common';
import { PAPER, task, Work } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import type { OrderDto } from './orders.dto.js';
import type { packingListPdf } from './packing-list.pdf.js';

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
}
