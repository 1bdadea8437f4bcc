import { Body, Controller, Get, HttpCode, Param, Post, Query, StreamableFile } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, type Person, Reader } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { packingListPdf } from './packing-list.pdf.js';
import { ClearHoldDto, OrderDto, OrderRowDto } from './orders.dto.js';
import { OrdersQueries } from './orders.queries.js';
import { OrdersService } from './orders.service.js';

@Controller('api/orders')
export class OrdersController {
  constructor(
    private readonly queries: OrdersQueries,
    private readonly orders: OrdersService,
    private readonly settings: SettingsService,
  ) {}

  @Get()
  @Access('signed-in')
  list(@Reader() person: Person, @Query('gone') gone?: string): Promise<OrderRowDto[]> {
    return this.queries.list(person.siteIds, gone === '1');
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
    return new StreamableFile(await packingListPdf(order, await this.settings.letterhead()), {
      type: 'application/pdf',
      disposition: `inline; filename="${order.code}.pdf"`,
    });
  }

  @Post(':code/clear-hold')
  @Access('order-desk')
  @HttpCode(200)
  clearHold(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: ClearHoldDto): Promise<CodeDto> {
    return this.orders.clearHold(act, code.toUpperCase(), version, body);
  }
}
