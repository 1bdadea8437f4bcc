import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { ChannelsModule } from '../channels/index.js';
import { InvoicingModule } from '../invoicing/index.js';
import { LettersModule } from '../letters/index.js';
import { OrdersModule } from '../orders/index.js';
import { PrintingModule } from '../printing/index.js';
import { StockModule } from '../stock/index.js';
import { ComingBack } from './coming-back.service.js';
import { CustomerReturnMail } from './customer-return.mail.js';
import { CustomerReturnsController } from './customer-returns.controller.js';
import { CustomerReturnsFloor } from './customer-returns.floor.js';
import { CustomerReturnQueries } from './customer-returns.queries.js';
import { CustomerReturns } from './customer-returns.service.js';
import { FoundQueries } from './found.queries.js';
import { ReturnPictures } from './pictures.service.js';
import { CustomerReturnPapers } from './return-papers.js';
import { Settling } from './settling.service.js';
import { TallyQueries } from './tally.queries.js';

@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, LettersModule, ChannelsModule, OrdersModule, InvoicingModule, PrintingModule],
  controllers: [CustomerReturnsController],
  providers: [
    CustomerReturns,
    ComingBack,
    Settling,
    CustomerReturnQueries,
    FoundQueries,
    TallyQueries,
    CustomerReturnsFloor,
    CustomerReturnPapers,
    CustomerReturnMail,
    ReturnPictures,
  ],
  exports: [CustomerReturns, ComingBack, Settling],
})
export class CustomerReturnsModule {}
