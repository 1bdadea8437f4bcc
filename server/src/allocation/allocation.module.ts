import { Module } from '@nestjs/common';
import { StockModule } from '../stock/stock.module.js';
import { AllocationService } from './allocation.service.js';
import { Containers } from './containers.service.js';
import { Reservations } from './reservations.service.js';
import { StockTeller } from './stock-teller.js';

@Module({
  imports: [StockModule],
  providers: [AllocationService, Containers, Reservations, StockTeller],
  exports: [AllocationService, Containers, Reservations],
})
export class AllocationModule {}
