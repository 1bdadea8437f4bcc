import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { CatalogueModule } from '../catalogue/catalogue.module.js';
import { DispatchModule } from '../dispatch/dispatch.module.js';
import { OrdersModule } from '../orders/orders.module.js';
import { StockModule } from '../stock/stock.module.js';
import { LabelService } from './labels.service.js';
import { PackingController } from './packing.controller.js';
import { PackingFloor } from './packing.floor.js';
import { PackingQueries } from './packing.queries.js';
import { PackingService } from './packing.service.js';
import { ParcelsService } from './parcels.service.js';

@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, OrdersModule, DispatchModule],
  controllers: [PackingController],
  providers: [PackingQueries, PackingService, ParcelsService, LabelService, PackingFloor],
})
export class PackingModule {}
