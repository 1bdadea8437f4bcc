import { Controller, Get, Param, Query } from '@nestjs/common';
import { ApiQuery } from '@nestjs/swagger';
import { ItemQueries } from '../catalogue/index.js';
import { Access } from '../identity/index.js';
import { notFound, type Person, Reader, wholeOf } from '../platform/index.js';
import { ItemStockDto, MovementPageDto, WhyTermDto } from './stock.dto.js';
import { FIGURES, type Figure, StockQueries } from './stock.queries.js';

/** What there is of an item, how it came and went, and the sum behind each figure. */
@Controller('api/items')
export class StockController {
  constructor(
    private readonly items: ItemQueries,
    private readonly stock: StockQueries,
  ) {}

  @Get(':sku/stock')
  @Access('signed-in')
  async stockOf(@Reader() person: Person, @Param('sku') sku: string): Promise<ItemStockDto> {
    return this.stock.ofItem(await this.items.idOf(sku.toUpperCase()), person.siteIds);
  }

  @Get(':sku/movements')
  @Access('signed-in')
  @ApiQuery({ name: 'before', required: false, type: String })
  async movements(@Reader() person: Person, @Param('sku') sku: string, @Query('before') before?: string): Promise<MovementPageDto> {
    return this.stock.movements(await this.items.idOf(sku.toUpperCase()), person.siteIds, wholeOf(before, null, 1));
  }

  /** The sum behind a figure at one site: `on-hand`, `available`, `held`, `reserved`, `incoming` or `projected`. */
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
    const known = FIGURES.find((f): f is Figure => f === figure);
    if (!known) throw notFound(`A sum called ${figure}`);
    return this.stock.why(known, await this.items.idOf(sku.toUpperCase()), siteId);
  }
}
