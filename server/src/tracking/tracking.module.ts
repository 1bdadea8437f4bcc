import { Module } from '@nestjs/common';
import { CarriersModule } from '../carriers/index.js';
import { PackingModule } from '../packing/index.js';
import { ClaimsService } from './claims.service.js';
import { TrackingPolling } from './polling.js';
import { TroubleMail } from './trouble.mail.js';
import { TrackingController } from './tracking.controller.js';
import { TrackingService } from './tracking.service.js';
import { WebhookService } from './webhook.service.js';

@Module({
  imports: [CarriersModule, PackingModule],
  controllers: [TrackingController],
  providers: [ClaimsService, TrackingService, TrackingPolling, TroubleMail, WebhookService],
  exports: [TrackingPolling, TrackingService],
})
export class TrackingModule {}
