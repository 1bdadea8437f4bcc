import { Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/index.js';
import { DocumentKeys } from './document-keys.service.js';
import { ScorecardQueries } from './scorecard.queries.js';
import { SuppliersController } from './suppliers.controller.js';
import { SuppliersService } from './suppliers.service.js';
import { SuppliersFiles } from './suppliers.files.js';

@Module({
  imports: [CatalogueModule],
  controllers: [SuppliersController],
  providers: [SuppliersFiles, SuppliersService, DocumentKeys, ScorecardQueries],
  exports: [SuppliersService],
})
export class SuppliersModule {}
