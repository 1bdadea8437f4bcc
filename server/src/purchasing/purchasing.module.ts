import { Module } from '@nestjs/common';
import { DroppedOrders } from './dropped-orders.js';
import { PurchaseOrderMail } from './purchase-order.mail.js';
import { AnswersService } from './answers.service.js';
import { DraftsService } from './drafts.service.js';
import { OrderFilesController } from './order-files.controller.js';
import { OrderFiles } from './order-files.service.js';
import { OrderDocuments } from './order-documents.js';
import { PurchasingController } from './purchasing.controller.js';
import { PurchasingQueries } from './purchasing.queries.js';
import { PurchasingService } from './purchasing.service.js';
import { PurchasingFiles } from './purchasing.files.js';

@Module({
  controllers: [PurchasingController, OrderFilesController],
  providers: [
    DroppedOrders,
    PurchasingFiles,
    PurchasingQueries,
    PurchasingService,
    DraftsService,
    AnswersService,
    OrderDocuments,
    OrderFiles,
    PurchaseOrderMail,
  ],
  exports: [DroppedOrders, PurchasingService, AnswersService, PurchasingQueries],
})
export class PurchasingModule {}
