import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { CatalogueModule } from '../catalogue/catalogue.module.js';
import { InspectionModule } from '../inspection/inspection.module.js';
import { SitesModule } from '../sites/sites.module.js';
import { StockModule } from '../stock/stock.module.js';
import { PurchasingModule } from '../purchasing/purchasing.module.js';
import { AnnouncementsService } from './announcements.service.js';
import { SupplierDocuments } from './supplier-documents.service.js';
import { ArrivalsController } from './arrivals.controller.js';
import { ArrivalsQueries } from './arrivals.queries.js';
import { ArrivalsService } from './arrivals.service.js';
import { DueQueries } from './due.queries.js';
import { PutawayQueries } from './putaway.queries.js';
import { ReceiptPictures } from './receipt-pictures.service.js';
import { ReceiveTaskQueries } from './receive-task.queries.js';
import { ReceivingController } from './receiving.controller.js';
import { ReceivingFloor } from './receiving.floor.js';
import { ReceivingService } from './receiving.service.js';
import { StoringService } from './storing.service.js';

@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, SitesModule, PurchasingModule, InspectionModule],
  controllers: [ReceivingController, ArrivalsController],
  providers: [
    ReceivingFloor,
    ReceivingService,
    ReceiveTaskQueries,
    ArrivalsService,
    ArrivalsQueries,
    ReceiptPictures,
    AnnouncementsService,
    SupplierDocuments,
    DueQueries,
    StoringService,
    PutawayQueries,
  ],
  exports: [ReceivingService, StoringService, ArrivalsService, SupplierDocuments],
})
export class ReceivingModule {}
