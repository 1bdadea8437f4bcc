import { type DynamicModule, Module } from '@nestjs/common';
import type { Logger } from 'pino';
import { ActivityModule } from './activity/activity.module.js';
import { AllocationModule } from './allocation/allocation.module.js';
import { CatalogueModule } from './catalogue/catalogue.module.js';
import { CompanyModule } from './company/company.module.js';
import { ChannelsModule } from './channels/channels.module.js';
import { DemoModule } from './demo/demo.module.js';
import { DispatchModule } from './dispatch/dispatch.module.js';
import { ExchangeModule } from './exchange/exchange.module.js';
import { FloorModule } from './floor/floor.module.js';
import { IdentityModule } from './identity/identity.module.js';
import { OrdersModule } from './orders/orders.module.js';
import { PackingModule } from './packing/packing.module.js';
import { PickingModule } from './picking/picking.module.js';
import type { Config } from './platform/config.js';
import { PlatformModule } from './platform/platform.module.js';
import { PrintingModule } from './printing/printing.module.js';
import { PurchasingModule } from './purchasing/purchasing.module.js';
import { InspectionModule } from './inspection/inspection.module.js';
import { ReturnsModule } from './returns/returns.module.js';
import { BooksModule } from './books/books.module.js';
import { ReceivingModule } from './receiving/receiving.module.js';
import { SitesModule } from './sites/sites.module.js';
import { StockModule } from './stock/stock.module.js';

@Module({})
export class AppModule {
  static with(config: Config, log: Logger): DynamicModule {
    return {
      module: AppModule,
      imports: [
        PlatformModule.with(config, log),
        IdentityModule,
        CompanyModule,
        ActivityModule,
        FloorModule,
        SitesModule,
        StockModule,
        CatalogueModule,
        AllocationModule,
        PurchasingModule,
        ReceivingModule,
        BooksModule,
        InspectionModule,
        ReturnsModule,
        OrdersModule,
        ChannelsModule,
        PickingModule,
        PackingModule,
        DispatchModule,
        PrintingModule,
        ExchangeModule,
        DemoModule,
      ],
    };
  }
}
