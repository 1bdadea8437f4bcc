import { Module } from '@nestjs/common';
import { DrawingsController } from './drawings.controller.js';
import { Drawings } from './drawings.service.js';
import { CatalogueController } from './catalogue.controller.js';
import { ItemChanges } from './changes.service.js';
import { CodebookQueries } from './codebook.queries.js';
import { ExtraFieldsService } from './extra-fields.service.js';
import { ItemListQueries } from './item-list.queries.js';
import { ItemQueries } from './item.queries.js';
import { ItemsService } from './items.service.js';
import { ManyBarcodes } from './many-barcodes.service.js';
import { PictureLinks } from './picture-links.service.js';
import { PicturesController } from './pictures.controller.js';
import { PicturesService } from './pictures.service.js';
import { UnmatchedCodesController } from './unmatched-codes.controller.js';
import { UnmatchedCodes } from './unmatched-codes.service.js';
import { CatalogueFiles } from './catalogue.files.js';

@Module({
  controllers: [CatalogueController, DrawingsController, PicturesController, UnmatchedCodesController],
  providers: [
    Drawings,
    CatalogueFiles,
    ItemQueries,
    ItemListQueries,
    ItemsService,
    ItemChanges,
    ExtraFieldsService,
    PicturesService,
    CodebookQueries,
    UnmatchedCodes,
    ManyBarcodes,
    PictureLinks,
  ],
  exports: [Drawings, ItemQueries, ItemListQueries, ItemsService, CodebookQueries, UnmatchedCodes],
})
export class CatalogueModule {}
