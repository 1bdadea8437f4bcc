import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, AtSites, CodeDto, dayOf, IdDto, IfMatch, type Person, Reader, textOf, type Window, Windowed } from '../platform/index.js'; // prettier-ignore
import { type AccuracyBy, AccuracyQueries } from './accuracy.queries.js';
import { CountRuleDto, KeepCountRuleDto, TriedRuleDto } from './count-rules.dto.js';
import { CountRules } from './count-rules.service.js';
import { AccuracyDto, CountChoicesDto, CountDto, CountPageDto, DiscardLinesDto, DrawnDto, DrawUpDto, DropCountDto, EndCountDto, GiveBinDto, LinesDto, PassingDto, ReviewDto, SettleCodeDto, SettledLinesDto, ShareCountDto } from './counts.dto.js'; // prettier-ignore
import { CountsQueries } from './counts.queries.js';
import { Counts } from './counts.service.js';
import { CountOnPassing } from './passing.service.js';
import { REVIEW_SHOWS, ReviewQueries, type ReviewShows } from './review.queries.js';
import { ReviewMends } from './review-mends.service.js';
import { Reviews } from './review.service.js';
import { OpenTallyDto } from './tally.dto.js';

const BY: readonly AccuracyBy[] = ['zone', 'class', 'person'];

/** Counts of many bins: drawn up, counted on phones, decided on. */
@Controller('api')
export class CountsController {
  constructor(
    private readonly queries: CountsQueries,
    private readonly reviews: ReviewQueries,
    private readonly accuracies: AccuracyQueries,
    private readonly counts: Counts,
    private readonly deciding: Reviews,
    private readonly rules: CountRules,
    private readonly mends: ReviewMends,
    private readonly onPassing: CountOnPassing,
  ) {}

  @Get('counts')
  @Access('count', 'settle-counts')
  @ApiQuery({ name: 'q', required: false, type: String })
  @ApiQuery({ name: 'state', required: false, enum: ['open', 'all'] })
  @ApiQuery({ name: 'site', required: false, type: String })
  @Windowed()
  list(
    @AtSites() siteIds: readonly number[],
    @AskedWindow() window: Window,
    @Query('q') q?: unknown,
    @Query('state') state?: unknown,
  ): Promise<CountPageDto> {
    return this.queries.list(siteIds, { q: textOf(q, 60), all: state === 'all' }, window);
  }

  /** How right counts have found the books. */
  @Get('counts/accuracy')
  @Access('settle-counts')
  @ApiQuery({ name: 'by', required: false, enum: BY })
  @ApiQuery({ name: 'from', required: false, type: String })
  @ApiQuery({ name: 'to', required: false, type: String })
  @ApiQuery({ name: 'site', required: false, type: String })
  accuracy(@Reader() person: Person, @AtSites() siteIds: readonly number[], @Query() query: Record<string, unknown>): Promise<AccuracyDto> {
    const by = BY.find((b) => b === query['by']) ?? 'zone';
    return this.accuracies.read(person, siteIds, by, dayOf(query, 'from'), dayOf(query, 'to'));
  }

  /** What would be counted, without drawing it up. */
  @Post('counts/preview')
  @Access('settle-counts')
  @HttpCode(200)
  preview(@Acting() act: Act, @Body() body: DrawUpDto): Promise<DrawnDto> {
    return this.counts.preview(act.person, body);
  }

  @Post('counts')
  @Access('settle-counts')
  drawUp(@Acting() act: Act, @Body() body: DrawUpDto): Promise<CodeDto> {
    return this.counts.drawUp(act, body);
  }

  /** What is due to be counted in a bin that somebody stands at. */
  @Get('places/:code/passing')
  @Access('count')
  passing(@Reader() person: Person, @Param('code') code: string): Promise<PassingDto> {
    return this.onPassing.at(person, code);
  }

  /** Opens a count of that bin. */
  @Post('places/:code/passing')
  @Access('count')
  beginPassing(@Acting() act: Act, @Param('code') code: string): Promise<CodeDto> {
    return this.onPassing.begin(act, code);
  }

  @Get('counts/:code')
  @Access('count', 'settle-counts')
  one(@Reader() person: Person, @Param('code') code: string): Promise<CountDto> {
    return this.queries.one(person, code);
  }

  /** The lines as whoever decides sees them. */
  @Get('counts/:code/review')
  @Access('settle-counts')
  @ApiQuery({ name: 'shows', required: false, enum: REVIEW_SHOWS })
  @Windowed()
  review(
    @Reader() person: Person,
    @Param('code') code: string,
    @AskedWindow() window: Window,
    @Query('shows') shows?: unknown,
  ): Promise<ReviewDto> {
    return this.reviews.review(person, code, REVIEW_SHOWS.find((s): s is ReviewShows => s === shows) ?? 'off', window);
  }

  @Post('counts/:code/open')
  @Access('settle-counts')
  @HttpCode(200)
  open(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<CodeDto> {
    return this.counts.open(act, code, version);
  }

  @Post('counts/:code/share')
  @Access('settle-counts')
  @HttpCode(200)
  share(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: ShareCountDto): Promise<CodeDto> {
    return this.counts.share(act, code, version, body.personIds);
  }

  @Put('counts/:code/bins/:placeId')
  @Access('settle-counts')
  give(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('code') code: string,
    @Param('placeId', ParseIntPipe) placeId: number,
    @Body() body: GiveBinDto,
  ): Promise<CodeDto> {
    return this.counts.give(act, code, version, placeId, body.personId);
  }

  @Delete('counts/:code/bins/:placeId')
  @Access('settle-counts')
  leaveOut(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('code') code: string,
    @Param('placeId', ParseIntPipe) placeId: number,
  ): Promise<CodeDto> {
    return this.counts.leaveOut(act, code, version, placeId);
  }

  /** Counting is over; what was found is decided on. */
  @Post('counts/:code/close')
  @Access('settle-counts')
  @HttpCode(200)
  close(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EndCountDto): Promise<CodeDto> {
    return this.deciding.close(act, code, version, body.leaveOut);
  }

  @Post('counts/:code/drop')
  @Access('settle-counts')
  @HttpCode(200)
  drop(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: DropCountDto): Promise<CodeDto> {
    return this.counts.drop(act, code, version, body.reason);
  }

  /** The books follow these lines, or all within tolerance. */
  @Post('counts/:code/accept')
  @Access('settle-counts')
  @HttpCode(200)
  accept(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: LinesDto): Promise<SettledLinesDto> {
    return this.deciding.accept(act, code, version, body.lineIds);
  }

  @Post('counts/:code/again')
  @Access('settle-counts')
  @HttpCode(200)
  again(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: LinesDto): Promise<SettledLinesDto> {
    return this.deciding.again(act, code, version, body.lineIds);
  }

  @Post('counts/:code/discard')
  @Access('settle-counts')
  @HttpCode(200)
  discard(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('code') code: string,
    @Body() body: DiscardLinesDto,
  ): Promise<SettledLinesDto> {
    return this.deciding.discard(act, code, version, body.lineIds, body.reason);
  }

  /** The goods lay in the wrong bin: the move that puts a line right is booked. */
  @Post('counts/:code/lines/:id/move')
  @Access('settle-counts')
  @HttpCode(200)
  move(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('code') code: string,
    @Param('id', ParseIntPipe) id: number,
  ): Promise<SettledLinesDto> {
    return this.mends.move(act, code, version, id);
  }

  @Post('counts/:code/codes/:id')
  @Access('settle-counts')
  @HttpCode(200)
  code(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('code') code: string,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: SettleCodeDto,
  ): Promise<CodeDto> {
    return this.mends.settleCode(act, code, version, id, body);
  }

  /** What counts can be drawn up of, and who may count. */
  @Get('sites/:siteId/count-choices')
  @Access('settle-counts')
  choices(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<CountChoicesDto> {
    return this.queries.choices(person, siteId);
  }

  /** The counts that whoever asks can count bins of now. */
  @Get('sites/:siteId/open-counts')
  @Access('count')
  openFor(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<OpenTallyDto[]> {
    return this.queries.openFor(person, siteId);
  }

  @Get('count-rules')
  @Access('settle-counts')
  ruleList(): Promise<CountRuleDto[]> {
    return this.rules.list();
  }

  @Post('count-rules')
  @Access('settle-counts')
  addRule(@Acting() act: Act, @Body() body: KeepCountRuleDto): Promise<IdDto> {
    return this.rules.keep(act, body);
  }

  /** What a rule would have said of counts that are over. */
  @Post('count-rules/try')
  @Access('settle-counts')
  @HttpCode(200)
  tryRule(@Body() body: KeepCountRuleDto): Promise<TriedRuleDto> {
    return this.rules.tried(body);
  }

  @Put('count-rules/:id')
  @Access('settle-counts')
  changeRule(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: KeepCountRuleDto,
  ): Promise<IdDto> {
    return this.rules.keep(act, body, { id, version });
  }

  @Delete('count-rules/:id')
  @Access('settle-counts')
  dropRule(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number): Promise<IdDto> {
    return this.rules.drop(act, id, version);
  }
}
