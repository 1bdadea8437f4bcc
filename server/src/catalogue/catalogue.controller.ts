import { Body, Controller, Get, Param, Post, Put, Query } from '@nestjs/common';
import { type Act, Acting, type Person, Reader } from '../platform/act.js';
import { CodeDto } from '../platform/code.dto.js';
import { notFound } from '../platform/problem.js';
import { IfMatch } from '../platform/version.js';
import { Access } from '../identity/access.js';
import { ItemStockDto, MovementDto, WhyTermDto } from '../stock/stock.dto.js';
import { StockQueries } from '../stock/stock.queries.js';
import { EditItemDto, ItemDto, ItemRowDto } from './catalogue.dto.js';
import { ItemQueries } from './item.queries.js';
import { ItemsService } from './items.service.js';

@Controller('api/items')
export class CatalogueController {
  constructor(
    private readonly queries: ItemQueries,
    private readonly items: ItemsService,
    private readonly stock: StockQueries,
  ) {}

  @Get()
  @Access('signed-in')
  list(@Reader() person: Person, @Query('search') search?: string): Promise<ItemRowDto[]> {
    return this.queries.list(person.siteIds, String(search ?? '').slice(0, 100));
  }

  @Get(':sku')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('sku') sku: string): Promise<ItemDto> {
    return this.queries.sheet(sku.toUpperCase(), person.seesCosts);
  }

  @Get(':sku/stock')
  @Access('signed-in')
  async stockOf(@Reader() person: Person, @Param('sku') sku: string): Promise<ItemStockDto> {
    return this.stock.ofItem(await this.idOf(sku), person.siteIds);
  }

  @Get(':sku/movements')
  @Access('signed-in')
  async movements(@Reader() person: Person, @Param('sku') sku: string): Promise<MovementDto[]> {
    return this.stock.movements(await this.idOf(sku), person.siteIds);
  }

  /** The sum behind a figure: `available` or `on-hand`, at one site. */
  @Get(':sku/why/:figure/:siteId')
  @Access('signed-in')
  async why(
    @Reader() person: Person,
    @Param('sku') sku: string,
    @Param('figure') figure: string,
    @Param('siteId') site: string,
  ): Promise<WhyTermDto[]> {
    const siteId = Number(site);
    if (!person.siteIds.includes(siteId)) throw notFound('That site');
    if (figure !== 'available' && figure !== 'on-hand') throw notFound(`A sum called ${figure}`);
    const itemId = await this.idOf(sku);
    return figure === 'available' ? this.stock.whyAvailable(itemId, siteId) : this.stock.whyOnHand(itemId, siteId);
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

  private async idOf(sku: string): Promise<number> {
    return (await this.queries.sheet(sku.toUpperCase(), false)).id;
  }
}
