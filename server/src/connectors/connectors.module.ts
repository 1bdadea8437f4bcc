import { Module } from '@nestjs/common';
import { clearByAge, Retention } from '../platform/index.js';
import { OrdersModule } from '../orders/index.js';
import { WebhooksController } from './webhooks.controller.js';
import { ChannelsModule } from '../channels/index.js';
import { ParkedController } from './parked.controller.js';
import { ParkedMessages } from './parked-messages.js';
import { IntakeService } from './intake.service.js';
import { ShopPolling } from './shop-polling.js';
import { ShopClient } from './shop.client.js';

@Module({
  imports: [OrdersModule, ChannelsModule],
  controllers: [WebhooksController, ParkedController],
  providers: [IntakeService, ParkedMessages, ShopClient, ShopPolling],
  exports: [IntakeService, ShopPolling],
})
export class ConnectorsModule {
  constructor(retention: Retention) {
    retention.register({
      what: 'messages that were settled',
      keptFor: 'keepDeliveries',
      clear: (s, before) => clearByAge(s, 'parked_message', 'came_at', before, `state <> 'waiting'`),
    });
  }
}
