import { Injectable } from '@nestjs/common';
import { PAPER, task, Work } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import type { transferNotePdf } from './transfer-note.pdf.js';
import type { TransferDto } from './transfers.dto.js';

const NOTE = task<typeof transferNotePdf>('transfers/transferNotePdf', ...PAPER);

/** Draws the papers of transfers. */
@Injectable()
export class TransferPapers {
  constructor(
    private readonly work: Work,
    private readonly settings: SettingsService,
  ) {}

  async note(transfer: TransferDto): Promise<Buffer> {
    return this.work.run(NOTE, transfer, await this.settings.letterhead());
  }
}
