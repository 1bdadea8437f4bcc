import { Injectable } from '@nestjs/common';
import { PAPER, task, Work } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import type { returnNotePdf } from './return-note.pdf.js';
import type { SupplierReturnDto } from './returns.dto.js';

const NOTE = task<typeof returnNotePdf>('returns/returnNotePdf', ...PAPER);

/** The paper that goes with goods that are sent back. */
@Injectable()
export class ReturnPapers {
  constructor(
    private readonly work: Work,
    private readonly settings: SettingsService,
  ) {}

  async note(sent: SupplierReturnDto): Promise<Buffer> {
    return this.work.run(NOTE, sent, await this.settings.letterhead());
  }
}
