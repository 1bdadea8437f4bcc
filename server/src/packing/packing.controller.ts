import { Controller, Get, Param, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { AtSites, type Person, Reader } from '../platform/index.js';
import { LabelService } from './labels.service.js';
import { BenchRowDto, RatesDto } from './packing.dto.js';
import { PackingQueries } from './packing.queries.js';

@Controller('api/bench')
export class PackingController {
  constructor(
    private readonly queries: PackingQueries,
    private readonly labels: LabelService,
  ) {}

  @Get('queue')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  queue(@AtSites() siteIds: readonly number[]): Promise<BenchRowDto[]> {
    return this.queries.queue(siteIds);
  }

  /** Services and prices of each carrier for a weighed parcel, cheapest first. */
  @Get('orders/:code/rates')
  @Access('pack')
  rates(@Reader() person: Person, @Param('code') code: string, @Query('weight') weight: string): Promise<RatesDto> {
    return this.labels.rates(person, code.toUpperCase(), Number(weight));
  }
}
