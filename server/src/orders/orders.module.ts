import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { OrderIntake } from './order-intake.service.js';
import { OrdersController } from './orders.controller.js';
import { OrdersQueries } from './orders.queries.js';
import { OrdersService } from './orders.service.js';

@Module({
  imports: [AllocationModule],
  controllers: [OrdersController],
  providers: [OrdersQueries, OrdersService, OrderIntake],
  exports: [OrdersQueries, OrderIntake],
})
export class OrdersModule {}
