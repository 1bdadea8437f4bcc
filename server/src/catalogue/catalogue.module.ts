import { Module } from '@nestjs/common';
import { StockModule } from '../stock/stock.module.js';
import { CatalogueController } from './catalogue.controller.js';
import { ItemChanges } from './changes.service.js';
import { CodebookQueries } from './codebook.queries.js';
import { ExtraFieldsService } from './extra-fields.service.js';
import { ItemListQueries } from './item-list.queries.js';
import { ItemQueries } from './item.queries.js';
import { ItemsService } from './items.service.js';
import { PartnersController } from './partners.controller.js';
import { DocumentKeys } from './document-keys.service.js';
import { PartnersService } from './partners.service.js';
import { ScorecardQueries } from './scorecard.queries.js';
import { PicturesService } from './pictures.service.js';

@Module({
  imports: [StockModule],
  controllers: [CatalogueController, PartnersController],
  providers: [
    ItemQueries,
    ItemListQueries,
    ItemsService,
    ItemChanges,
    ExtraFieldsService,
    PicturesService,
    PartnersService,
    DocumentKeys,
    ScorecardQueries,
    CodebookQueries,
  ],
  exports: [ItemQueries, ItemListQueries, ItemsService, PartnersService, CodebookQueries],
})
export class CatalogueModule {}
