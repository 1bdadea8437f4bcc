import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query, StreamableFile } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, AtSites, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { LabelService } from './labels.service.js';
import { BenchPageDto, RatesDto, SendByDto, SingleLineDto, TypedNumberDto } from './packing.dto.js';
import { PackingQueries } from './packing.queries.js';
import { ParcelPapers } from './parcel-papers.service.js';
import { ParcelsService } from './parcels.service.js';

@Controller('api/bench')
export class PackingController {
  constructor(
    private readonly queries: PackingQueries,
    private readonly labels: LabelService,
    private readonly parcels: ParcelsService,
    private readonly papers: ParcelPapers,
  ) {}

  @Get('queue')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  @Windowed()
  queue(@AtSites() siteIds: readonly number[], @AskedWindow() window: Window): Promise<BenchPageDto> {
    return this.queries.queue(siteIds, window);
  }

  /** The order that leaves soonest of those at a table that want one item and nothing else. */
  @Get('single-line/:itemId')
  @Access('pack')
  @ApiQuery({ name: 'site', required: false, type: String })
  async singleLine(@AtSites() siteIds: readonly number[], @Param('itemId', ParseIntPipe) itemId: number): Promise<SingleLineDto> {
    return { order: await this.queries.singleLine(siteIds, itemId) };
  }

  /** Sends a parcel that waits for its label by another service: a carrier that will not have it is no end. */
  @Post('parcels/:code/service')
  @Access('pack')
  @HttpCode(204)
  sendBy(@Acting() act: Act, @Param('code') code: string, @Body() body: SendByDto): Promise<void> {
    return this.parcels.sendBy(act, code.toUpperCase(), body.service);
  }

  /** The number under which a carrier without a system of its own knows a parcel. */
  @Post('parcels/:code/number')
  @Access('pack')
  @HttpCode(204)
  number(@Acting() act: Act, @Param('code') code: string, @Body() body: TypedNumberDto): Promise<void> {
    return this.parcels.numbered(act, code.toUpperCase(), body.tracking);
  }

  /** What is in a parcel, as a paper to put into it. */
  @Get('parcels/:code/packing-list')
  @Access('signed-in')
  async packingList(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    return new StreamableFile(await this.papers.listFor(person, code.toUpperCase()), { type: 'application/pdf' });
  }

  /** Prints the label of a parcel once more. */
  @Post('parcels/:code/print')
  @Access('pack')
  @HttpCode(204)
  print(@Acting() act: Act, @Param('code') code: string): Promise<void> {
    return this.labels.printAgain(act, code.toUpperCase());
  }

  /** Services and prices of each carrier for a weighed parcel: the cheapest that keeps the promise first. */
  @Get('orders/:code/rates')
  @Access('pack')
  @ApiQuery({ name: 'box', required: false, type: String })
  rates(
    @Reader() person: Person,
    @Param('code') code: string,
    @Query('weight') weight: string,
    @Query('box') box?: unknown,
  ): Promise<RatesDto> {
    return this.labels.rates(person, code.toUpperCase(), Number(weight), typeof box === 'string' ? box : null);
  }
}
