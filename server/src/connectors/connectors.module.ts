import { Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/index.js';
import { ChannelsModule } from '../channels/index.js';
import { CustomerReturnsModule } from '../customer-returns/index.js';
import { InvoicingModule } from '../invoicing/index.js';
import { OrderDeskModule } from '../order-desk/index.js';
import { OrdersModule } from '../orders/index.js';
import { clearByAge, Retention } from '../platform/index.js';
import { CatalogueIn } from './catalogue-in.service.js';
import { ChannelDeskController } from './channel-desk.controller.js';
import { ChannelDesk } from './channel-desk.service.js';
import { Connectors } from './connectors.js';
import { Exchanges } from './exchanges.js';
import { FilesIn } from './files-in.service.js';
import { OrderFolder } from './folder/order-folder.js';
import { IntakeService } from './intake.service.js';
import { Lindenmart } from './lindenmart/lindenmart.js';
import { MendingService } from './mending.service.js';
import { ParkedController } from './parked.controller.js';
import { ParkedMessages } from './parked-messages.js';
import { ChannelPolling } from './polling.js';
import { StockPushing } from './stock-pushing.js';
import { Telling } from './telling.js';
import { Unlisted } from './unlisted.service.js';
import { Trade } from './trade/trade.js';
import { WebShop } from './web-shop/web-shop.js';

@Module({
  imports: [OrdersModule, OrderDeskModule, ChannelsModule, CatalogueModule, CustomerReturnsModule, InvoicingModule],
  controllers: [ChannelDeskController, ParkedController],
  providers: [
    CatalogueIn,
    ChannelDesk,
    ChannelPolling,
    Connectors,
    Exchanges,
    FilesIn,
    IntakeService,
    Lindenmart,
    MendingService,
    OrderFolder,
    ParkedMessages,
    StockPushing,
    Telling,
    Trade,
    Unlisted,
    WebShop,
  ],
  exports: [IntakeService, FilesIn, ChannelPolling, OrderFolder, StockPushing],
})
export class ConnectorsModule {
  constructor(retention: Retention) {
    retention.register({
      what: 'messages that were settled',
      keptFor: 'keepDeliveries',
      clear: (s, before) => clearByAge(s, 'parked_message', 'came_at', before, `state <> 'waiting'`),
    });
    retention.register({
      what: 'messages between the house and its channels',
      keptFor: 'keepDeliveries',
      clear: (s, before) => clearByAge(s, 'channel_exchange', 'at', before),
    });
  }
}
