import { Module } from '@nestjs/common';
import { LedgerService } from './ledger.service.js';
import { StockQueries } from './stock.queries.js';

@Module({ providers: [LedgerService, StockQueries], exports: [LedgerService, StockQueries] })
export class StockModule {}
