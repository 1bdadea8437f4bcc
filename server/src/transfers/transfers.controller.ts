import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query, StreamableFile } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
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
  wholeOf,
} from '../platform/index.js';
import {
  NeededDto,
  OpenTransferDto,
  RequestTransferDto,
  SendTransferDto,
  SettleMissingDto,
  TransferDto,
  TransferPageDto,
} from './transfers.dto.js';
import { TransferPapers } from './transfer-papers.js';
import { TransfersQueries } from './transfers.queries.js';
import { Transfers } from './transfers.service.js';

/** Goods between sites. */
@Controller('api/transfers')
export class TransfersController {
  constructor(
    private readonly queries: TransfersQueries,
    private readonly transfers: Transfers,
    private readonly papers: TransferPapers,
  ) {}

  @Get()
  @Access('signed-in')
  @ApiQuery({ name: 'q', required: false, type: String })
  @ApiQuery({ name: 'state', required: false, enum: ['open', 'all'] })
  @ApiQuery({ name: 'site', required: false, type: String })
  @Windowed()
  list(
    @AtSites() siteIds: readonly number[],
    @AskedWindow() window: Window,
    @Query('q') q?: unknown,
    @Query('state') state?: unknown,
  ): Promise<TransferPageDto> {
    return this.queries.list(siteIds, { q: textOf(q, 60), all: state === 'all' }, window);
  }

  /** What the orders of one site wait for and another has free. */
  @Get('needed')
  @Access('buy', 'order-desk', 'store')
  @ApiQuery({ name: 'from', required: true, type: String })
  @ApiQuery({ name: 'to', required: true, type: String })
  needed(@Reader() person: Person, @Query('from') from: unknown, @Query('to') to: unknown): Promise<NeededDto[]> {
    return this.queries.needed(person, wholeOf(from, 0), wholeOf(to, 0));
  }

  /** What a phone can do at a site: gather what goes, take in what comes. */
  @Get('open/:siteId')
  @Access('store', 'receive')
  openAt(@Reader() person: Person, @Param('siteId', ParseIntPipe) siteId: number): Promise<OpenTransferDto[]> {
    return this.queries.openAt(person, siteId);
  }

  @Get(':code')
  @Access('signed-in')
  one(@Reader() person: Person, @Param('code') code: string): Promise<TransferDto> {
    return this.queries.sheet(person, code);
  }

  /** The paper that goes with the goods. */
  @Get(':code/pdf')
  @Access('signed-in')
  async pdf(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    const transfer = await this.queries.sheet(person, code);
    return new StreamableFile(await this.papers.note(transfer), {
      type: 'application/pdf',
      disposition: `inline; filename="${transfer.code}.pdf"`,
    });
  }

  @Post()
  @Access('buy', 'order-desk', 'store')
  request(@Acting() act: Act, @Body() body: RequestTransferDto): Promise<CodeDto> {
    return this.transfers.request(act, body);
  }

  @Post(':code/send')
  @Access('store')
  @HttpCode(200)
  send(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: SendTransferDto): Promise<CodeDto> {
    return this.transfers.sendByDesk(act, code, version, body);
  }

  @Post(':code/cancel')
  @Access('buy', 'order-desk', 'store')
  @HttpCode(200)
  cancel(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<CodeDto> {
    return this.transfers.cancel(act, code, version);
  }

  /** What was sent and did not come is settled. */
  @Post(':code/settle')
  @Access('settle-counts')
  @HttpCode(200)
  settle(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: SettleMissingDto): Promise<CodeDto> {
    return this.transfers.settle(act, code, version, body);
  }
}
