import { Global, Module } from '@nestjs/common';
import { clearByAge, Retention } from '../platform/index.js';
import { ActivityService } from './activity.service.js';
import { UndoService } from './undo.service.js';

/** Global, since whatever changes something writes the tape. */
@Global()
@Module({ providers: [ActivityService, UndoService], exports: [ActivityService, UndoService] })
export class ActivityModule {
  constructor(retention: Retention) {
    retention.register({ what: 'lines of tape', keptFor: 'keepTape', clear: (s, before) => clearByAge(s, 'activity', 'at', before) });
  }
}
