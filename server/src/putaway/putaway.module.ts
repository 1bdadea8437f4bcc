import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { SitesModule } from '../sites/index.js';
import { StockModule } from '../stock/index.js';
import { PutawayFloor } from './putaway.floor.js';
import { PutawayQueries } from './putaway.queries.js';
import { StoringService } from './storing.service.js';

/** From the dock, and wherever else goods wait, to the shelf. */
@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, SitesModule],
  providers: [PutawayFloor, StoringService, PutawayQueries],
  exports: [StoringService],
})
export class PutawayModule {}
