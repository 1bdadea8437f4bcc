import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query, StreamableFile } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { Access, mustHave } from '../identity/index.js';
import { OrderPapers, OrdersQueries, PromiseDto } from '../orders/index.js';
import { ReleaseService } from '../picking/index.js';
import { type Act, Acting, CodeDto, IfMatch, mustBeAt, notFound, type Person, Reader, textOf, wholeOf } from '../platform/index.js';
import { BulkService } from './bulk.service.js';
import { CancellingService } from './cancelling.service.js';
import { EditingService } from './editing.service.js';
import { EntryService } from './entry.service.js';
import { FetchingService } from './fetching.service.js';
import { GivingService } from './giving.service.js';
import { GoodsQueries } from './goods.queries.js';
import { HistoryQueries } from './history.queries.js';
import { HoldersQueries } from './holders.queries.js';
import { HoldsService } from './holds.service.js';
import { LettersService } from './letters.service.js';
import { OwnersQueries } from './owners.queries.js';
import { ProjectionQueries } from './projection.queries.js';
import { SplittingService } from './splitting.service.js';
import {
  BulkDto,
  BulkLineDto,
  CancelDto,
  CancellingDto,
  ClearHoldDto,
  ClearHoldWhyDto,
  ConfirmQuoteDto,
  EditedOrderDto,
  EditOrderDto,
  FetchedDto,
  GoodsFactsDto,
  HitDto,
  HoldDto,
  LettersDto,
  LineHoldersDto,
  MergeDto,
  NewOrderDto,
  OrderEventDto,
  OwnerDto,
  ProjectionDto,
  SiblingDto,
  SplitDto,
  TakeFromDto,
  WriteLettersDto,
} from './order-desk.dto.js';

/** What the order desk does: keys, quotes, changes, holds and cancels orders. */
@Controller('api')
export class OrderDeskController {
  constructor(
    private readonly entry: EntryService,
    private readonly editing: EditingService,
    private readonly holds: HoldsService,
    private readonly cancelling: CancellingService,
    private readonly history: HistoryQueries,
    private readonly goods: GoodsQueries,
    private readonly owners: OwnersQueries,
    private readonly bulk: BulkService,
    private readonly splitting: SplittingService,
    private readonly projections: ProjectionQueries,
    private readonly fetching: FetchingService,
    private readonly letters: LettersService,
    private readonly holders: HoldersQueries,
    private readonly giving: GivingService,
    private readonly releases: ReleaseService,
    private readonly orders: OrdersQueries,
    private readonly papers: OrderPapers,
  ) {}

  /** Keys an order, or a quote. */
  @Post('orders')
  @Access('order-desk')
  add(@Acting() act: Act, @Body() body: NewOrderDto): Promise<CodeDto> {
    return this.entry.add(act, body);
  }

  /** What somebody who keys an order must know of goods. */
  @Get('order-desk/goods/:sku')
  @Access('order-desk')
  @ApiQuery({ name: 'site', required: true, type: String })
  @ApiQuery({ name: 'account', required: false, type: String })
  @ApiQuery({ name: 'channel', required: false, type: String })
  facts(@Reader() person: Person, @Param('sku') sku: string, @Query() query: Record<string, unknown>): Promise<GoodsFactsDto> {
    const asked = { siteId: wholeOf(query['site'], 0), account: textOf(query['account']), channel: textOf(query['channel']) };
    return this.goods.facts(sku.toUpperCase(), asked, person.siteIds);
  }

  /** Moves some of an order onto an order of its own. */
  @Post('orders/:code/split')
  @Access('order-desk')
  @HttpCode(200)
  split(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: SplitDto): Promise<CodeDto> {
    return this.splitting.split(act, code.toUpperCase(), version, body);
  }

  /** Takes another order of the same customer into this one. */
  @Post('orders/:code/merge')
  @Access('order-desk')
  @HttpCode(200)
  merge(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: MergeDto): Promise<CodeDto> {
    return this.splitting.merge(act, code.toUpperCase(), version, body.other.toUpperCase());
  }

  /** Orders that could become one with this. */
  @Get('orders/:code/siblings')
  @Access('order-desk')
  siblings(@Reader() person: Person, @Param('code') code: string): Promise<SiblingDto[]> {
    return this.splitting.siblings(code.toUpperCase(), person.siteIds);
  }

  /** What may be promised of an item at a site over time, with what comes and goes. */
  @Get('items/:sku/promise/:siteId')
  @Access('signed-in')
  projection(@Reader() person: Person, @Param('sku') sku: string, @Param('siteId', ParseIntPipe) siteId: number): Promise<ProjectionDto> {
    mustBeAt(person, siteId);
    return this.projections.of(sku.toUpperCase(), siteId);
  }

  /** Whom it hits where a purchase order comes on that day. */
  @Get('purchase-orders/:code/hits')
  @Access('order-desk', 'buy')
  @ApiQuery({ name: 'on', required: true, type: String })
  hits(@Reader() person: Person, @Param('code') code: string, @Query('on') on: unknown): Promise<HitDto[]> {
    return this.projections.hits(code.toUpperCase(), textOf(on, 10), person.siteIds);
  }

  /** Writes to those whom it hits. */
  @Post('purchase-orders/:code/letters')
  @Access('order-desk')
  @HttpCode(200)
  writeLetters(@Acting() act: Act, @Param('code') code: string, @Body() body: WriteLettersDto): Promise<LettersDto> {
    return this.letters.write(act, code.toUpperCase(), body.on, body.orders);
  }

  /** Does one thing to many orders, each by itself; or says what it would do. */
  @Post('order-desk/bulk')
  @Access('order-desk')
  @HttpCode(200)
  together(@Acting() act: Act, @Body() body: BulkDto): Promise<BulkLineDto[]> {
    if (body.what === 'release') mustHave(act.person, 'release');
    return this.bulk.run(act, body);
  }

  /** The packing lists of several orders, as one paper. */
  @Get('order-desk/packing-lists')
  @Access('signed-in')
  @ApiQuery({ name: 'orders', required: true, type: String })
  async packingLists(@Reader() person: Person, @Query('orders') orders: unknown): Promise<StreamableFile> {
    const codes = textOf(orders, 4_400).toUpperCase().split(',').filter(Boolean).slice(0, 200);
    const found = [];
    for (const code of codes) found.push(await this.orders.sheet(code, person.siteIds));
    if (found.length === 0) throw notFound('Those orders');
    return new StreamableFile(await this.papers.packingLists(found), {
      type: 'application/pdf',
      disposition: 'inline; filename="orders.pdf"',
    });
  }

  /** Those who may see to an order that waits. */
  @Get('order-desk/people')
  @Access('order-desk')
  people(@Reader() person: Person): Promise<OwnerDto[]> {
    return this.owners.list(person.siteIds);
  }

  /** Who holds what a line lacks. */
  @Get('orders/:code/lines/:line/holders')
  @Access('order-desk')
  holdersOf(@Reader() person: Person, @Param('code') code: string, @Param('line', ParseIntPipe) line: number): Promise<LineHoldersDto> {
    return this.holders.of(code.toUpperCase(), line, person.siteIds);
  }

  /** Gives a line what is promised to another order. */
  @Post('orders/:code/lines/:line/take')
  @Access('order-desk')
  @HttpCode(200)
  take(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('code') code: string,
    @Param('line', ParseIntPipe) line: number,
    @Body() body: TakeFromDto,
  ): Promise<CodeDto> {
    return this.giving.take(act, code.toUpperCase(), line, version, body);
  }

  /** Changes an order. What is added to one that is being picked is sent after it as far as it is there. */
  @Put('orders/:code')
  @Access('order-desk')
  async edit(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('code') code: string,
    @Body() body: EditOrderDto,
  ): Promise<EditedOrderDto> {
    const edited = await this.editing.edit(act, code.toUpperCase(), version, body);
    await this.releases.follow(act, edited.code);
    return edited;
  }

  /** The customer takes the quote. */
  @Post('orders/:code/confirm')
  @Access('order-desk')
  @HttpCode(200)
  confirm(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: ConfirmQuoteDto): Promise<CodeDto> {
    return this.entry.confirm(act, code.toUpperCase(), version, body.promisedAt ?? null);
  }

  /** Mails the quote or the confirmation to the customer. */
  @Post('orders/:code/mail')
  @Access('order-desk')
  @HttpCode(200)
  mail(@Acting() act: Act, @Param('code') code: string): Promise<CodeDto> {
    return this.entry.mail(act, code.toUpperCase());
  }

  /** The quote or the confirmation, with prices. */
  @Get('orders/:code/paper')
  @Access('signed-in')
  async paper(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    const order = await this.orders.sheet(code.toUpperCase(), person.siteIds);
    return new StreamableFile(await this.papers.priced(order), {
      type: 'application/pdf',
      disposition: `inline; filename="${order.code}.pdf"`,
    });
  }

  @Get('orders/:code/history')
  @Access('signed-in')
  events(@Reader() person: Person, @Param('code') code: string): Promise<OrderEventDto[]> {
    return this.history.of(code.toUpperCase(), person.siteIds);
  }

  /** Promises an open order for another time. */
  @Post('orders/:code/promise')
  @Access('order-desk')
  @HttpCode(200)
  promise(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: PromiseDto): Promise<CodeDto> {
    return this.editing.promise(act, code.toUpperCase(), version, body.at);
  }

  /** Asks other sites for what the order lacks, as the way that leaves then says, and promises it for then. */
  @Post('orders/:code/fetch')
  @Access('order-desk')
  @HttpCode(200)
  fetch(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: PromiseDto): Promise<FetchedDto> {
    return this.fetching.fetch(act, code.toUpperCase(), version, body.at);
  }

  /** Mends an address or links unknown codes, so that the order goes on. */
  @Post('orders/:code/clear-hold')
  @Access('order-desk')
  @HttpCode(200)
  mend(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: ClearHoldDto): Promise<CodeDto> {
    return this.holds.mend(act, code.toUpperCase(), version, body);
  }

  @Post('orders/:code/holds')
  @Access('order-desk')
  @HttpCode(200)
  hold(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: HoldDto): Promise<CodeDto> {
    return this.holds.hold(act, code.toUpperCase(), version, body);
  }

  @Post('orders/:code/holds/:id/clear')
  @Access('order-desk')
  @HttpCode(200)
  clear(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('code') code: string,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: ClearHoldWhyDto,
  ): Promise<CodeDto> {
    return this.holds.clear(act, code.toUpperCase(), version, id, body.why);
  }

  /** What cancelling would take back, and who would be told. */
  @Get('orders/:code/cancelling')
  @Access('order-desk')
  cancellingOf(@Reader() person: Person, @Param('code') code: string): Promise<CancellingDto> {
    return this.cancelling.preview(code.toUpperCase(), person.siteIds);
  }

  @Post('orders/:code/cancel')
  @Access('order-desk')
  @HttpCode(200)
  cancel(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: CancelDto): Promise<CodeDto> {
    return this.cancelling.cancel(act, code.toUpperCase(), version, body);
  }
}
