import { Module } from '@nestjs/common';
import { AllocationModule } from '../allocation/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { ReturnsModule } from '../returns/index.js';
import { StockModule } from '../stock/index.js';
import { Checklists } from './checklists.service.js';
import { InspectionDue } from './due.queries.js';
import { ChecklistsController, InspectionRulesController } from './inspection-rules.controller.js';
import { InspectionRules } from './inspection-rules.service.js';
import { InspectionsController } from './inspections.controller.js';
import { InspectionFloor } from './inspection.floor.js';
import { InspectionsQueries } from './inspections.queries.js';
import { InspectionsService } from './inspections.service.js';
import { StandingToInspect } from './standing.queries.js';

@Module({
  imports: [StockModule, CatalogueModule, AllocationModule, ReturnsModule],
  controllers: [InspectionsController, InspectionRulesController, ChecklistsController],
  providers: [InspectionFloor, InspectionsService, InspectionsQueries, StandingToInspect, InspectionDue, InspectionRules, Checklists],
  exports: [InspectionDue, InspectionsQueries, InspectionRules, Checklists],
})
export class InspectionModule {}
