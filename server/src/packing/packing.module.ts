import { Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/catalogue.module.js';
import { DispatchModule } from '../dispatch/dispatch.module.js';
import { StockModule } from '../stock/stock.module.js';
import { LabelService } from './label.service.js';
import { PackingController } from './packing.controller.js';
import { PackingQueries } from './packing.queries.js';
import { PackingService } from './packing.service.js';

@Module({
  imports: [StockModule, CatalogueModule, DispatchModule],
  controllers: [PackingController],
  providers: [PackingQueries, PackingService, LabelService],
  exports: [PackingService, LabelService],
})
export class PackingModule {}
