import { Controller, Get, Param, Query, StreamableFile } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { AskedWindow, type Person, Reader, textOf, type Window, Windowed } from '../platform/index.js';
import { CuresQueries } from './cures.queries.js';
import { OrderPapers } from './order-papers.js';
import { LineCuresDto, OrderDto, OrderPageDto } from './orders.dto.js';
import { GROUPINGS, type Show, SHOWS } from './order-filter.js';
import { OrdersQueries } from './orders.queries.js';
import { OrderWayDto } from './ways.dto.js';
import { WaysQueries } from './ways.queries.js';

const shown = (text: unknown): Show => SHOWS.find((s) => s === text) ?? 'all';

@Controller('api/orders')
export class OrdersController {
  constructor(
    private readonly queries: OrdersQueries,
    private readonly papers: OrderPapers,
    private readonly waysOf: WaysQueries,
    private readonly curesOf: CuresQueries,
  ) {}

  @Get()
  @Access('signed-in')
  @Windowed()
  @ApiQuery({ name: 'show', required: false, enum: SHOWS })
  @ApiQuery({ name: 'by', required: false, enum: GROUPINGS })
  @ApiQuery({ name: 'channel', required: false, type: String })
  @ApiQuery({ name: 'search', required: false, type: String })
  list(@Reader() person: Person, @AskedWindow() window: Window, @Query() query: Record<string, unknown>): Promise<OrderPageDto> {
    const narrowed = {
      by: GROUPINGS.find((g) => g === query['by']) ?? 'departure',
      channel: textOf(query['channel'], 20).toUpperCase(),
      search: textOf(query['search'], 100),
    };
    return this.queries.list(person.siteIds, shown(query['show']), narrowed, window);
  }

  @Get(':code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<OrderDto> {
    return this.queries.sheet(code.toUpperCase(), person.siteIds);
  }

  /** The packing list, which is the docket too: the order's barcode opens it everywhere. */
  @Get(':code/packing-list')
  @Access('signed-in')
  async packingList(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    const order = await this.queries.sheet(code.toUpperCase(), person.siteIds);
    return new StreamableFile(await this.papers.packingList(order), {
      type: 'application/pdf',
      disposition: `inline; filename="${order.code}.pdf"`,
    });
  }

  /** How an open order could go whole, the soonest first. */
  @Get(':code/ways')
  @Access('signed-in')
  ways(@Reader() person: Person, @Param('code') code: string): Promise<OrderWayDto[]> {
    return this.waysOf.ways(code.toUpperCase(), person.siteIds);
  }

  /** Why lines of an order cannot be picked yet, and what will cure it. */
  @Get(':code/cures')
  @Access('signed-in')
  cures(@Reader() person: Person, @Param('code') code: string): Promise<LineCuresDto[]> {
    return this.curesOf.of(code.toUpperCase(), person.siteIds);
  }
}
