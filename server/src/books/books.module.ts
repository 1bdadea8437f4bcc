import { Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/index.js';
import { ValueModule } from '../stock/index.js';
import { BillsController } from './bills.controller.js';
import { BillsQueries } from './bills.queries.js';
import { BillsService } from './bills.service.js';

@Module({
  imports: [ValueModule, CatalogueModule],
  controllers: [BillsController],
  providers: [BillsService, BillsQueries],
  exports: [BillsService],
})
export class BooksModule {}
