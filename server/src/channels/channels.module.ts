import { Module } from '@nestjs/common';
import { OrdersModule } from '../orders/orders.module.js';
import { ChannelsController } from './channels.controller.js';
import { IntakeService } from './intake.service.js';
import { ShopClient } from './shop.client.js';

@Module({
  imports: [OrdersModule],
  controllers: [ChannelsController],
  providers: [IntakeService, ShopClient],
  exports: [IntakeService],
})
export class ChannelsModule {}
