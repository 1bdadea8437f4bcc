import { Module } from '@nestjs/common';
import { AislesService } from './aisles.service.js';
import { FloorQueries } from './floor.queries.js';
import { PlacesQueries } from './places.queries.js';
import { PlanService } from './plan.service.js';
import { SitesController } from './sites.controller.js';
import { SitesService } from './sites.service.js';
import { WalkingOrder } from './walking-order.service.js';
import { SitesFiles } from './sites.files.js';

@Module({
  controllers: [SitesController],
  providers: [SitesFiles, SitesService, PlacesQueries, AislesService, PlanService, FloorQueries, WalkingOrder],
  exports: [FloorQueries, WalkingOrder, PlacesQueries, PlanService],
})
export class SitesModule {}
