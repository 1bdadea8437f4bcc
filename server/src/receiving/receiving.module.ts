import { Module } from '@nestjs/common';
import { clearByAge, Retention } from '../platform/index.js';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { InspectionModule } from '../inspection/index.js';
import { PurchasingModule } from '../purchasing/index.js';
import { SitesModule } from '../sites/index.js';
import { StockModule } from '../stock/index.js';
import { AnnouncementsService } from './announcements.service.js';
import { SupplierDocuments } from './supplier-documents.service.js';
import { Announced } from './announced.js';
import { ArrivalsController } from './arrivals.controller.js';
import { ArrivalsQueries } from './arrivals.queries.js';
import { ArrivalsService } from './arrivals.service.js';
import { DueQueries } from './due.queries.js';
import { InboundLinesQueries } from './inbound-lines.queries.js';
import { ReceiptPictures } from './receipt-pictures.service.js';
import { ReceiveTaskQueries } from './receive-task.queries.js';
import { ReceivingController } from './receiving.controller.js';
import { ReceivingFiles } from './receiving.files.js';
import { ReceivingFloor } from './receiving.floor.js';
import { ReceivingService } from './receiving.service.js';
import { UnreadDocumentsController } from './unread-documents.controller.js';
import { UnreadDocuments } from './unread-documents.service.js';

@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, SitesModule, PurchasingModule, InspectionModule],
  controllers: [ReceivingController, ArrivalsController, UnreadDocumentsController],
  providers: [
    Announced,
    ReceivingFloor,
    ReceivingService,
    ReceiveTaskQueries,
    ArrivalsService,
    ArrivalsQueries,
    ReceiptPictures,
    AnnouncementsService,
    SupplierDocuments,
    UnreadDocuments,
    DueQueries,
    InboundLinesQueries,
    ReceivingFiles,
  ],
  exports: [ReceivingService, ArrivalsService, SupplierDocuments],
})
export class ReceivingModule {
  constructor(retention: Retention) {
    retention.register({
      what: 'documents that were settled',
      keptFor: 'keepDeliveries',
      clear: (s, before) => clearByAge(s, 'unread_document', 'came_at', before, `state <> 'waiting'`),
    });
  }
}
