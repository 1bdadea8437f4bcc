import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CarriersModule } from '../carriers/index.js';
import { OrdersModule } from '../orders/index.js';
import { StockModule } from '../stock/index.js';
import { PackingModule } from '../packing/index.js';
import { DispatchController } from './dispatch.controller.js';
import { DispatchService } from './dispatch.service.js';
import { ShipmentMail } from './shipment.mail.js';

@Module({
  imports: [PackingModule, CarriersModule, StockModule, AllocationModule, OrdersModule],
  controllers: [DispatchController],
  providers: [DispatchService, ShipmentMail],
  exports: [DispatchService],
})
export class DispatchModule {}
