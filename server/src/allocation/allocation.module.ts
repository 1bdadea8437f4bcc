import { Module } from '@nestjs/common';
import { StockModule } from '../stock/index.js';
import { AllocationService } from './allocation.service.js';
import { Containers } from './containers.service.js';
import { Earmarks } from './earmarks.service.js';
import { Reservations } from './reservations.service.js';
import { AllocationFiles } from './allocation.files.js';
import { OpeningStockShape } from './opening-stock.shape.js';

@Module({
  imports: [StockModule],
  providers: [OpeningStockShape, AllocationFiles, AllocationService, Containers, Earmarks, Reservations],
  exports: [AllocationService, Containers, Earmarks, Reservations],
})
export class AllocationModule {}
