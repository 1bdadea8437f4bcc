import { Global, Module } from '@nestjs/common';
import { ExportsController, ImportsController } from './exchange.controller.js';
import { ExportsService } from './exports.service.js';
import { ImportJobs } from './import-jobs.js';
import { ImportsQueries } from './imports.queries.js';
import { ImportsService } from './imports.service.js';
import { Lists } from './lists.js';
import { PeopleLists } from './people-lists.js';
import { Shapes } from './registry.js';

/**
 * Files in and out: imports with a dry run and an undo, exports of lists and of everything. Global, since every module
 * registers its own kinds of files and its own lists.
 */
@Global()
@Module({
  controllers: [ImportsController, ExportsController],
  providers: [ImportsService, ImportsQueries, ImportJobs, ExportsService, Lists, PeopleLists, Shapes],
  exports: [ImportJobs, Lists, Shapes],
})
export class ExchangeModule {}
