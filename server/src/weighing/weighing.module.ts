import { Module } from '@nestjs/common';
import { WeighingController } from './weighing.controller.js';
import { WeighingService } from './weighing.service.js';

@Module({ controllers: [WeighingController], providers: [WeighingService] })
export class WeighingModule {}
