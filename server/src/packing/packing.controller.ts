import { Body, Controller, Get, HttpCode, Param, Post, Query } from '@nestjs/common';
import { ApiOkResponse } from '@nestjs/swagger';
import type { Bundle, PackTask } from '@vectrum/core/scan';
import { DataSource } from 'typeorm';
import { LabelService } from './label.service.js';
import { Access } from '../identity/access.js';
import { type Act, Acting, mustBeAt, type Person, Reader } from '../platform/act.js';
import { PostedDto } from '../receiving/receiving.dto.js';
import { BenchDto, BenchRowDto, LabelDto, ProveDto, RatesDto } from './packing.dto.js';
import { PackingQueries } from './packing.queries.js';
import { PackingService } from './packing.service.js';

@Controller('api/bench')
export class PackingController {
  constructor(
    private readonly source: DataSource,
    private readonly queries: PackingQueries,
    private readonly packing: PackingService,
    private readonly labels: LabelService,
  ) {}

  @Get('queue')
  @Access('signed-in')
  queue(@Reader() person: Person): Promise<BenchRowDto[]> {
    return this.queries.queue(person.siteIds);
  }

  /** The order behind a scanned docket, order number, tote or parcel. */
  @Get('orders/:code')
  @Access('pack')
  async bench(@Reader() person: Person, @Param('code') code: string): Promise<BenchDto> {
    const order = await this.queries.orderOf(this.source, code.toUpperCase());
    mustBeAt(person, order.site_id);
    return this.queries.bench(order);
  }

  @Get('orders/:code/task')
  @Access('pack')
  @ApiOkResponse({ schema: { type: 'object' } })
  async task(@Reader() person: Person, @Param('code') code: string): Promise<PackTask & Bundle> {
    const { siteId, ...task } = await this.queries.bundle(code.toUpperCase());
    mustBeAt(person, siteId);
    return task;
  }

  @Post('orders/:code/packs')
  @Access('pack')
  @HttpCode(200)
  pack(@Acting() act: Act, @Param('code') code: string, @Body() body: ProveDto): Promise<PostedDto> {
    return this.packing.pack(act, code.toUpperCase(), body);
  }

  @Post('orders/:code/note-seen')
  @Access('pack')
  @HttpCode(200)
  noteSeen(@Acting() act: Act, @Param('code') code: string): Promise<PostedDto> {
    return this.packing.seeNote(act, code.toUpperCase());
  }

  /** Services and prices of each carrier for a weighed parcel, cheapest first. */
  @Get('orders/:code/rates')
  @Access('pack')
  rates(@Reader() person: Person, @Param('code') code: string, @Query('weight') weight: string): Promise<RatesDto> {
    return this.labels.rates(person, code.toUpperCase(), Number(weight));
  }

  /** Closes the parcel and asks the carrier for its label, which is printed when it comes. */
  @Post('orders/:code/label')
  @Access('pack')
  @HttpCode(200)
  label(@Acting() act: Act, @Param('code') code: string, @Body() body: LabelDto): Promise<PostedDto> {
    return this.labels.ask(act, code.toUpperCase(), body);
  }
}
