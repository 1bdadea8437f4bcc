import { Body, Controller, Get, Param, Post, Put, Query } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, AskedWindow, CodeDto, IfMatch, type Person, Reader, textOf, type Window, Windowed } from '../platform/index.js';
import { DocumentKeys } from './document-keys.service.js';
import { DocumentKeyDto, EditSupplierDto, SupplierPageDto, SupplierSheetDto } from './suppliers.dto.js';
import { SuppliersService } from './suppliers.service.js';

@Controller('api/suppliers')
export class SuppliersController {
  constructor(
    private readonly service: SuppliersService,
    private readonly keys: DocumentKeys,
  ) {}

  @Get()
  @Access('signed-in')
  @Windowed()
  list(@AskedWindow() window: Window, @Query('search') search?: string): Promise<SupplierPageDto> {
    return this.service.list(textOf(search, 100), window);
  }

  @Get(':code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<SupplierSheetDto> {
    return this.service.sheet(code.toUpperCase(), person.seesCosts);
  }

  @Post()
  @Access('buy')
  add(@Acting() act: Act, @Body() body: EditSupplierDto): Promise<CodeDto> {
    return this.service.add(act, body);
  }

  /** A new key for documents that the supplier's own system sends; shown this once. The one before is void. */
  @Post(':code/document-key')
  @Access('buy')
  documentKey(@Acting() act: Act, @Param('code') code: string): Promise<DocumentKeyDto> {
    return this.keys.give(act, code.toUpperCase());
  }

  @Put(':code')
  @Access('buy')
  edit(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EditSupplierDto): Promise<CodeDto> {
    return this.service.edit(act, code.toUpperCase(), version, body);
  }
}
