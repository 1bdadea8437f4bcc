import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { ChannelsModule } from '../channels/index.js';
import { Announcing } from './announcing.js';
import { ComingQueries } from './coming.js';
import { CuresQueries } from './cures.queries.js';
import { InsertRulesController } from './insert-rules.controller.js';
import { InsertRules } from './insert-rules.service.js';
import { OrderIntake } from './order-intake.service.js';
import { OrderWriter } from './order-writer.js';
import { OrderStates } from './order-states.service.js';
import { OrdersController } from './orders.controller.js';
import { OrderPapers } from './order-papers.js';
import { OrdersQueries } from './orders.queries.js';
import { WaysQueries } from './ways.queries.js';
import { OrdersFiles } from './orders.files.js';

@Module({
  imports: [AllocationModule, ChannelsModule],
  controllers: [OrdersController, InsertRulesController],
  providers: [
    InsertRules,
    Announcing,
    OrdersFiles,
    OrdersQueries,
    OrderIntake,
    OrderWriter,
    OrderStates,
    OrderPapers,
    WaysQueries,
    CuresQueries,
    ComingQueries,
  ],
  exports: [ComingQueries, WaysQueries, OrdersQueries, OrderPapers, OrderIntake, OrderWriter, OrderStates],
})
export class OrdersModule {}
