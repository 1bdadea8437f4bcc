import { Global, Module } from '@nestjs/common';
import { AccessGuard } from './access.js';
import { DeviceService } from './device.service.js';
import { IdentityController } from './identity.controller.js';
import { PeopleService } from './people.service.js';
import { SessionService } from './session.service.js';

@Global()
@Module({
  controllers: [IdentityController],
  providers: [SessionService, DeviceService, PeopleService, AccessGuard],
  exports: [SessionService, PeopleService, AccessGuard],
})
export class IdentityModule {}
