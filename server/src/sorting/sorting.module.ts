import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { CountingModule } from '../counting/index.js';
import { OrdersModule } from '../orders/index.js';
import { PickingModule } from '../picking/index.js';
import { StockModule } from '../stock/index.js';
import { SortMissingService } from './sort-missing.service.js';
import { SortingFloor } from './sorting.floor.js';
import { SortingQueries } from './sorting.queries.js';
import { SortingService } from './sorting.service.js';

/** From the totes of a pooled round into the slots of a wall. */
@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, OrdersModule, CountingModule, PickingModule],
  providers: [SortingFloor, SortingQueries, SortingService, SortMissingService],
  exports: [SortingQueries],
})
export class SortingModule {}
