import { Body, Controller, Get, HttpCode, Param, Post, StreamableFile } from '@nestjs/common';
import { Access } from '../identity/index.js';
import {
  type Act,
  Acting,
  AskedWindow,
  CodeDto,
  IfMatch,
  type Person,
  PostedDto,
  Reader,
  type Window,
  Windowed,
} from '../platform/index.js';
import { ReturnPapers } from './return-papers.js';
import { AsideDto, CreditDto, SendBackDto, SupplierReturnDto, SupplierReturnPageDto, TakeInDto } from './returns.dto.js';
import { SupplierReturnQueries } from './supplier-returns.queries.js';
import { SupplierReturns } from './supplier-returns.service.js';
import { TakingIn } from './taking-in.service.js';

@Controller('api/supplier-returns')
export class SupplierReturnsController {
  constructor(
    private readonly queries: SupplierReturnQueries,
    private readonly returns: SupplierReturns,
    private readonly takingIn: TakingIn,
    private readonly papers: ReturnPapers,
  ) {}

  @Get()
  @Access('signed-in')
  @Windowed()
  list(@Reader() person: Person, @AskedWindow() window: Window): Promise<SupplierReturnPageDto> {
    return this.queries.list(person, window);
  }

  /** Goods that stand apart: damaged, wrong or refused. */
  @Get('aside')
  @Access('signed-in')
  aside(@Reader() person: Person): Promise<AsideDto[]> {
    return this.queries.aside(person.siteIds);
  }

  /** What an arrival brought and is still here, to be sent back from stock. */
  @Get('of-arrival/:code')
  @Access('signed-in')
  ofArrival(@Reader() person: Person, @Param('code') code: string): Promise<AsideDto[]> {
    return this.queries.ofArrival(person, code.toUpperCase());
  }

  /** Takes goods that stand apart into stock after all. */
  @Post('aside/take-in')
  @Access('take-in')
  @HttpCode(200)
  take(@Acting() act: Act, @Body() body: TakeInDto): Promise<PostedDto> {
    return this.takingIn.take(act, body);
  }

  @Get(':code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<SupplierReturnDto> {
    return this.queries.sheet(person, code.toUpperCase());
  }

  /** The note that goes with the goods. */
  @Get(':code/pdf')
  @Access('signed-in')
  async pdf(@Reader() person: Person, @Param('code') code: string): Promise<StreamableFile> {
    const note = await this.queries.sheet(person, code.toUpperCase());
    return new StreamableFile(await this.papers.note(note), {
      type: 'application/pdf',
      disposition: `inline; filename="${note.code}.pdf"`,
    });
  }

  @Post()
  @Access('buy')
  send(@Acting() act: Act, @Body() body: SendBackDto): Promise<CodeDto> {
    return this.returns.send(act, body);
  }

  /** Holds a credit note against what is expected. */
  @Post(':code/credit')
  @Access('bills')
  @HttpCode(200)
  credit(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: CreditDto): Promise<CodeDto> {
    return this.returns.credit(act, code.toUpperCase(), version, body);
  }
}
