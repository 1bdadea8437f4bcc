import { Controller, Get, HttpCode, Post, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access, OfCosts, OfTheHouse } from '../identity/index.js';
import { type Act, Acting, AskedWindow, type Window, Windowed } from '../platform/index.js';
import { Reserves } from './reserves.service.js';
import { SlowDto, ValuePageDto } from './value.dto.js';
import { VALUE_BY, valueAsked, ValueQueries } from './value.queries.js';

/** What stock is worth, and was on any day. */
@Controller('api/value')
@Access('invoices')
@OfCosts()
@OfTheHouse()
export class ValueController {
  constructor(
    private readonly value: ValueQueries,
    private readonly reserves: Reserves,
  ) {}

  @Get()
  @Windowed()
  @ApiQuery({ name: 'on', required: false, description: 'ISO date; now where it is left out' })
  @ApiQuery({ name: 'by', required: false, enum: VALUE_BY })
  @ApiQuery({ name: 'search', required: false, type: String })
  list(@AskedWindow() window: Window, @Query() query: Record<string, unknown>): Promise<ValuePageDto> {
    return this.value.list(valueAsked(query), window);
  }

  /** Goods that nobody has bought for long. */
  @Get('slow')
  slow(): Promise<SlowDto> {
    return this.reserves.list();
  }

  /** Brings what is set aside in the books to what is proposed. */
  @Post('slow/book')
  @HttpCode(204)
  book(@Acting() act: Act): Promise<void> {
    return this.reserves.book(act);
  }
}
