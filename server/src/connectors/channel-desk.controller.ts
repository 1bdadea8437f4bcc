import { Body, Controller, Get, Headers, HttpCode, Param, ParseArrayPipe, ParseIntPipe, Post, Req } from '@nestjs/common';
import type { RawBodyRequest } from '@nestjs/common';
import { ApiBody, ApiConsumes } from '@nestjs/swagger';
import type { Request } from 'express';
import { ChannelsService } from '../channels/index.js';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, type Person, readBody, Reader, type Window, Windowed } from '../platform/index.js';
import { MOST_XML_BYTES } from '../ubl/index.js';
import { CatalogueIn } from './catalogue-in.service.js';
import { ChannelDesk } from './channel-desk.service.js';
import {
  AskedDto,
  BeliefDto,
  ExchangeDto,
  ExchangePageDto,
  ListItemDto,
  OfferDto,
  TakenFileDto,
  TakenInDto,
  TakeOfferDto,
  UnlistedPageDto,
} from './channel-desk.dto.js';
import { Exchanges } from './exchanges.js';
import { FilesIn } from './files-in.service.js';
import { IntakeService } from './intake.service.js';
import { Unlisted } from './unlisted.service.js';

/** What channels send, and what is done at a channel's page. */
@Controller('api/channels')
export class ChannelDeskController {
  constructor(
    private readonly intake: IntakeService,
    private readonly files: FilesIn,
    private readonly desk: ChannelDesk,
    private readonly catalogue: CatalogueIn,
    private readonly unlisted: Unlisted,
    private readonly exchanges: Exchanges,
    private readonly channels: ChannelsService,
  ) {}

  /** A message of a channel in JSON. The signature in X-Signature stands for the sign-in; what is repeated is answered as the first. */
  @Post(':code/webhook')
  @Access('public')
  @HttpCode(200)
  webhook(
    @Param('code') code: string,
    @Headers('x-signature') given: string | undefined,
    @Req() request: RawBodyRequest<Request>,
  ): Promise<TakenInDto | null> {
    return this.intake.fromWebhook(code.toUpperCase(), request.rawBody, given ?? '');
  }

  /** A document of a trade customer: a UBL 2.1 Order or OrderCancellation, as application/xml, signed in X-Signature. */
  @Post(':code/documents')
  @Access('public')
  @HttpCode(200)
  @ApiConsumes('application/xml')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  async document(
    @Param('code') code: string,
    @Headers('x-signature') given: string | undefined,
    @Req() request: Request,
  ): Promise<TakenInDto | null> {
    return this.intake.fromWebhook(code.toUpperCase(), await readBody(request, MOST_XML_BYTES), given ?? '');
  }

  /** A file of orders: CSV with the documented heads, a UBL 2.1 Order, or a message of the channel. */
  @Post(':code/files')
  @Access('order-desk')
  @HttpCode(200)
  @ApiConsumes('application/octet-stream')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  async file(@Acting() act: Act, @Param('code') code: string, @Req() request: Request): Promise<TakenFileDto> {
    return this.files.take(act.person, code.toUpperCase(), await readBody(request, MOST_XML_BYTES));
  }

  /** What was said between the house and a channel, newest first. */
  @Get(':code/exchanges')
  @Access('order-desk', 'set-up')
  @Windowed()
  async list(@Reader() person: Person, @Param('code') code: string, @AskedWindow() window: Window): Promise<ExchangePageDto> {
    const { id } = await this.channels.seen(person, code.toUpperCase());
    return this.exchanges.list(id, window);
  }

  /** One message as it came or went. */
  @Get(':code/exchanges/:id')
  @Access('order-desk', 'set-up')
  async sheet(@Reader() person: Person, @Param('code') code: string, @Param('id', ParseIntPipe) id: number): Promise<ExchangeDto> {
    const channel = await this.channels.seen(person, code.toUpperCase());
    return this.exchanges.sheet(channel.id, id);
  }

  /** Asks and tells at once what waits for its next try. */
  @Post(':code/try')
  @Access('order-desk', 'set-up')
  @HttpCode(200)
  tryNow(@Acting() act: Act, @Param('code') code: string): Promise<AskedDto> {
    return this.desk.tryNow(act, code.toUpperCase());
  }

  /** What a channel believes of each listing, beside what is true. */
  @Get(':code/beliefs')
  @Access('order-desk', 'set-up')
  beliefs(@Reader() person: Person, @Param('code') code: string): Promise<BeliefDto[]> {
    return this.desk.beliefs(person, code.toUpperCase());
  }

  /** Asks the channel what it believes. */
  @Post(':code/beliefs')
  @Access('order-desk', 'set-up')
  @HttpCode(200)
  ask(@Acting() act: Act, @Param('code') code: string): Promise<AskedDto> {
    return this.desk.ask(act.person, code.toUpperCase());
  }

  /** Tells the channel all its figures anew. */
  @Post(':code/repair')
  @Access('order-desk', 'set-up')
  @HttpCode(200)
  repair(@Acting() act: Act, @Param('code') code: string): Promise<AskedDto> {
    return this.desk.repair(act, code.toUpperCase());
  }

  /** Goods that the channel could sell and does not offer. */
  @Get(':code/unlisted')
  @Access('order-desk', 'set-up')
  @Windowed()
  notListed(@Reader() person: Person, @Param('code') code: string, @AskedWindow() window: Window): Promise<UnlistedPageDto> {
    return this.unlisted.list(person, code.toUpperCase(), window);
  }

  /** Lists items under their own SKU, each at its price. */
  @Post(':code/listings')
  @Access('set-up')
  @HttpCode(200)
  @ApiBody({ type: [ListItemDto] })
  listItems(
    @Acting() act: Act,
    @Param('code') code: string,
    @Body(new ParseArrayPipe({ items: ListItemDto, whitelist: true })) body: ListItemDto[],
  ): Promise<AskedDto> {
    return this.unlisted.add(act, code.toUpperCase(), body);
  }

  /** What the channel offers, and what each of it would be linked to. Nothing is changed. */
  @Get(':code/catalogue')
  @Access('set-up')
  offers(@Reader() person: Person, @Param('code') code: string): Promise<OfferDto[]> {
    return this.catalogue.proposals(person, code.toUpperCase());
  }

  /** Links what was chosen of it; items are made of those without one. */
  @Post(':code/catalogue')
  @Access('set-up')
  @HttpCode(200)
  @ApiBody({ type: [TakeOfferDto] })
  take(
    @Acting() act: Act,
    @Param('code') code: string,
    @Body(new ParseArrayPipe({ items: TakeOfferDto, whitelist: true })) body: TakeOfferDto[],
  ): Promise<AskedDto> {
    return this.catalogue.take(act, code.toUpperCase(), body);
  }
}
