import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CarriersModule } from '../carriers/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { OrdersModule } from '../orders/index.js';
import { PrintingModule } from '../printing/index.js';
import { StockModule } from '../stock/index.js';
import { InsertsService } from './inserts.service.js';
import { LabelService } from './labels.service.js';
import { PackingController } from './packing.controller.js';
import { PackingFloor } from './packing.floor.js';
import { PackingQueries } from './packing.queries.js';
import { PackingService } from './packing.service.js';
import { ParcelLabels } from './parcel-labels.service.js';
import { ParcelPictures } from './parcel-pictures.service.js';
import { ParcelSerials } from './parcel-serials.js';
import { ParcelPapers } from './parcel-papers.service.js';
import { ParcelsService } from './parcels.service.js';
import { ReopeningService } from './reopening.service.js';

@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, OrdersModule, CarriersModule, PrintingModule],
  controllers: [PackingController],
  providers: [
    PackingQueries,
    PackingService,
    ParcelsService,
    ParcelLabels,
    ParcelSerials,
    ParcelPapers,
    ReopeningService,
    LabelService,
    InsertsService,
    ParcelPictures,
    PackingFloor,
  ],
  exports: [ParcelsService, ParcelPapers],
})
export class PackingModule {}
