import { Body, Controller, Delete, Get, HttpCode, Param, Post, Query, StreamableFile } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { RatesDto } from '../carriers/index.js';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, type Person, Reader, textOf } from '../platform/index.js';
import { PackTransferDto } from './parcels.dto.js';
import { TransferParcels } from './parcels.service.js';

/** The parcels in which goods go to another site. */
@Controller('api/transfers/:code/parcels')
export class TransferParcelsController {
  constructor(private readonly parcels: TransferParcels) {}

  /** What carriers would take for one more parcel of it. */
  @Get('rates')
  @Access('store')
  @ApiQuery({ name: 'box', required: false, type: String })
  rates(
    @Reader() person: Person,
    @Param('code') code: string,
    @Query('weight') weight: string,
    @Query('box') box?: unknown,
  ): Promise<RatesDto> {
    return this.parcels.rates(person, code.toUpperCase(), Number(weight), textOf(box, 20) || null);
  }

  @Post()
  @Access('store')
  pack(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: PackTransferDto): Promise<CodeDto> {
    return this.parcels.pack(act, code, version, body);
  }

  @Delete(':parcel')
  @Access('store')
  unpack(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Param('parcel') parcel: string): Promise<CodeDto> {
    return this.parcels.unpack(act, code, parcel.toUpperCase(), version);
  }

  @Get(':parcel/label')
  @Access('signed-in')
  async label(@Reader() person: Person, @Param('code') code: string, @Param('parcel') parcel: string): Promise<StreamableFile> {
    const name = parcel.toUpperCase();
    return new StreamableFile(await this.parcels.label(person, code.toUpperCase(), name), {
      type: 'application/pdf',
      disposition: `inline; filename="${name.replace(/[^A-Z0-9-]/g, '')}.pdf"`,
    });
  }

  @Post(':parcel/print')
  @Access('store')
  @HttpCode(204)
  print(@Acting() act: Act, @Param('code') code: string, @Param('parcel') parcel: string): Promise<void> {
    return this.parcels.print(act, code.toUpperCase(), parcel.toUpperCase());
  }
}
