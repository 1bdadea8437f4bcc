import { Module } from '@nestjs/common';
import { AllocationService } from './allocation.service.js';
import { StockTeller } from './stock-teller.js';

@Module({ providers: [AllocationService, StockTeller], exports: [AllocationService] })
export class AllocationModule {}
