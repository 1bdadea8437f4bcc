import { Module } from '@nestjs/common';
import { StockModule } from '../stock/stock.module.js';
import { CatalogueController } from './catalogue.controller.js';
import { CodebookQueries } from './codebook.queries.js';
import { ItemQueries } from './item.queries.js';
import { ItemsService } from './items.service.js';
import { PartnersController } from './partners.controller.js';
import { PartnersService } from './partners.service.js';

@Module({
  imports: [StockModule],
  controllers: [CatalogueController, PartnersController],
  providers: [ItemQueries, ItemsService, PartnersService, CodebookQueries],
  exports: [ItemQueries, ItemsService, PartnersService, CodebookQueries],
})
export class CatalogueModule {}
