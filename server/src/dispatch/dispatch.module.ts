import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CarriersModule } from '../carriers/index.js';
import { FloorModule } from '../floor/index.js';
import { OrdersModule } from '../orders/index.js';
import { StockModule } from '../stock/index.js';
import { PackingModule } from '../packing/index.js';
import { DispatchController } from './dispatch.controller.js';
import { ConsignmentsService } from './consignments.service.js';
import { DispatchFloor } from './dispatch.floor.js';
import { HandOverService } from './hand-over.service.js';
import { LabelsQueries } from './labels.queries.js';
import { LanesQueries } from './lanes.queries.js';
import { LoadingService } from './loading.service.js';
import { ManifestService } from './manifest.service.js';
import { ShipmentMail } from './shipment.mail.js';
import { ShippingService } from './shipping.service.js';

@Module({
  imports: [PackingModule, CarriersModule, StockModule, AllocationModule, OrdersModule, FloorModule],
  controllers: [DispatchController],
  exports: [LanesQueries],
  providers: [
    LanesQueries,
    LabelsQueries,
    LoadingService,
    HandOverService,
    ShippingService,
    ConsignmentsService,
    DispatchFloor,
    ManifestService,
    ShipmentMail,
  ],
})
export class DispatchModule {}
