import { Global, Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { ConnectorsModule } from '../connectors/index.js';
import { DispatchModule } from '../dispatch/index.js';
import { SIGN_IN_HINTS } from '../identity/index.js';
import { InspectionModule } from '../inspection/index.js';
import { OrderDeskModule } from '../order-desk/index.js';
import { OrdersModule } from '../orders/index.js';
import { PackingModule } from '../packing/index.js';
import { PickingModule } from '../picking/index.js';
import { PurchasingModule } from '../purchasing/index.js';
import { PutawayModule } from '../putaway/index.js';
import { ReceivingModule } from '../receiving/index.js';
import { ReturnsModule } from '../returns/index.js';
import { SortingModule } from '../sorting/index.js';
import { SitesModule } from '../sites/index.js';
import { CarriersModule } from '../carriers/index.js';
import { TrackingModule } from '../tracking/index.js';
import { StockModule } from '../stock/index.js';
import { BooksModule } from '../books/index.js';
import { InvoicingModule } from '../invoicing/index.js';
import { DemoBooks } from './books.js';
import { CustomersModule } from '../customers/index.js';
import { CustomerReturnsModule } from '../customer-returns/index.js';
import { DemoLeaving } from './leaving.js';
import { DemoReturns } from './returns.js';
import { DemoBuying } from './buying.js';
import { DemoDemand } from './demand.js';
import { DemoDesk } from './desk.js';
import { DemoExtras } from './extras.js';
import { demoSignIns } from './people.js';
import { CatalogueModule, Drawings } from '../catalogue/index.js';
import { DEMO_DRAWINGS } from './drawings.js';
import { CountingModule } from '../counting/index.js';
import { DemoCounts } from './counts.js';
import { BuildingModule } from '../building/index.js';
import { PlanningModule } from '../planning/index.js';
import { TransfersModule } from '../transfers/index.js';
import { DemoTransfers } from './transfers.js';
import { DemoDispatch } from './dispatch.js';
import { DemoHands } from './hands.js';
import { DemoHistory } from './history.js';
import { DemoHouse } from './house.js';
import { DemoLoader } from './demo.loader.js';
import { DemoInspecting } from './inspecting.js';
import { DemoMorning } from './morning.js';
import { DemoOrders } from './orders.js';
import { DemoWall } from './wall.js';
import { DemoUnread } from './unread.js';
import { PracticeController } from './practice.controller.js';

/** The made-up business. Global, so that the sign-in page can offer its people. */
@Global()
@Module({
  imports: [
    CatalogueModule,
    StockModule,
    SitesModule,
    AllocationModule,
    PurchasingModule,
    ReceivingModule,
    PutawayModule,
    InspectionModule,
    ReturnsModule,
    OrdersModule,
    PickingModule,
    SortingModule,
    PackingModule,
    ConnectorsModule,
    OrderDeskModule,
    CarriersModule,
    DispatchModule,
    TrackingModule,
    BooksModule,
    InvoicingModule,
    CustomerReturnsModule,
    CountingModule,
    TransfersModule,
    BuildingModule,
    PlanningModule,
    CustomersModule,
  ],
  controllers: [PracticeController],
  exports: [SIGN_IN_HINTS],
  providers: [
    { provide: SIGN_IN_HINTS, useValue: demoSignIns() },
    DemoHands,
    DemoLeaving,
    DemoReturns,
    DemoCounts,
    DemoTransfers,
    DemoHouse,
    DemoExtras,
    DemoHistory,
    DemoMorning,
    DemoBuying,
    DemoInspecting,
    DemoOrders,
    DemoWall,
    DemoUnread,
    DemoDesk,
    DemoDispatch,
    DemoBooks,
    DemoDemand,
    DemoLoader,
  ],
})
export class DemoModule {
  constructor(drawings: Drawings) {
    drawings.register(DEMO_DRAWINGS);
  }
}
