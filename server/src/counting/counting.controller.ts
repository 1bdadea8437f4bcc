import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, IdDto, IfMatch, mustBeAt, type Person, Reader } from '../platform/index.js';
import { Corrections } from './corrections.service.js';
import { CorrectedDto, CorrectStockDto, CountUnitsDto, SpotCountDto } from './counting.dto.js';
import { CountingQueries } from './counting.queries.js';
import { SpotCounts } from './spot-counts.service.js';
import { SpotDecisions } from './spot-decisions.service.js';

/** Bins that somebody has to count, and what the books say afterwards. */
@Controller('api')
export class CountingController {
  constructor(
    private readonly queries: CountingQueries,
    private readonly counts: SpotCounts,
    private readonly decisions: SpotDecisions,
    private readonly corrections: Corrections,
  ) {}

  @Get('sites/:siteId/spot-counts')
  @Access('store', 'count', 'settle-counts')
  list(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<SpotCountDto[]> {
    mustBeAt(person, siteId);
    return this.queries.list(siteId);
  }

  /** How many are there, where the number comes on paper or by word of mouth. */
  @Post('spot-counts/:id/count')
  @Access('count')
  @HttpCode(200)
  count(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: CountUnitsDto,
  ): Promise<IdDto> {
    return this.counts.countByHand(act, id, version, body.units);
  }

  /** The books follow what was counted. */
  @Post('spot-counts/:id/settle')
  @Access('settle-counts')
  @HttpCode(200)
  settle(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number): Promise<IdDto> {
    return this.decisions.settle(act, id, version);
  }

  /** Somebody else counts it again. */
  @Post('spot-counts/:id/again')
  @Access('settle-counts')
  @HttpCode(200)
  again(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number): Promise<IdDto> {
    return this.decisions.again(act, id, version);
  }

  /** The books are wrong about goods in a place, for a reason. */
  @Post('corrections')
  @Access('count')
  @HttpCode(200)
  correct(@Acting() act: Act, @Body() body: CorrectStockDto): Promise<CorrectedDto> {
    return this.corrections.correct(act, body);
  }
}
