import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { OrdersModule } from '../orders/orders.module.js';
import { StockModule } from '../stock/stock.module.js';
import { CarrierClient } from './carrier.client.js';
import { DispatchController } from './dispatch.controller.js';
import { DispatchService } from './dispatch.service.js';
import { ShipmentMail } from './shipment.mail.js';

@Module({
  imports: [StockModule, AllocationModule, OrdersModule],
  controllers: [DispatchController],
  providers: [DispatchService, CarrierClient, ShipmentMail],
  exports: [DispatchService, CarrierClient],
})
export class DispatchModule {}
