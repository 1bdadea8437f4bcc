import { Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/index.js';
import { LateMoves } from './late-moves.js';
import { LedgerService } from './ledger.service.js';
import { StockController } from './stock.controller.js';
import { StockQueries } from './stock.queries.js';
import { ValueModule } from './value/value.module.js';
import { StockFiles } from './stock.files.js';

@Module({
  imports: [CatalogueModule, ValueModule],
  controllers: [StockController],
  providers: [StockFiles, LateMoves, LedgerService, StockQueries],
  exports: [LateMoves, LedgerService, StockQueries, ValueModule],
})
export class StockModule {}
