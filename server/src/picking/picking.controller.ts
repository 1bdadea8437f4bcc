import { Body, Controller, Get, HttpCode, Param, Post, Query, StreamableFile } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { ReleasedDto } from '../orders/index.js';
import {
  type Act,
  Acting,
  AskedWindow,
  AtSites,
  CodeDto,
  IfMatch,
  type Person,
  Reader,
  textOf,
  type Window,
  Windowed,
} from '../platform/index.js';
import { RoundPageDto } from './picking.dto.js';
import { RecallService } from './recall.service.js';
import { ReleaseService } from './release.service.js';
import { ResultsService } from './results.service.js';
import { type KindOfPaper, KINDS_OF_PAPER, RoundPapers } from './round-papers.js';
import { PaperResultsDto, RoundSheetDto } from './sheet.dto.js';
import { SheetQueries } from './sheet.queries.js';
import { RoundsQueries } from './rounds.queries.js';

/** Words of an address that stand with commas between them. */
const wordsOf = (given: unknown): string[] => textOf(given, MOST_LETTERS).split(',').filter(Boolean);
const MOST_LETTERS = 2_000;

@Controller('api')
export class PickingController {
  constructor(
    private readonly queries: RoundsQueries,
    private readonly releases: ReleaseService,
    private readonly recalls: RecallService,
    private readonly sheets: SheetQueries,
    private readonly papers: RoundPapers,
    private readonly results: ResultsService,
  ) {}

  @Post('orders/:code/release')
  @Access('release')
  @HttpCode(200)
  release(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<ReleasedDto> {
    return this.releases.release(act, code.toUpperCase(), version);
  }

  /** Takes an order back from picking, as long as nothing of it is picked. */
  @Post('orders/:code/recall')
  @Access('release')
  @HttpCode(200)
  recall(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<CodeDto> {
    return this.recalls.recall(act, code.toUpperCase(), version);
  }

  /** One round: who walks it, its orders with their totes, its stops in the order of the walk. */
  @Get('rounds/:code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<RoundSheetDto> {
    return this.sheets.sheet(code.toUpperCase(), person.siteIds);
  }

  /** Enters what was written on the paper list. */
  @Post('rounds/:code/results')
  @Access('pick')
  @HttpCode(200)
  enter(@Acting() act: Act, @Param('code') code: string, @Body() body: PaperResultsDto): Promise<CodeDto> {
    return this.results.enter(act, code.toUpperCase(), body);
  }

  /**
   * Rounds as one print: their lists (barcodes, and room for what was taken), the packing lists of their orders (slips), and labels for
   * their totes. Without rounds, of all that wait.
   */
  @Get('rounds-papers')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  @ApiQuery({ name: 'rounds', required: false, type: String })
  @ApiQuery({ name: 'papers', required: false, type: String })
  async print(
    @Reader() person: Person,
    @AtSites() siteIds: readonly number[],
    @Query('rounds') rounds?: unknown,
    @Query('papers') papers?: unknown,
  ): Promise<StreamableFile> {
    const kinds = wordsOf(papers).filter((word): word is KindOfPaper => (KINDS_OF_PAPER as readonly string[]).includes(word));
    const pdf = await this.papers.print(person, siteIds, wordsOf(rounds), kinds.length > 0 ? kinds : ['lists']);
    return new StreamableFile(pdf, { type: 'application/pdf', disposition: 'inline; filename="rounds.pdf"' });
  }

  @Get('rounds')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  @Windowed()
  list(@Reader() person: Person, @AtSites() siteIds: readonly number[], @AskedWindow() window: Window): Promise<RoundPageDto> {
    return this.queries.list(siteIds, person.id, window);
  }
}
