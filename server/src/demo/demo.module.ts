import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/allocation.module.js';
import { InspectionModule } from '../inspection/inspection.module.js';
import { OrdersModule } from '../orders/orders.module.js';
import { PackingModule } from '../packing/packing.module.js';
import { PickingModule } from '../picking/picking.module.js';
import { PurchasingModule } from '../purchasing/purchasing.module.js';
import { ReceivingModule } from '../receiving/receiving.module.js';
import { ReturnsModule } from '../returns/returns.module.js';
import { SitesModule } from '../sites/sites.module.js';
import { StockModule } from '../stock/stock.module.js';
import { DemoBuying } from './buying.js';
import { DemoExtras } from './extras.js';
import { DemoHands } from './hands.js';
import { DemoHistory } from './history.js';
import { DemoHouse } from './house.js';
import { DemoLoader } from './demo.loader.js';
import { DemoInspecting } from './inspecting.js';
import { DemoMorning } from './morning.js';
import { DemoOrders } from './orders.js';
import { PracticeController } from './practice.controller.js';

@Module({
  imports: [
    StockModule,
    SitesModule,
    AllocationModule,
    PurchasingModule,
    ReceivingModule,
    InspectionModule,
    ReturnsModule,
    OrdersModule,
    PickingModule,
    PackingModule,
  ],
  controllers: [PracticeController],
  providers: [DemoHands, DemoHouse, DemoExtras, DemoHistory, DemoMorning, DemoBuying, DemoInspecting, DemoOrders, DemoLoader],
})
export class DemoModule {}
