import { Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/index.js';
import { LedgerService } from './ledger.service.js';
import { StockController } from './stock.controller.js';
import { StockQueries } from './stock.queries.js';
import { ValueModule } from './value/value.module.js';
import { StockFiles } from './stock.files.js';

@Module({
  imports: [CatalogueModule, ValueModule],
  controllers: [StockController],
  providers: [StockFiles, LedgerService, StockQueries],
  exports: [LedgerService, StockQueries, ValueModule],
})
export class StockModule {}
