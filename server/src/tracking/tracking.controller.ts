import { Body, Controller, Get, Headers, HttpCode, Param, ParseIntPipe, Post, Query, type RawBodyRequest, Req } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import type { Request } from 'express';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, IdDto, IfMatch, type Person, Reader, textOf, type Window, Windowed } from '../platform/index.js';
import { ClaimsService } from './claims.service.js';
import { AskDto, ClaimDto, ClaimPageDto, DropDto, HeardDto, OpenClaimDto, ParcelEventDto, TellDto, ToldDto } from './tracking.dto.js';
import { WebhookService } from './webhook.service.js';

/** What carriers say of parcels on their way, and what is claimed for those that do not arrive as they should. */
@Controller('api')
export class TrackingController {
  constructor(
    private readonly webhooks: WebhookService,
    private readonly claims: ClaimsService,
  ) {}

  /** Events of a carrier in JSON. The signature in X-Signature, by the carrier's key, stands for the sign-in; what is repeated does nothing. */
  @Post('carriers/:code/events')
  @Access('public')
  @HttpCode(200)
  events(
    @Param('code') code: string,
    @Headers('x-signature') given: string | undefined,
    @Req() request: RawBodyRequest<Request>,
  ): Promise<HeardDto> {
    return this.webhooks.hear(code.toUpperCase(), request.rawBody, given ?? '');
  }

  @Get('parcels/:code/events')
  @Access('signed-in')
  journey(@Reader() person: Person, @Param('code') code: string): Promise<ParcelEventDto[]> {
    return this.claims.events(person, code.toUpperCase());
  }

  /** Those that are open; with `?state=all` the closed ones too. */
  @Get('claims')
  @Access('order-desk')
  @Windowed()
  @ApiQuery({ name: 'state', required: false, type: String })
  list(@Reader() person: Person, @AskedWindow() window: Window, @Query('state') state: unknown): Promise<ClaimPageDto> {
    return this.claims.list(person.siteIds, textOf(state), window);
  }

  @Get('claims/:id')
  @Access('order-desk')
  sheet(@Reader() person: Person, @Param('id', ParseIntPipe) id: number): Promise<ClaimDto> {
    return this.claims.sheet(id, person.siteIds);
  }

  @Post('claims')
  @Access('order-desk')
  open(@Acting() act: Act, @Body() body: OpenClaimDto): Promise<IdDto> {
    return this.claims.open(act, body);
  }

  @Post('claims/:id/ask')
  @Access('order-desk')
  @HttpCode(204)
  ask(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number, @Body() body: AskDto): Promise<void> {
    return this.claims.ask(act, id, version, body);
  }

  @Post('claims/:id/settle')
  @Access('order-desk')
  @HttpCode(204)
  settle(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number, @Body() body: AskDto): Promise<void> {
    return this.claims.settle(act, id, version, body);
  }

  /** Writes to the customer what the carrier says. */
  @Post('claims/:id/tell')
  @Access('order-desk')
  @HttpCode(200)
  tell(@Acting() act: Act, @Param('id', ParseIntPipe) id: number, @Body() body: TellDto): Promise<ToldDto> {
    return this.claims.tell(act, id, body.note);
  }

  @Post('claims/:id/drop')
  @Access('order-desk')
  @HttpCode(204)
  drop(@Acting() act: Act, @IfMatch() version: number, @Param('id', ParseIntPipe) id: number, @Body() body: DropDto): Promise<void> {
    return this.claims.drop(act, id, version, body);
  }
}
