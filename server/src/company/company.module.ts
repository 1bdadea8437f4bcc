import { Global, Module } from '@nestjs/common';
import { CalendarQueries } from './calendar.queries.js';
import { CompanyController } from './company.controller.js';
import { CompanyService } from './company.service.js';

/** Global, since promises, arrivals and vans ask for the calendars. */
@Global()
@Module({
  controllers: [CompanyController],
  providers: [CompanyService, CalendarQueries],
  exports: [CalendarQueries],
})
export class CompanyModule {}
