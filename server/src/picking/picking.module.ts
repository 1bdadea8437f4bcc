import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { CatalogueModule } from '../catalogue/catalogue.module.js';
import { OrdersModule } from '../orders/orders.module.js';
import { SitesModule } from '../sites/sites.module.js';
import { StockModule } from '../stock/stock.module.js';
import { PickingController } from './picking.controller.js';
import { PickingFloor } from './picking.floor.js';
import { PickingQueries } from './picking.queries.js';
import { PickingService } from './picking.service.js';
import { ReleaseService } from './release.service.js';
import { ShortService } from './short.service.js';

@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, SitesModule, OrdersModule],
  controllers: [PickingController],
  providers: [PickingFloor, PickingQueries, PickingService, ReleaseService, ShortService],
  exports: [PickingQueries, PickingService, ReleaseService, ShortService],
})
export class PickingModule {}
