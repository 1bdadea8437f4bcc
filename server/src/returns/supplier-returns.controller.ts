import { Body, Controller, Get, HttpCode, Param, Post, StreamableFile } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, type Person, PostedDto, Reader } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { returnNotePdf } from './return-note.pdf.js';
import { AsideDto, CreditDto, SendBackDto, SupplierReturnDto, SupplierReturnRowDto, TakeInDto } from './returns.dto.js';
import { SupplierReturnQueries } from './supplier-returns.queries.js';
import { SupplierReturns } from './supplier-returns.service.js';
import { TakingIn } from './taking-in.service.js';

@Controller('api/supplier-returns')
export class SupplierReturnsController {
  constructor(
    private readonly queries: SupplierReturnQueries,
    private readonly returns: SupplierReturns,
    private readonly takingIn: TakingIn,
    private readonly settings: SettingsService,
  ) {}

  @Get()
  @Access('signed-in')
  list(@Reader() person: Person): Promise<SupplierReturnRowDto[]> {
    return this.queries.list(person);
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
    return new StreamableFile(await returnNotePdf(note, await this.settings.letterhead()), {
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
