import { Controller, Get, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access, OfCosts } from '../identity/index.js';
import { type Person, Reader } from '../platform/index.js';
import { MarginDto } from './margin.dto.js';
import { MARGIN_BY, marginAsked, MarginQueries } from './margin.queries.js';

/** What is left of sales once the goods are paid for. */
@Controller('api/margin')
@Access('invoices')
@OfCosts()
export class MarginController {
  constructor(private readonly margins: MarginQueries) {}

  @Get()
  @ApiQuery({ name: 'from', required: false, description: 'ISO date; open where it is left out' })
  @ApiQuery({ name: 'to', required: false, description: 'ISO date; open where it is left out' })
  @ApiQuery({ name: 'by', required: false, enum: MARGIN_BY })
  list(@Reader() person: Person, @Query() query: Record<string, unknown>): Promise<MarginDto> {
    return this.margins.list(person.siteIds, marginAsked(query));
  }
}
