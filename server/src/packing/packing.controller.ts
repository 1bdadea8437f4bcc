import { Controller, Get, Param, Query } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Person, Reader } from '../platform/index.js';
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
  queue(@Reader() person: Person): Promise<BenchRowDto[]> {
    return this.queries.queue(person.siteIds);
  }

  /** Services and prices of each carrier for a weighed parcel, cheapest first. */
  @Get('orders/:code/rates')
  @Access('pack')
  rates(@Reader() person: Person, @Param('code') code: string, @Query('weight') weight: string): Promise<RatesDto> {
    return this.labels.rates(person, code.toUpperCase(), Number(weight));
  }
}
