import { Global, Module } from '@nestjs/common';
import { FoundingController } from './founding.controller.js';
import { FoundingService } from './founding.service.js';
import { CalendarQueries } from './calendar.queries.js';
import { CompanyController } from './company.controller.js';
import { Nightly } from './nightly.js';
import { CompanyService } from './company.service.js';

/** Global, since promises, arrivals and vans ask for the calendars. */
@Global()
@Module({
  controllers: [CompanyController, FoundingController],
  providers: [FoundingService, CompanyService, CalendarQueries, Nightly],
  exports: [FoundingService, CalendarQueries, Nightly],
})
export class CompanyModule {}
