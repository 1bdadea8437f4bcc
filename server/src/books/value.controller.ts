import { Controller, Get, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access, OfCosts, OfTheHouse } from '../identity/index.js';
import { AskedWindow, type Window, Windowed } from '../platform/index.js';
import { ValuePageDto } from './value.dto.js';
import { valueAsked, ValueQueries } from './value.queries.js';

/** What stock is worth, and was on any day. */
@Controller('api/value')
@Access('invoices')
@OfCosts()
@OfTheHouse()
export class ValueController {
  constructor(private readonly value: ValueQueries) {}

  @Get()
  @Windowed()
  @ApiQuery({ name: 'on', required: false, description: 'ISO date; now where it is left out' })
  @ApiQuery({ name: 'by', required: false, enum: ['item', 'class'] })
  @ApiQuery({ name: 'search', required: false, type: String })
  list(@AskedWindow() window: Window, @Query() query: Record<string, unknown>): Promise<ValuePageDto> {
    return this.value.list(valueAsked(query), window);
  }
}
