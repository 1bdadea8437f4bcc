import { Global, Module } from '@nestjs/common';
import { AccessGuard } from './access.js';
import { DeviceService } from './device.service.js';
import { IdentityController } from './identity.controller.js';
import { DoorService } from './door.service.js';
import { PeopleQueries } from './people.queries.js';
import { PreferencesService } from './preferences.service.js';
import { PreferencesController } from './preferences.controller.js';
import { PeopleService } from './people.service.js';
import { SessionService } from './session.service.js';
import { Tries } from './tries.service.js';

@Global()
@Module({
  controllers: [IdentityController, PreferencesController],
  providers: [SessionService, Tries, DeviceService, PeopleService, PeopleQueries, DoorService, PreferencesService, AccessGuard],
  exports: [SessionService, PeopleService, PeopleQueries, DeviceService, AccessGuard],
})
export class IdentityModule {}
