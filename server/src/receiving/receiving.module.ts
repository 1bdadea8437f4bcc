import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { CatalogueModule } from '../catalogue/catalogue.module.js';
import { StockModule } from '../stock/stock.module.js';
import { ReceivingController } from './receiving.controller.js';
import { ReceivingService } from './receiving.service.js';
import { StoringService } from './storing.service.js';

@Module({
  imports: [StockModule, CatalogueModule, AllocationModule],
  controllers: [ReceivingController],
  providers: [ReceivingService, StoringService],
  exports: [ReceivingService, StoringService],
})
export class ReceivingModule {}
