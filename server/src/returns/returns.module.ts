import { ReturnPapers } from './return-papers.js';
import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { StockModule } from '../stock/index.js';
import { SupplierReturnMail } from './supplier-return.mail.js';
import { SupplierReturnsController } from './supplier-returns.controller.js';
import { SupplierReturnQueries } from './supplier-returns.queries.js';
import { TakingIn } from './taking-in.service.js';
import { SupplierReturns } from './supplier-returns.service.js';

@Module({
  imports: [StockModule, CatalogueModule, AllocationModule],
  controllers: [SupplierReturnsController],
  providers: [SupplierReturns, TakingIn, SupplierReturnQueries, SupplierReturnMail, ReturnPapers],
  exports: [SupplierReturns],
})
export class ReturnsModule {}
