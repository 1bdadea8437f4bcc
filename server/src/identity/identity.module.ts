import { Global, Module } from '@nestjs/common';
import { clearWhere, Retention } from '../platform/index.js';
import { AccessGuard } from './access.js';
import { DeviceService } from './device.service.js';
import { IdentityController } from './identity.controller.js';
import { FirstKeys } from './first-keys.service.js';
import { DoorService } from './door.service.js';
import { PersonChangesController } from './person-changes.controller.js';
import { PersonChanges } from './person-changes.service.js';
import { PeopleQueries } from './people.queries.js';
import { PreferencesService } from './preferences.service.js';
import { PreferencesController } from './preferences.controller.js';
import { PeopleService } from './people.service.js';
import { SessionService } from './session.service.js';
import { Tries } from './tries.service.js';

@Global()
@Module({
  controllers: [IdentityController, PersonChangesController, PreferencesController],
  providers: [
    SessionService,
    Tries,
    DeviceService,
    PeopleService,
    PeopleQueries,
    PersonChanges,
    DoorService,
    FirstKeys,
    PreferencesService,
    AccessGuard,
  ],
  exports: [SessionService, PeopleService, PeopleQueries, DeviceService, AccessGuard],
})
export class IdentityModule {
  constructor(retention: Retention) {
    retention.register(
      { what: 'sessions', keptFor: { always: 30 }, clear: (s, before) => clearWhere(s, 'session', 'expires_at < ?', [before]) },
      { what: 'tries at the door', keptFor: { always: 2 }, clear: (s, before) => clearWhere(s, 'sign_in_try', 'last_at < ?', [before]) },
      {
        what: 'links from mails',
        keptFor: { always: 30 },
        clear: (s, before) => clearWhere(s, 'person_token', 'expires_at < ?', [before]),
      },
      {
        what: 'codes for devices',
        keptFor: { always: 2 },
        clear: (s, before) => clearWhere(s, 'device_enrolment', 'expires_at < ?', [before]),
      },
    );
  }
}
