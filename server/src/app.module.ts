import { type DynamicModule, Module, type Type } from '@nestjs/common';
import type { Logger } from 'pino';
import { ActivityModule } from './activity/index.js';
import { AllocationModule } from './allocation/index.js';
import { BooksModule } from './books/index.js';
import { InvoicingModule } from './invoicing/index.js';
import { CarriersModule } from './carriers/index.js';
import { CatalogueModule } from './catalogue/index.js';
import { ChannelsModule } from './channels/index.js';
import { CompanyModule } from './company/index.js';
import { ConnectorsModule } from './connectors/index.js';
import { CountingModule } from './counting/index.js';
import { CustomerReturnsModule } from './customer-returns/index.js';
import { CustomersModule } from './customers/index.js';
import { DeskModule } from './desk/index.js';
import { TracingModule } from './tracing/index.js';
import { TrackingModule } from './tracking/index.js';
import { LettersModule } from './letters/index.js';
import { DispatchModule } from './dispatch/index.js';
import { ExchangeModule } from './exchange/index.js';
import { FloorModule } from './floor/index.js';
import { IdentityModule } from './identity/index.js';
import { InspectionModule } from './inspection/index.js';
import { OrderDeskModule } from './order-desk/index.js';
import { OrdersModule } from './orders/index.js';
import { PackingModule } from './packing/index.js';
import { PickingModule } from './picking/index.js';
import { SortingModule } from './sorting/index.js';
import { type Config, PlatformModule } from './platform/index.js';
import { PrintingModule } from './printing/index.js';
import { WeighingModule } from './weighing/index.js';
import { PurchasingModule } from './purchasing/index.js';
import { MovingModule } from './moving/index.js';
import { BuildingModule } from './building/index.js';
import { PlanningModule } from './planning/index.js';
import { TransfersModule } from './transfers/index.js';
import { PutawayModule } from './putaway/index.js';
import { ReceivingModule } from './receiving/index.js';
import { ReturnsModule } from './returns/index.js';
import { SettingsModule } from './settings/index.js';
import { SitesModule } from './sites/index.js';
import { StockModule } from './stock/index.js';
import { SuppliersModule } from './suppliers/index.js';
import { migrations } from './schema/index.js';

/** The house, floor by floor: each module stands on those before it (eslint.config.js holds the same order). */
@Module({})
export class AppModule {
  /** `more` are modules that only some houses have, such as the demo. */
  static with(config: Config, log: Logger, more: readonly Type[]): DynamicModule {
    return {
      module: AppModule,
      imports: [
        PlatformModule.with(config, log, migrations),
        ActivityModule,
        SettingsModule,
        IdentityModule,
        SitesModule,
        CompanyModule,
        CatalogueModule,
        StockModule,
        AllocationModule,
        SuppliersModule,
        PrintingModule,
        WeighingModule,
        FloorModule,
        CarriersModule,
        PurchasingModule,
        ReturnsModule,
        InspectionModule,
        ReceivingModule,
        BooksModule,
        InvoicingModule,
        CustomersModule,
        ChannelsModule,
        OrdersModule,
        CountingModule,
        PickingModule,
        SortingModule,
        MovingModule,
        TransfersModule,
        BuildingModule,
        PlanningModule,
        PutawayModule,
        PackingModule,
        OrderDeskModule,
        CustomerReturnsModule,
        ConnectorsModule,
        LettersModule,
        DispatchModule,
        TrackingModule,
        TracingModule,
        ExchangeModule,
        DeskModule,
        ...more,
      ],
    };
  }
}
