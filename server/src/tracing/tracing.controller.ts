import { Body, Controller, Get, Header, HttpCode, Post, Query } from '@nestjs/common';
import { ApiOkResponse, ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { type Act, Acting, IfMatch, type Person, Reader, textOf, wholeOf } from '../platform/index.js';
import { epcisOf } from './epcis.js';
import { ExpiringQueries } from './expiring.queries.js';
import { LotMends } from './lot-mends.service.js';
import { Recalls } from './recalls.service.js';
import { TraceQueries } from './trace.queries.js';
import {
  CorrectedLotDto,
  CorrectLotDto,
  ExpiringDto,
  HeldLotDto,
  HoldLotDto,
  TellOfRecallDto,
  ToldOfRecallDto,
  TraceDto,
  TraceFoundDto,
} from './tracing.dto.js';

const Sku = () => ApiQuery({ name: 'sku', required: true, type: String });
const Lot = () => ApiQuery({ name: 'lot', required: true, type: String });

/** Where lots and numbers came from, where they are and who got them; and what is held everywhere. */
@Controller('api/trace')
export class TracingController {
  constructor(
    private readonly queries: TraceQueries,
    private readonly recalls: Recalls,
    private readonly mends: LotMends,
    private readonly soon: ExpiringQueries,
  ) {}

  @Get('find')
  @Access('signed-in')
  @ApiQuery({ name: 'q', required: true, type: String })
  find(@Query('q') q: unknown): Promise<TraceFoundDto[]> {
    return this.queries.find(textOf(q, 60));
  }

  @Get()
  @Access('signed-in')
  @Sku()
  @Lot()
  trace(@Reader() person: Person, @Query('sku') sku: unknown, @Query('lot') lot: unknown): Promise<TraceDto> {
    return this.queries.trace(person, textOf(sku, 60), textOf(lot, 60));
  }

  /** What passes its date within some days, or has. */
  @Get('expiring')
  @Access('signed-in')
  @ApiQuery({ name: 'days', required: false, type: String })
  expiring(@Reader() person: Person, @Query('days') days?: unknown): Promise<ExpiringDto> {
    return this.soon.within(person, wholeOf(days, 90, 0, 3650));
  }

  /** Its code or its date was read wrongly. */
  @Post('correct')
  @Access('settle-counts')
  @HttpCode(200)
  @Sku()
  @Lot()
  correct(
    @Acting() act: Act,
    @Query('sku') sku: unknown,
    @Query('lot') lot: unknown,
    @Body() body: CorrectLotDto,
  ): Promise<CorrectedLotDto> {
    return this.mends.correct(act, textOf(sku, 60), textOf(lot, 60), body);
  }

  /** Its movements as an EPCIS 2.0 document. */
  @Get('epcis.json')
  @Access('signed-in')
  @Sku()
  @Lot()
  @Header('content-type', 'application/json')
  @ApiOkResponse({ content: { 'application/json': {} } })
  async epcis(@Reader() person: Person, @Query('sku') sku: unknown, @Query('lot') lot: unknown): Promise<object> {
    const facts = await this.queries.lot(textOf(sku, 60), textOf(lot, 60));
    return epcisOf(facts, await this.queries.movementsFor(person, facts), new Date());
  }

  /** All of it is held at once, wherever it lies. */
  @Post('hold')
  @Access('inspect', 'settle-counts')
  @HttpCode(200)
  @Sku()
  @Lot()
  hold(@Acting() act: Act, @Query('sku') sku: unknown, @Query('lot') lot: unknown, @Body() body: HoldLotDto): Promise<HeldLotDto> {
    return this.recalls.hold(act, textOf(sku, 60), textOf(lot, 60), body.reason);
  }

  @Post('free')
  @Access('settle-counts')
  @HttpCode(200)
  @Sku()
  @Lot()
  free(@Acting() act: Act, @IfMatch() version: number, @Query('sku') sku: unknown, @Query('lot') lot: unknown): Promise<HeldLotDto> {
    return this.recalls.free(act, textOf(sku, 60), textOf(lot, 60), version);
  }

  /** Those who have goods of it are written to. */
  @Post('tell')
  @Access('settle-counts', 'order-desk')
  @HttpCode(200)
  @Sku()
  @Lot()
  tell(
    @Acting() act: Act,
    @Query('sku') sku: unknown,
    @Query('lot') lot: unknown,
    @Body() body: TellOfRecallDto,
  ): Promise<ToldOfRecallDto> {
    return this.recalls.tell(act, textOf(sku, 60), textOf(lot, 60), body.orders);
  }
}
