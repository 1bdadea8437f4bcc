import { Module } from '@nestjs/common';
import { PurchaseOrderMail } from './purchase-order.mail.js';
import { PurchasingController } from './purchasing.controller.js';
import { PurchasingQueries } from './purchasing.queries.js';
import { PurchasingService } from './purchasing.service.js';

@Module({
  controllers: [PurchasingController],
  providers: [PurchasingQueries, PurchasingService, PurchaseOrderMail],
  exports: [PurchasingService, PurchasingQueries],
})
export class PurchasingModule {}
