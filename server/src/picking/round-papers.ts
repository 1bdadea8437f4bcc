import { Injectable } from '@nestjs/common';
import { OrdersQueries } from '../orders/index.js';
import { badForm, type Person, PAPER, task, Work } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import type { roundPapersPdf } from './round-list.pdf.js';
import { RoundsQueries } from './rounds.queries.js';
import type { RoundSheetDto } from './sheet.dto.js';
import { SheetQueries } from './sheet.queries.js';

const PAPERS = task<typeof roundPapersPdf>('picking/roundPapersPdf', ...PAPER);
/** So many rounds in one print, and so many orders on them. */
const MOST_ROUNDS = 100;
const MOST_ORDERS = 400;

export const KINDS_OF_PAPER = ['lists', 'slips', 'labels'] as const;
export type KindOfPaper = (typeof KINDS_OF_PAPER)[number];

/** Rounds on paper: their lists, the packing lists of their orders, labels for their totes. */
@Injectable()
export class RoundPapers {
  constructor(
    private readonly work: Work,
    private readonly settings: SettingsService,
    private readonly sheets: SheetQueries,
    private readonly rounds: RoundsQueries,
    private readonly orders: OrdersQueries,
  ) {}

  /** Papers of the rounds named, or of all that wait at these sites where none is, the most urgent first. */
  async print(person: Person, siteIds: readonly number[], codes: readonly string[], kinds: readonly KindOfPaper[]): Promise<Buffer> {
    const wanted = codes.length > 0 ? codes : await this.waiting(person, siteIds);
    if (wanted.length > MOST_ROUNDS) throw badForm({ rounds: `${MOST_ROUNDS} rounds at most in one print. Print them in parts` });
    const sheets: RoundSheetDto[] = [];
    for (const code of wanted) sheets.push(await this.sheets.sheet(code.toUpperCase(), person.siteIds));
    const orders = [...new Set(sheets.flatMap((r) => r.orders.map((o) => o.code)))];
    if (orders.length > MOST_ORDERS) throw badForm({ rounds: `${MOST_ORDERS} orders at most in one print. Print them in parts` });
    if (sheets.length === 0) throw badForm({ rounds: 'No round waits. Send orders to picking first' });
    const slips = kinds.includes('slips') ? await Promise.all(orders.map((code) => this.orders.sheet(code, person.siteIds))) : [];
    return this.work.run(
      PAPERS,
      { rounds: sheets, lists: kinds.includes('lists'), slips, labels: kinds.includes('labels') },
      await this.settings.letterhead(),
    );
  }

  private async waiting(person: Person, siteIds: readonly number[]): Promise<string[]> {
    const { rows } = await this.rounds.list(siteIds, person.id, { from: 0, limit: MOST_ROUNDS });
    return rows.filter((r) => r.state === 'waiting').map((r) => r.code);
  }
}
