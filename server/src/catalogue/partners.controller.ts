import { Body, Controller, Get, Param, Post, Put, Query } from '@nestjs/common';
import { type Act, Acting, type Person, Reader } from '../platform/act.js';
import { CodeDto } from '../platform/code.dto.js';
import { IfMatch } from '../platform/version.js';
import { Access } from '../identity/access.js';
import { DocumentKeys } from './document-keys.service.js';
import {
  ChannelDto,
  ChannelSheetDto,
  DocumentKeyDto,
  EditChannelDto,
  EditSupplierDto,
  NewChannelDto,
  SupplierDto,
  SupplierSheetDto,
} from './partners.dto.js';
import { PartnersService } from './partners.service.js';

@Controller('api')
export class PartnersController {
  constructor(
    private readonly partners: PartnersService,
    private readonly keys: DocumentKeys,
  ) {}

  @Get('suppliers')
  @Access('signed-in')
  suppliers(@Query('search') search?: string): Promise<SupplierDto[]> {
    return this.partners.suppliers(String(search ?? '').slice(0, 100));
  }

  @Get('suppliers/:code')
  @Access('signed-in')
  supplier(@Reader() person: Person, @Param('code') code: string): Promise<SupplierSheetDto> {
    return this.partners.supplier(code.toUpperCase(), person.seesCosts);
  }

  @Post('suppliers')
  @Access('buy')
  addSupplier(@Acting() act: Act, @Body() body: EditSupplierDto): Promise<CodeDto> {
    return this.partners.addSupplier(act, body);
  }

  /** A new key for documents that the supplier's own system sends; shown this once. The one before is void. */
  @Post('suppliers/:code/document-key')
  @Access('buy')
  documentKey(@Acting() act: Act, @Param('code') code: string): Promise<DocumentKeyDto> {
    return this.keys.give(act, code.toUpperCase());
  }

  @Put('suppliers/:code')
  @Access('buy')
  editSupplier(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('code') code: string,
    @Body() body: EditSupplierDto,
  ): Promise<CodeDto> {
    return this.partners.editSupplier(act, code.toUpperCase(), version, body);
  }

  @Get('channels')
  @Access('order-desk', 'set-up')
  channels(): Promise<ChannelDto[]> {
    return this.partners.channels();
  }

  @Get('channels/:code')
  @Access('order-desk', 'set-up')
  channel(@Param('code') code: string): Promise<ChannelSheetDto> {
    return this.partners.channel(code.toUpperCase());
  }

  @Post('channels')
  @Access('set-up')
  addChannel(@Acting() act: Act, @Body() body: NewChannelDto): Promise<CodeDto> {
    return this.partners.addChannel(act, body);
  }

  @Put('channels/:code')
  @Access('set-up')
  editChannel(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EditChannelDto): Promise<CodeDto> {
    return this.partners.editChannel(act, code.toUpperCase(), version, body);
  }
}
