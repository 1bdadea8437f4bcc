import { Injectable, type OnModuleInit } from '@nestjs/common';
import { PAPER, type Person, task, Work } from '../platform/index.js';
import { Papers } from '../printing/index.js';
import { SettingsService } from '../settings/index.js';
import { CustomerReturnQueries } from './customer-returns.queries.js';
import type { returnSlipPdf } from './return-slip.pdf.js';

const SLIP = task<typeof returnSlipPdf>('customer-returns/returnSlipPdf', ...PAPER);

/** The paper that goes into the parcel of a customer who sends something back. */
@Injectable()
export class CustomerReturnPapers implements OnModuleInit {
  constructor(
    private readonly work: Work,
    private readonly settings: SettingsService,
    private readonly queries: CustomerReturnQueries,
    private readonly printable: Papers,
  ) {}

  onModuleInit(): void {
    this.printable.register('return-slip', 'Paper of return', (person, code) => this.slip(person, code));
  }

  async slip(person: Person, code: string): Promise<Buffer> {
    return this.work.run(SLIP, await this.queries.sheet(person, code), await this.settings.letterhead());
  }
}
