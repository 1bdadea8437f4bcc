import { Module } from '@nestjs/common';
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
export class ConnectorsModule {}
