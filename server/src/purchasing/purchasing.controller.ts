import { Body, Controller, Get, HttpCode, Param, Post, Put, StreamableFile } from '@nestjs/common';
import { type Act, Acting, type Person, Reader } from '../platform/act.js';
import { CodeDto } from '../platform/code.dto.js';
import { IfMatch } from '../platform/version.js';
import { Access } from '../identity/access.js';
import { SettingsService } from '../company/settings.service.js';
import { purchaseOrderPdf } from '../printing/purchase-order.pdf.js';
import { EditPurchaseOrderDto, PurchaseOrderDto, PurchaseOrderRowDto } from './purchasing.dto.js';
import { PurchasingQueries } from './purchasing.queries.js';
import { PurchasingService } from './purchasing.service.js';

@Controller('api/purchase-orders')
export class PurchasingController {
  constructor(
    private readonly queries: PurchasingQueries,
    private readonly orders: PurchasingService,
    private readonly settings: SettingsService,
  ) {}

  @Get()
  @Access('signed-in')
  list(@Reader() person: Person): Promise<PurchaseOrderRowDto[]> {
    return this.queries.list(person.siteIds);
  }

  @Get(':code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<PurchaseOrderDto> {
    return this.queries.sheet(code.toUpperCase(), person.siteIds, person.seesCosts);
  }

  /** The order as a PDF, with its barcode and one beside each line. Without prices for those who may not see them. */
  @Get(':code/pdf')
  @Access('signed-in')
  async pdf(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    const order = await this.queries.sheet(code.toUpperCase(), person.siteIds, person.seesCosts);
    return new StreamableFile(await purchaseOrderPdf(order, await this.settings.letterhead()), {
      type: 'application/pdf',
      disposition: `inline; filename="${order.code}.pdf"`,
    });
  }

  @Post()
  @Access('buy')
  add(@Acting() act: Act, @Body() body: EditPurchaseOrderDto): Promise<CodeDto> {
    return this.orders.add(act, body);
  }

  @Put(':code')
  @Access('buy')
  edit(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EditPurchaseOrderDto): Promise<CodeDto> {
    return this.orders.edit(act, code.toUpperCase(), version, body);
  }

  @Post(':code/place')
  @Access('buy')
  @HttpCode(200)
  place(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<CodeDto> {
    return this.orders.place(act, code.toUpperCase(), version);
  }

  @Post(':code/cancel')
  @Access('buy')
  @HttpCode(200)
  cancel(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<CodeDto> {
    return this.orders.cancel(act, code.toUpperCase(), version);
  }
}
