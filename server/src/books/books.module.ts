import { Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/catalogue.module.js';
import { BillsController } from './bills.controller.js';
import { BillsQueries } from './bills.queries.js';
import { BillsService } from './bills.service.js';
import { ValueModule } from './value.module.js';

@Module({
  imports: [ValueModule, CatalogueModule],
  controllers: [BillsController],
  providers: [BillsService, BillsQueries],
  exports: [BillsService],
})
export class BooksModule {}
