import { Module } from '@nestjs/common';
import { StockModule } from '../stock/index.js';
import { BoxesController } from './boxes.controller.js';
import { BoxesService } from './boxes.service.js';
import { CarrierClient } from './carrier.client.js';
import { CarrierDesk } from './carrier-desk.js';
import { CarriersController } from './carriers.controller.js';
import { CarriersFiles } from './carriers.files.js';
import { CarriersQueries } from './carriers.queries.js';
import { CarriersService } from './carriers.service.js';

/** Who takes parcels away, in which boxes, and how they are spoken to. */
@Module({
  imports: [StockModule],
  controllers: [CarriersController, BoxesController],
  providers: [CarrierClient, CarrierDesk, CarriersQueries, CarriersService, BoxesService, CarriersFiles],
  exports: [CarrierDesk, CarriersQueries, CarriersService, BoxesService],
})
export class CarriersModule {}
