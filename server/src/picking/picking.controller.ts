import { Body, Controller, Get, HttpCode, Param, Post, StreamableFile } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { ReleasedDto } from '../orders/index.js';
import { type Act, Acting, AskedWindow, AtSites, CodeDto, IfMatch, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { RoundPageDto } from './picking.dto.js';
import { RecallService } from './recall.service.js';
import { ReleaseService } from './release.service.js';
import { ResultsService } from './results.service.js';
import { RoundPapers } from './round-papers.js';
import { PaperResultsDto, RoundSheetDto } from './sheet.dto.js';
import { SheetQueries } from './sheet.queries.js';
import { RoundsQueries } from './rounds.queries.js';

/** So many lists in one print, the most urgent first. */
const MOST_LISTS = 100;

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

  /** The round on paper, with barcodes and room for what was taken. */
  @Get('rounds/:code/list')
  @Access('signed-in')
  async paper(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    const round = await this.sheets.sheet(code.toUpperCase(), person.siteIds);
    return new StreamableFile(await this.papers.lists([round]), {
      type: 'application/pdf',
      disposition: `inline; filename="${round.code}.pdf"`,
    });
  }

  /** Enters what was written on the paper list. */
  @Post('rounds/:code/results')
  @Access('pick')
  @HttpCode(200)
  enter(@Acting() act: Act, @Param('code') code: string, @Body() body: PaperResultsDto): Promise<CodeDto> {
    return this.results.enter(act, code.toUpperCase(), body);
  }

  /** All rounds that wait, as one print. */
  @Get('rounds-lists')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  async allLists(@Reader() person: Person, @AtSites() siteIds: readonly number[]): Promise<StreamableFile> {
    const { rows } = await this.queries.list(siteIds, person.id, { from: 0, limit: MOST_LISTS });
    const rounds = await Promise.all(rows.filter((r) => r.state === 'waiting').map((r) => this.sheets.sheet(r.code, person.siteIds)));
    return new StreamableFile(await this.papers.lists(rounds), { type: 'application/pdf', disposition: 'inline; filename="rounds.pdf"' });
  }

  @Get('rounds')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  @Windowed()
  list(@Reader() person: Person, @AtSites() siteIds: readonly number[], @AskedWindow() window: Window): Promise<RoundPageDto> {
    return this.queries.list(siteIds, person.id, window);
  }
}
