/** Goods that are looked at before they are stock. */
export { Checklists } from './checklists.service.js';
export { type Coming, InspectionDue } from './due.queries.js';
export { InspectionRules } from './inspection-rules.service.js';
export { WriteCheckDto } from './inspection.dto.js';
export { InspectionModule } from './inspection.module.js';
export { InspectionsQueries } from './inspections.queries.js';
export { heldForInspection } from './opening.js';
