import { Injectable } from '@nestjs/common';
import { PAPER, type Person, task, Work } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { CustomerReturnQueries } from './customer-returns.queries.js';
import type { returnSlipPdf } from './return-slip.pdf.js';

const SLIP = task<typeof returnSlipPdf>('customer-returns/returnSlipPdf', ...PAPER);

/** The paper that goes into the parcel of a customer who sends something back. */
@Injectable()
export class CustomerReturnPapers {
  constructor(
    private readonly work: Work,
    private readonly settings: SettingsService,
    private readonly queries: CustomerReturnQueries,
  ) {}

  async slip(person: Person, code: string): Promise<Buffer> {
    return this.work.run(SLIP, await this.queries.sheet(person, code), await this.settings.letterhead());
  }
}
