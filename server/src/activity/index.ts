/** The tape: who did what, and how it is taken back. */
export { ActivityModule } from './activity.module.js';
export { ActivityService, type Entry } from './activity.service.js';
export { UndoService } from './undo.service.js';
export { type ActivityKind, type Topic, TOPICS, topicsOf } from './topics.js';
