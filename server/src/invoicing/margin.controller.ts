import { Controller, Get, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access, OfCosts } from '../identity/index.js';
import { type Person, Reader } from '../platform/index.js';
import { InvoicesQueries } from './invoices.queries.js';
import { MarginDto, TaxDto } from './margin.dto.js';
import { MARGIN_BY, marginAsked, MarginQueries } from './margin.queries.js';

/** What is left of sales once the goods are paid for, and what they were taxed with. */
@Controller('api')
@Access('invoices')
export class MarginController {
  constructor(
    private readonly margins: MarginQueries,
    private readonly invoices: InvoicesQueries,
  ) {}

  @Get('margin')
  @OfCosts()
  @ApiQuery({ name: 'from', required: false, description: 'ISO date; open where it is left out' })
  @ApiQuery({ name: 'to', required: false, description: 'ISO date; open where it is left out' })
  @ApiQuery({ name: 'by', required: false, enum: MARGIN_BY })
  list(@Reader() person: Person, @Query() query: Record<string, unknown>): Promise<MarginDto> {
    return this.margins.list(person.siteIds, marginAsked(query));
  }

  /** What sales were taxed with, by rate, for the tax return. */
  @Get('sales-tax')
  @ApiQuery({ name: 'from', required: false, description: 'ISO date; open where it is left out' })
  @ApiQuery({ name: 'to', required: false, description: 'ISO date; open where it is left out' })
  taxes(@Reader() person: Person, @Query() query: Record<string, unknown>): Promise<TaxDto> {
    const { from, to } = marginAsked(query);
    return this.invoices.taxesBetween(person.siteIds, from, to);
  }
}
