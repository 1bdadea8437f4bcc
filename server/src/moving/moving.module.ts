import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { StockModule } from '../stock/index.js';
import { MovingFloor } from './moving.floor.js';
import { MovingQueries } from './moving.queries.js';
import { MovingService } from './moving.service.js';

/** Goods that go from anywhere to anywhere, are used up, or change their condition. */
@Module({
  imports: [StockModule, CatalogueModule, AllocationModule],
  providers: [MovingFloor, MovingQueries, MovingService],
})
export class MovingModule {}
