import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { SitesModule } from '../sites/index.js';
import { StockModule } from '../stock/index.js';
import { PickingModule } from '../picking/index.js';
import { BinsQueries } from './bins.queries.js';
import { PutawayFloor } from './putaway.floor.js';
import { PutawayQueries } from './putaway.queries.js';
import { RefillQueries } from './refill.queries.js';
import { SlottingController } from './slotting.controller.js';
import { SlottingQueries } from './slotting.queries.js';
import { StoringService } from './storing.service.js';

/** From the dock, and wherever else goods wait, to the shelf; from the reserve to where pickers go. */
@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, SitesModule, PickingModule],
  controllers: [SlottingController],
  providers: [PutawayFloor, StoringService, PutawayQueries, BinsQueries, RefillQueries, SlottingQueries],
  exports: [StoringService],
})
export class PutawayModule {}
