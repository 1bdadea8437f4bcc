import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { CountingModule } from '../counting/index.js';
import { LettersModule } from '../letters/index.js';
import { StockModule } from '../stock/index.js';
import { ExpiringQueries } from './expiring.queries.js';
import { LotMends } from './lot-mends.service.js';
import { RecallMail } from './recall.mail.js';
import { Recalls } from './recalls.service.js';
import { TraceQueries } from './trace.queries.js';
import { TracingController } from './tracing.controller.js';

/** Where lots and numbers came from, where they are and who got them; and what is held everywhere. */
@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, CountingModule, LettersModule],
  controllers: [TracingController],
  providers: [ExpiringQueries, LotMends, RecallMail, Recalls, TraceQueries],
  exports: [Recalls],
})
export class TracingModule {}
