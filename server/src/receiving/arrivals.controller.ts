import { Body, Controller, Get, Header, Headers, HttpCode, Param, ParseIntPipe, Post, Put, Query, Req, Res } from '@nestjs/common';
import { ApiOkResponse, ApiQuery } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { MOST_PICTURE_BYTES } from '../catalogue/index.js';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, CodeDto, type Person, readBody, Reader, type Window, Windowed } from '../platform/index.js';
import { MOST_XML_BYTES } from '../ubl/index.js';
import { ArrivalDoorDto, ArrivalDto, ArrivalPageDto } from './arrival.dto.js';
import { ArrivalsService } from './arrivals.service.js';
import { ArrivalsQueries } from './arrivals.queries.js';
import { InboundLinePageDto } from './inbound-lines.dto.js';
import { inboundAsked, InboundLinesQueries } from './inbound-lines.queries.js';
import { ReceiptPictures } from './receipt-pictures.service.js';
import { TakenDocumentDto } from './receiving.dto.js';
import { SupplierDocuments } from './supplier-documents.service.js';

@Controller('api')
export class ArrivalsController {
  constructor(
    private readonly queries: ArrivalsQueries,
    private readonly arrivals: ArrivalsService,
    private readonly pictures: ReceiptPictures,
    private readonly documents: SupplierDocuments,
    private readonly inbound: InboundLinesQueries,
  ) {}

  @Get('arrivals')
  @Access('signed-in')
  @Windowed()
  list(@Reader() person: Person, @AskedWindow() window: Window): Promise<ArrivalPageDto> {
    return this.queries.list(person.siteIds, window);
  }

  /** Lines that are due, or goods that came in, between two days. */
  @Get('inbound-lines')
  @Access('signed-in')
  @Windowed()
  @ApiQuery({ name: 'what', required: false, enum: ['due', 'received'] })
  @ApiQuery({ name: 'from', required: false, description: 'ISO date; open where it is left out' })
  @ApiQuery({ name: 'to', required: false, description: 'ISO date; open where it is left out' })
  @ApiQuery({ name: 'search', required: false, description: 'words of the supplier, the goods or the order' })
  inboundLines(
    @Reader() person: Person,
    @AskedWindow() window: Window,
    @Query() query: Record<string, unknown>,
  ): Promise<InboundLinePageDto> {
    return this.inbound.list(person.siteIds, inboundAsked(query), window);
  }

  @Get('arrivals/:code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<ArrivalDto> {
    return this.queries.sheet(code.toUpperCase(), person.siteIds, person.seesCosts);
  }

  @Post('arrivals/:code/door')
  @Access('receive')
  @HttpCode(200)
  setDoor(@Acting() act: Act, @Param('code') code: string, @Body() body: ArrivalDoorDto): Promise<CodeDto> {
    return this.arrivals.setDoor(act, code.toUpperCase(), body.door ?? null);
  }

  @Post('arrivals/:code/not-coming')
  @Access('receive', 'buy')
  @HttpCode(200)
  notComing(@Acting() act: Act, @Param('code') code: string): Promise<CodeDto> {
    return this.arrivals.notComing(act, code.toUpperCase());
  }

  /** The body is a UBL 2.1 OrderResponse or DespatchAdvice. */
  @Post('supplier-documents')
  @Access('buy')
  async takeDocument(@Acting() act: Act, @Req() request: Request): Promise<TakenDocumentDto> {
    return this.documents.take(act, await readBody(request, MOST_XML_BYTES));
  }

  /** The same from a supplier's own system. X-Signature, the HMAC-SHA256 of the body in hex, stands for the sign-in. */
  @Post('suppliers/:code/documents')
  @Access('public')
  @HttpCode(200)
  async fromSupplier(
    @Param('code') code: string,
    @Headers('x-signature') given: string | undefined,
    @Req() request: Request,
  ): Promise<TakenDocumentDto> {
    return this.documents.fromSupplier(code.toUpperCase(), await readBody(request, MOST_XML_BYTES), given ?? '');
  }

  @Get('receipts/:id/picture')
  @Access('signed-in')
  @Header('cache-control', 'private, max-age=0')
  @ApiOkResponse({ content: { 'image/webp': {} } })
  async picture(@Reader() person: Person, @Res() response: Response, @Param('id', ParseIntPipe) id: number): Promise<void> {
    const { type, bytes } = await this.pictures.read(person, id);
    response.type(type).send(bytes);
  }

  /** The body is the picture file itself: JPEG, PNG or WebP. */
  @Put('receipts/:id/picture')
  @Access('receive')
  @HttpCode(204)
  async setPicture(@Acting() act: Act, @Param('id', ParseIntPipe) id: number, @Req() request: Request): Promise<void> {
    await this.pictures.keep(act, id, await readBody(request, MOST_PICTURE_BYTES));
  }
}
