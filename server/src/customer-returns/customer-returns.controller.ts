import { Body, Controller, Get, Header, HttpCode, Param, ParseIntPipe, Post, Query, Req, Res, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiQuery } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { MOST_PICTURE_BYTES } from '../catalogue/index.js';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, AtSites, CodeDto, IfMatch, type Person, readBody, Reader, textOf, type Window, Windowed } from '../platform/index.js'; // prettier-ignore
import { AnnounceReturnDto, CallOffDto, CustomerReturnDto, CustomerReturnPageDto, KeepInsteadDto, OpenReturnDto, ReturnableDto, ReturnFoundDto, ReturnTallyDto, SettleReturnDto } from './customer-returns.dto.js'; // prettier-ignore
import { CustomerReturnQueries } from './customer-returns.queries.js';
import { CustomerReturns } from './customer-returns.service.js';
import { FoundQueries } from './found.queries.js';
import { ReturnPictures } from './pictures.service.js';
import { CustomerReturnPapers } from './return-papers.js';
import { Settling } from './settling.service.js';
import { TALLY_BY, tallyAsked, TallyQueries } from './tally.queries.js';

@Controller('api/customer-returns')
export class CustomerReturnsController {
  constructor(
    private readonly queries: CustomerReturnQueries,
    private readonly returns: CustomerReturns,
    private readonly settling: Settling,
    private readonly finding: FoundQueries,
    private readonly tallies: TallyQueries,
    private readonly papers: CustomerReturnPapers,
    private readonly pictures: ReturnPictures,
  ) {}

  @Get()
  @Access('signed-in')
  @ApiQuery({ name: 'q', required: false, type: String })
  @ApiQuery({ name: 'state', required: false, enum: ['open', 'all'] })
  @ApiQuery({ name: 'site', required: false, type: String })
  @Windowed()
  list(
    @AtSites() siteIds: readonly number[],
    @AskedWindow() window: Window,
    @Query('q') q?: unknown,
    @Query('state') state?: unknown,
  ): Promise<CustomerReturnPageDto> {
    return this.queries.list(siteIds, { q: textOf(q, 100), state: textOf(state, 10) }, window);
  }

  /** What goods at the dock may belong to: by paper, order, parcel, tracking number, number of a piece, goods or customer. */
  @Get('find')
  @Access('receive')
  @ApiQuery({ name: 'q', required: true, type: String })
  @ApiQuery({ name: 'site', required: false, type: String })
  find(@AtSites() siteIds: readonly number[], @Query('q') q: unknown): Promise<ReturnFoundDto[]> {
    return this.finding.find(textOf(q, 120), siteIds);
  }

  /** What comes back of what leaves, and why. */
  @Get('tally')
  @Access('signed-in')
  @ApiQuery({ name: 'by', required: false, enum: TALLY_BY })
  @ApiQuery({ name: 'from', required: false, type: String })
  @ApiQuery({ name: 'to', required: false, type: String })
  tally(@Reader() person: Person, @Query() query: Record<string, unknown>): Promise<ReturnTallyDto> {
    return this.tallies.tally(person.siteIds, tallyAsked(query));
  }

  /** What of an order is with the customer. */
  @Get('of-order/:code')
  @Access('signed-in')
  ofOrder(@Reader() person: Person, @Param('code') code: string): Promise<ReturnableDto[]> {
    return this.queries.returnable(person, code);
  }

  @Post()
  @Access('order-desk')
  announce(@Acting() act: Act, @Body() body: AnnounceReturnDto): Promise<CodeDto> {
    return this.returns.announce(act, body);
  }

  /** Goods stand at the dock: the return that they belong to, or a new one. */
  @Post('open')
  @Access('receive')
  @HttpCode(200)
  open(@Acting() act: Act, @Body() body: OpenReturnDto): Promise<CodeDto> {
    return this.returns.open(act, body);
  }

  @Get(':code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<CustomerReturnDto> {
    return this.queries.sheet(person, code);
  }

  /** The paper that goes into the parcel. */
  @Get(':code/pdf')
  @Access('signed-in')
  async pdf(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    return new StreamableFile(await this.papers.slip(person, code), {
      type: 'application/pdf',
      disposition: `inline; filename="${encodeURIComponent(code.toUpperCase())}.pdf"`,
    });
  }

  /** Mails the paper to the customer, again. */
  @Post(':code/paper')
  @Access('order-desk')
  @HttpCode(204)
  sendPaper(@Acting() act: Act, @Param('code') code: string): Promise<void> {
    return this.returns.sendPaper(act, code);
  }

  @Post(':code/call-off')
  @Access('order-desk')
  @HttpCode(200)
  callOff(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: CallOffDto): Promise<CodeDto> {
    return this.returns.callOff(act, code, version, body.why);
  }

  /** Says what the customer gets. */
  @Post(':code/settle')
  @Access('settle-returns')
  @HttpCode(200)
  settle(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: SettleReturnDto): Promise<CodeDto> {
    return this.settling.settle(act, code, version, body);
  }

  /** What was to be repaired is kept instead. */
  @Post(':code/pieces/:id/keep')
  @Access('settle-returns')
  @HttpCode(200)
  keep(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('code') code: string,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: KeepInsteadDto,
  ): Promise<CodeDto> {
    return this.settling.keepInstead(act, code, version, id, body);
  }

  /** The body is the picture file itself: JPEG, PNG or WebP. */
  @Post(':code/pictures')
  @Access('receive')
  @HttpCode(204)
  async addPicture(@Acting() act: Act, @Param('code') code: string, @Req() request: Request): Promise<void> {
    await this.pictures.add(act, code, await readBody(request, MOST_PICTURE_BYTES));
  }

  @Get(':code/pictures/:id')
  @Access('signed-in')
  @Header('cache-control', 'private, max-age=0')
  @ApiOkResponse({ content: { 'image/webp': {} } })
  async picture(
    @Reader() person: Person,
    @Res() response: Response,
    @Param('code') code: string,
    @Param('id', ParseIntPipe) id: number,
  ): Promise<void> {
    const { type, bytes } = await this.pictures.read(person, code, id);
    response.type(type).send(bytes);
  }
}
