import { Module } from '@nestjs/common';
import { OrdersModule } from '../orders/index.js';
import { WebhooksController } from './webhooks.controller.js';
import { ChannelsModule } from '../channels/index.js';
import { IntakeService } from './intake.service.js';
import { ShopPolling } from './shop-polling.js';
import { ShopClient } from './shop.client.js';

@Module({
  imports: [OrdersModule, ChannelsModule],
  controllers: [WebhooksController],
  providers: [IntakeService, ShopClient, ShopPolling],
  exports: [IntakeService, ShopPolling],
})
export class ConnectorsModule {}
