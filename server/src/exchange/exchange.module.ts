import { Global, Module } from '@nestjs/common';
import { clearWhere, Retention } from '../platform/index.js';
import { ExportsController, ImportsController } from './exchange.controller.js';
import { ExportsService } from './exports.service.js';
import { FeedKeys } from './feed-keys.service.js';
import { FeedsController } from './feeds.controller.js';
import { Folders } from './folders.js';
import { ImportJobs } from './import-jobs.js';
import { ImportsQueries } from './imports.queries.js';
import { MendingService } from './mending.service.js';
import { ImportsService } from './imports.service.js';
import { Lists } from './lists.js';
import { PeopleLists } from './people-lists.js';
import { Shapes } from './registry.js';

/** Rows of imports that nobody works at any more. */
const OLD_RUNS = `import_id IN (SELECT id FROM import_run WHERE state NOT IN ('checking', 'applying') AND created_at < ?)`;

/**
 * Files in and out: imports with a dry run and an undo, exports of lists and of everything. Global, since every module
 * registers its own kinds of files and its own lists.
 */
@Global()
@Module({
  controllers: [ImportsController, ExportsController, FeedsController],
  providers: [ImportsService, MendingService, ImportsQueries, ImportJobs, ExportsService, FeedKeys, Folders, Lists, PeopleLists, Shapes],
  exports: [Folders, ImportJobs, Lists, Shapes],
})
export class ExchangeModule {
  constructor(retention: Retention) {
    retention.register(
      { what: 'rows of imports', keptFor: 'keepImports', clear: (s, before) => clearWhere(s, 'import_row', OLD_RUNS, [before]) },
      { what: 'what imports made', keptFor: 'keepImports', clear: (s, before) => clearWhere(s, 'import_made', OLD_RUNS, [before]) },
    );
  }
}
