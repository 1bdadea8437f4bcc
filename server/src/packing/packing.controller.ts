import { Body, Controller, Get, Header, HttpCode, Param, ParseIntPipe, Post, Put, Query, Req, Res, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiQuery } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { MOST_PICTURE_BYTES } from '../catalogue/index.js';
import { RatesDto } from '../carriers/index.js';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, AtSites, type Person, readBody, Reader, type Window, Windowed } from '../platform/index.js';
import { LabelService } from './labels.service.js';
import { BenchPageDto, SendByDto, SingleLineDto, TypedNumberDto } from './packing.dto.js';
import { PackingQueries } from './packing.queries.js';
import { ParcelPapers } from './parcel-papers.service.js';
import { ParcelPictures } from './parcel-pictures.service.js';
import { ParcelsService } from './parcels.service.js';

@Controller('api/bench')
export class PackingController {
  constructor(
    private readonly queries: PackingQueries,
    private readonly labels: LabelService,
    private readonly parcels: ParcelsService,
    private readonly papers: ParcelPapers,
    private readonly pictures: ParcelPictures,
  ) {}

  @Get('queue')
  @Access('signed-in')
  @ApiQuery({ name: 'site', required: false, type: String })
  @Windowed()
  queue(@AtSites() siteIds: readonly number[], @AskedWindow() window: Window): Promise<BenchPageDto> {
    return this.queries.queue(siteIds, window);
  }

  /** The order that leaves soonest of those at a table that want one item and nothing else. */
  @Get('single-line/:itemId')
  @Access('pack')
  @ApiQuery({ name: 'site', required: false, type: String })
  async singleLine(@AtSites() siteIds: readonly number[], @Param('itemId', ParseIntPipe) itemId: number): Promise<SingleLineDto> {
    return { order: await this.queries.singleLine(siteIds, itemId) };
  }

  /** Sends a parcel that waits for its label by another service: a carrier that will not have it is no end. */
  @Post('parcels/:code/service')
  @Access('pack')
  @HttpCode(204)
  sendBy(@Acting() act: Act, @Param('code') code: string, @Body() body: SendByDto): Promise<void> {
    return this.parcels.sendBy(act, code.toUpperCase(), body.service);
  }

  /** The number under which a carrier without a system of its own knows a parcel. */
  @Post('parcels/:code/number')
  @Access('pack')
  @HttpCode(204)
  number(@Acting() act: Act, @Param('code') code: string, @Body() body: TypedNumberDto): Promise<void> {
    return this.parcels.numbered(act, code.toUpperCase(), body.tracking);
  }

  /** What is in a parcel, as a paper to put into it. */
  @Get('parcels/:code/packing-list')
  @Access('signed-in')
  async packingList(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    return new StreamableFile(await this.papers.listFor(person, code.toUpperCase()), { type: 'application/pdf' });
  }

  /** What lay in a parcel before it was closed. */
  /** What left for an order, parcel by parcel, as a paper to be signed. */
  @Get('orders/:code/delivery-note')
  @Access('signed-in')
  async deliveryNote(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    return new StreamableFile(await this.papers.deliveryNote(person, code.toUpperCase()), { type: 'application/pdf' });
  }

  @Get('parcels/:code/picture')
  @Access('signed-in')
  @Header('cache-control', 'private, max-age=0')
  @ApiOkResponse({ content: { 'image/webp': {} } })
  async picture(@Reader() person: Person, @Res() response: Response, @Param('code') code: string): Promise<void> {
    const { type, bytes } = await this.pictures.read(person, code.toUpperCase());
    response.type(type).send(bytes);
  }

  /** The body is the picture file itself: JPEG, PNG or WebP. */
  @Put('parcels/:code/picture')
  @Access('pack')
  @HttpCode(204)
  async setPicture(@Acting() act: Act, @Param('code') code: string, @Req() request: Request): Promise<void> {
    await this.pictures.keep(act, code.toUpperCase(), await readBody(request, MOST_PICTURE_BYTES));
  }

  /** Prints the label of a parcel once more. */
  @Post('parcels/:code/print')
  @Access('pack')
  @HttpCode(204)
  print(@Acting() act: Act, @Param('code') code: string): Promise<void> {
    return this.labels.printAgain(act, code.toUpperCase());
  }

  /** Services and prices of each carrier for a weighed parcel: the cheapest that keeps the promise first. */
  @Get('orders/:code/rates')
  @Access('pack')
  @ApiQuery({ name: 'box', required: false, type: String })
  rates(
    @Reader() person: Person,
    @Param('code') code: string,
    @Query('weight') weight: string,
    @Query('box') box?: unknown,
  ): Promise<RatesDto> {
    return this.labels.rates(person, code.toUpperCase(), Number(weight), typeof box === 'string' ? box : null);
  }
}
