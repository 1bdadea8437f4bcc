import { Body, Controller, Get, HttpCode, Param, Post, Query, StreamableFile } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, CodeDto, IfMatch, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { OrderPapers } from './order-papers.js';
import { ClearHoldDto, OrderDto, OrderPageDto } from './orders.dto.js';
import { type Show, SHOWS } from './order-filter.js';
import { OrdersQueries } from './orders.queries.js';
import { OrdersService } from './orders.service.js';
import { OrderWayDto, PromiseDto } from './ways.dto.js';
import { WaysQueries } from './ways.queries.js';

const shown = (text: unknown): Show => SHOWS.find((s) => s === text) ?? 'all';

@Controller('api/orders')
export class OrdersController {
  constructor(
    private readonly queries: OrdersQueries,
    private readonly orders: OrdersService,
    private readonly papers: OrderPapers,
    private readonly waysOf: WaysQueries,
  ) {}

  @Get()
  @Access('signed-in')
  @Windowed()
  @ApiQuery({ name: 'show', required: false, enum: SHOWS })
  list(@Reader() person: Person, @AskedWindow() window: Window, @Query('show') show?: string): Promise<OrderPageDto> {
    return this.queries.list(person.siteIds, shown(show), window);
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

  /** Promises an open order for another time. */
  @Post(':code/promise')
  @Access('order-desk')
  @HttpCode(200)
  promise(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: PromiseDto): Promise<CodeDto> {
    return this.orders.promise(act, code.toUpperCase(), version, body.at);
  }

  @Post(':code/clear-hold')
  @Access('order-desk')
  @HttpCode(200)
  clearHold(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: ClearHoldDto): Promise<CodeDto> {
    return this.orders.clearHold(act, code.toUpperCase(), version, body);
  }
}
