import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { CatalogueModule } from '../catalogue/catalogue.module.js';
import { OrdersModule } from '../orders/orders.module.js';
import { PickingModule } from '../picking/picking.module.js';
import { PurchasingModule } from '../purchasing/purchasing.module.js';
import { SitesModule } from '../sites/sites.module.js';
import { StockModule } from '../stock/stock.module.js';
import { ExportsController, ImportsController } from './exchange.controller.js';
import { ExportsService } from './exports.service.js';
import { ImportJobs } from './import-jobs.js';
import { ImportsQueries } from './imports.queries.js';
import { ImportsService } from './imports.service.js';
import { Lists } from './lists.js';
import { Shapes } from './registry.js';
import { StockShape } from './shapes/stock.js';

/** Files in and out: imports with a dry run and an undo, exports of lists and of everything. */
@Module({
  imports: [AllocationModule, CatalogueModule, OrdersModule, PickingModule, PurchasingModule, SitesModule, StockModule],
  controllers: [ImportsController, ExportsController],
  providers: [ImportsService, ImportsQueries, ImportJobs, ExportsService, Lists, Shapes, StockShape],
  exports: [ImportJobs, Shapes],
})
export class ExchangeModule {}
