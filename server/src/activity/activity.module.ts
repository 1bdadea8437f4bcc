import { Global, Module } from '@nestjs/common';
import { ActivityService } from './activity.service.js';
import { UndoService } from './undo.service.js';

/** Global, since whatever changes something writes the tape. */
@Global()
@Module({ providers: [ActivityService, UndoService], exports: [ActivityService, UndoService] })
export class ActivityModule {}
