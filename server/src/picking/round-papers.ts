import { Injectable } from '@nestjs/common';
import { PAPER, task, Work } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import type { roundListsPdf } from './round-list.pdf.js';
import type { RoundSheetDto } from './sheet.dto.js';

const LISTS = task<typeof roundListsPdf>('picking/roundListsPdf', ...PAPER);

/** Rounds on paper. */
@Injectable()
export class RoundPapers {
  constructor(
    private readonly work: Work,
    private readonly settings: SettingsService,
  ) {}

  async lists(rounds: readonly RoundSheetDto[]): Promise<Buffer> {
    return this.work.run(LISTS, rounds, await this.settings.letterhead());
  }
}
