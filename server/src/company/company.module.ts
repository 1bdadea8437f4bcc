import { Global, Module } from '@nestjs/common';
import { CalendarQueries } from './calendar.queries.js';
import { CompanyController } from './company.controller.js';
import { CompanyService } from './company.service.js';
import { SettingsService } from './settings.service.js';

/** Global, since every domain asks for the company's choices. */
@Global()
@Module({
  controllers: [CompanyController],
  providers: [SettingsService, CompanyService, CalendarQueries],
  exports: [SettingsService, CalendarQueries],
})
export class CompanyModule {}
