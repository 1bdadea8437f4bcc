import { Body, Controller, Get, HttpCode, Param, Post, Put, StreamableFile } from '@nestjs/common';
import { ApiOkResponse } from '@nestjs/swagger';
import { Access, OfCosts } from '../identity/index.js';
import { type Act, Acting, AskedWindow, CodeDto, IfMatch, type Person, Reader, type Window, Windowed } from '../platform/index.js';
import { AnswersService } from './answers.service.js';
import { DraftsService } from './drafts.service.js';
import { OrderDocuments } from './order-documents.js';
import {
  EditPurchaseOrderDto,
  MergeOrderDto,
  PurchaseOrderDto,
  PurchaseOrderPageDto,
  SettleAnswerDto,
  SplitOrderDto,
  SpokenAnswerDto,
} from './purchasing.dto.js';
import { PurchasingQueries } from './purchasing.queries.js';
import { PurchasingService } from './purchasing.service.js';

@Controller('api/purchase-orders')
export class PurchasingController {
  constructor(
    private readonly queries: PurchasingQueries,
    private readonly orders: PurchasingService,
    private readonly answers: AnswersService,
    private readonly drafts: DraftsService,
    private readonly documents: OrderDocuments,
  ) {}

  @Get()
  @Access('signed-in')
  @Windowed()
  list(@Reader() person: Person, @AskedWindow() window: Window): Promise<PurchaseOrderPageDto> {
    return this.queries.list(person.siteIds, person.seesCosts, window);
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
    return new StreamableFile(await this.documents.pdf(order), {
      type: 'application/pdf',
      disposition: `inline; filename="${order.code}.pdf"`,
    });
  }

  /** The order as a UBL 2.1 Order. */
  @Get(':code/ubl')
  @Access('buy')
  @OfCosts()
  @ApiOkResponse({ content: { 'application/xml': {} } })
  async ubl(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    const order = await this.queries.sheet(code.toUpperCase(), person.siteIds, true);
    return new StreamableFile(Buffer.from(await this.documents.ubl(order)), {
      type: 'application/xml',
      disposition: `attachment; filename="${order.code}.xml"`,
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

  /** Closes what has not come: nobody waits for it any more. */
  @Post(':code/close')
  @Access('buy')
  @HttpCode(200)
  close(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string): Promise<CodeDto> {
    return this.orders.close(act, code.toUpperCase(), version);
  }

  /** Takes the supplier's answer into the order, or asks again. */
  @Post(':code/answer')
  @Access('buy')
  @HttpCode(200)
  settle(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: SettleAnswerDto): Promise<CodeDto> {
    return this.answers.settle(act, code.toUpperCase(), version, body);
  }

  /** Writes down what the supplier said on the telephone. Nobody is written to; what differs waits to be taken, as from a document. */
  @Post(':code/spoken-answer')
  @Access('buy')
  @HttpCode(200)
  spoken(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: SpokenAnswerDto): Promise<CodeDto> {
    return this.answers.spoken(act, code.toUpperCase(), version, body);
  }

  @Post(':code/copy')
  @Access('buy')
  copy(@Acting() act: Act, @Param('code') code: string): Promise<CodeDto> {
    return this.drafts.copy(act, code.toUpperCase());
  }

  /** Brings another draft for the same supplier and site into this one. */
  @Post(':code/merge')
  @Access('buy')
  @HttpCode(200)
  merge(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: MergeOrderDto): Promise<CodeDto> {
    return this.drafts.merge(act, code.toUpperCase(), version, body.other.toUpperCase());
  }

  /** Takes some lines onto a draft of their own. */
  @Post(':code/split')
  @Access('buy')
  split(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: SplitOrderDto): Promise<CodeDto> {
    return this.drafts.split(act, code.toUpperCase(), version, body.lines);
  }
}
