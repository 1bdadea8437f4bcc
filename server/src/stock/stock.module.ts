import { Module } from '@nestjs/common';
import { ValueModule } from '../books/value.module.js';
import { LedgerService } from './ledger.service.js';
import { StockQueries } from './stock.queries.js';

@Module({ imports: [ValueModule], providers: [LedgerService, StockQueries], exports: [LedgerService, StockQueries, ValueModule] })
export class StockModule {}
