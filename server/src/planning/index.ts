/** What will be asked for, and what to buy for it. */
export { BackTests } from './back-tests.js';
export { DemandReading } from './demand-reading.service.js';
export { Planner } from './planner.js';
export { PlanningModule } from './planning.module.js';
