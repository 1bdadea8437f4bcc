import { Body, Controller, Delete, Get, Header, HttpCode, Param, Post, Put, Patch, Query, Req, Res } from '@nestjs/common';
import { ApiOkResponse, ApiQuery } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, type Person, readBody, Reader, textOf, wholeOf } from '../platform/index.js';
import { ItemChanges } from './changes.service.js';
import { ExtraFieldsService } from './extra-fields.service.js';
import { itemFilter } from './item-filter.js';
import { ItemListQueries } from './item-list.queries.js';
import { ItemQueries } from './item.queries.js';
import {
  ChangedDto,
  ChangeFieldDto,
  ChangeHomesDto,
  ChangeManyDto,
  EditExtraFieldsDto,
  EditItemDto,
  ExtraFieldsDto,
  ItemChoicesDto,
  ItemCountsDto,
  ItemDto,
  ItemPageDto,
  MadeBarcodesDto,
  MakeBarcodesDto,
  NewBarcodeDto,
} from './items.dto.js';
import { ItemsService } from './items.service.js';
import { ManyBarcodes } from './many-barcodes.service.js';
import { MOST_PICTURE_BYTES, PicturesService } from './pictures.service.js';

const MOST_ROWS = 500;
const FILTERS = ['search', 'site', 'className', 'tag', 'supplier', 'state', 'own', 'ownIs', 'ownHas'];
const Filtered =
  (...more: string[]): MethodDecorator =>
  (target, key, descriptor) => {
    for (const name of [...FILTERS, ...more]) ApiQuery({ name, required: false, type: String })(target, key, descriptor);
  };

@Controller('api/items')
export class CatalogueController {
  constructor(
    private readonly queries: ItemQueries,
    private readonly lists: ItemListQueries,
    private readonly items: ItemsService,
    private readonly changes: ItemChanges,
    private readonly extra: ExtraFieldsService,
    private readonly pictures: PicturesService,
    private readonly barcodes: ManyBarcodes,
  ) {}

  @Get()
  @Access('signed-in')
  @Filtered('sort', 'from', 'limit')
  list(@Reader() person: Person, @Query() query: Record<string, string>): Promise<ItemPageDto> {
    return this.lists.page(
      person,
      itemFilter(query),
      textOf(query['sort']),
      wholeOf(query['from'], 0),
      wholeOf(query['limit'], 100, 1, MOST_ROWS),
    );
  }

  @Get('counts')
  @Access('signed-in')
  @Filtered()
  counts(@Reader() person: Person, @Query() query: Record<string, string>): Promise<ItemCountsDto> {
    return this.lists.counts(person, itemFilter(query));
  }

  @Get('choices')
  @Access('signed-in')
  choices(): Promise<ItemChoicesDto> {
    return this.lists.choices();
  }

  @Get('extra-fields')
  @Access('signed-in')
  extraFields(): Promise<ExtraFieldsDto> {
    return this.extra.list();
  }

  @Put('extra-fields')
  @Access('set-up')
  @HttpCode(204)
  setExtraFields(@Acting() act: Act, @IfMatch() version: number, @Body() body: EditExtraFieldsDto): Promise<void> {
    return this.extra.replace(act, version, body);
  }

  /** Changes one field of many items at once. */
  @Post('changes')
  @Access('items')
  @HttpCode(200)
  changeMany(@Acting() act: Act, @Body() body: ChangeManyDto): Promise<ChangedDto> {
    return this.changes.many(act, body);
  }

  /** Gives goods of a site other pick faces. */
  @Post('homes')
  @Access('items')
  @HttpCode(200)
  changeHomes(@Acting() act: Act, @Body() body: ChangeHomesDto): Promise<ChangedDto> {
    return this.changes.homes(act, body);
  }

  /** Gives each item without a barcode one that the house makes, on its smallest pack. */
  @Post('barcodes')
  @Access('items')
  @HttpCode(200)
  makeBarcodes(@Acting() act: Act, @Body() body: MakeBarcodesDto): Promise<MadeBarcodesDto> {
    return this.barcodes.make(act, body);
  }

  @Get(':sku')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('sku') sku: string): Promise<ItemDto> {
    return this.queries.sheet(person, sku.toUpperCase());
  }

  @Post()
  @Access('items')
  add(@Acting() act: Act, @Body() body: EditItemDto): Promise<CodeDto> {
    return this.items.add(act, body);
  }

  @Put(':sku')
  @Access('items')
  edit(@Acting() act: Act, @IfMatch() version: number, @Param('sku') sku: string, @Body() body: EditItemDto): Promise<CodeDto> {
    return this.items.edit(act, sku.toUpperCase(), version, body);
  }

  /** Changes one field, from the list. */
  @Patch(':sku')
  @Access('items')
  change(@Acting() act: Act, @IfMatch() version: number, @Param('sku') sku: string, @Body() body: ChangeFieldDto): Promise<ChangedDto> {
    return this.changes.one(act, sku.toUpperCase(), version, body);
  }

  /** Ties a scanned code to a pack unit, or makes an in-house one. */
  @Post(':sku/barcodes')
  @Access('items', 'receive')
  @HttpCode(200)
  addBarcode(@Acting() act: Act, @Param('sku') sku: string, @Body() body: NewBarcodeDto): Promise<CodeDto> {
    return this.items.addBarcode(act, sku.toUpperCase(), body);
  }

  /** The picture as it was uploaded, brought to a size; `thumb` for lists. */
  @Get(':sku/picture')
  @Access('signed-in')
  @Header('cache-control', 'private, max-age=31536000, immutable')
  @ApiQuery({ name: 'size', required: false, type: String })
  @ApiOkResponse({ content: { 'image/webp': {} } })
  async picture(@Res() response: Response, @Param('sku') sku: string, @Query('size') size?: string): Promise<void> {
    const { type, bytes } = await this.pictures.read(sku.toUpperCase(), size === 'thumb' ? 'thumb' : 'large');
    response.type(type).send(bytes);
  }

  /** The body is the picture file itself: JPEG, PNG or WebP. */
  @Put(':sku/picture')
  @Access('items')
  @HttpCode(204)
  async setPicture(@Acting() act: Act, @Param('sku') sku: string, @Req() request: Request): Promise<void> {
    await this.pictures.keep(act, sku.toUpperCase(), await readBody(request, MOST_PICTURE_BYTES));
  }

  @Delete(':sku/picture')
  @Access('items')
  @HttpCode(204)
  dropPicture(@Acting() act: Act, @Param('sku') sku: string): Promise<void> {
    return this.pictures.drop(act, sku.toUpperCase());
  }
}
