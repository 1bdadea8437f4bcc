import { Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/index.js';
import { ValueModule } from '../stock/index.js';
import { BillsController } from './bills.controller.js';
import { BillsQueries } from './bills.queries.js';
import { JournalController } from './journal.controller.js';
import { JournalFiles } from './journal.files.js';
import { JournalQueries } from './journal.queries.js';
import { JournalService } from './journal.service.js';
import { ValueController } from './value.controller.js';
import { ValueQueries } from './value.queries.js';
import { Reserves } from './reserves.service.js';
import { Periods } from './periods.service.js';
import { TimetablesController } from './timetables.controller.js';
import { Timetables } from './timetables.js';
import { BillsService } from './bills.service.js';

@Module({
  imports: [ValueModule, CatalogueModule],
  controllers: [BillsController, JournalController, ValueController, TimetablesController],
  providers: [BillsService, BillsQueries, JournalQueries, JournalService, JournalFiles, ValueQueries, Timetables, Periods, Reserves],
  exports: [BillsService, JournalQueries, JournalService, Timetables],
})
export class BooksModule {}
