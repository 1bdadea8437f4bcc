import { Module } from '@nestjs/common';
import { CarrierClient } from './carrier.client.js';

/** Who takes parcels away, and how they are spoken to. */
@Module({ providers: [CarrierClient], exports: [CarrierClient] })
export class CarriersModule {}
