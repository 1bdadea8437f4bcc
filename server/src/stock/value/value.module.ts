import { Module } from '@nestjs/common';
import { LandedService } from './landed.service.js';
import { ValueService } from './value.service.js';

/** Apart from the books, since the ledger itself needs it. */
@Module({ providers: [ValueService, LandedService], exports: [ValueService, LandedService] })
export class ValueModule {}
