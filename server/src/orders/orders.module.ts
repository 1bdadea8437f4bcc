import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { CustomersController } from './customers.controller.js';
import { CustomersService } from './customers.service.js';
import { OrderIntake } from './order-intake.service.js';
import { OrderStates } from './order-states.service.js';
import { OrdersController } from './orders.controller.js';
import { OrdersQueries } from './orders.queries.js';
import { OrdersService } from './orders.service.js';

@Module({
  imports: [AllocationModule],
  controllers: [OrdersController, CustomersController],
  providers: [OrdersQueries, OrdersService, OrderIntake, OrderStates, CustomersService],
  exports: [OrdersQueries, OrderIntake, OrderStates, CustomersService],
})
export class OrdersModule {}
