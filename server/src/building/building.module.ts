import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { StockModule } from '../stock/index.js';
import { TransfersModule } from '../transfers/index.js';
import { BuildingController } from './building.controller.js';
import { BuildingQueries } from './building.queries.js';
import { Builds } from './builds.service.js';
import { Finishing } from './finishing.service.js';

/** What is built here of parts, and taken apart. */
@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, TransfersModule],
  controllers: [BuildingController],
  providers: [BuildingQueries, Builds, Finishing],
  exports: [Builds, Finishing],
})
export class BuildingModule {}
