import { Module } from '@nestjs/common';
import { BooksModule } from '../books/index.js';
import { CatalogueModule } from '../catalogue/index.js';
import { InvoicesByTimetable } from './by-timetable.js';
import { InvoicePapers } from './invoice-papers.js';
import { InvoicePlans } from './invoice-plans.js';
import { InvoicesController } from './invoices.controller.js';
import { InvoicesQueries } from './invoices.queries.js';
import { InvoicesService } from './invoices.service.js';
import { MarginController } from './margin.controller.js';
import { MarginQueries } from './margin.queries.js';
import { PrintingModule } from '../printing/index.js';
import { StatementQueries } from './statement.queries.js';
import { Statements } from './statements.js';
import { StatementsController } from './statements.controller.js';
import { PaymentsController } from './payments.controller.js';
import { PaymentsFiles } from './payments.files.js';
import { PaymentsService } from './payments.service.js';
import { LettersModule } from '../letters/index.js';

@Module({
  imports: [CatalogueModule, LettersModule, BooksModule, PrintingModule],
  controllers: [InvoicesController, PaymentsController, MarginController, StatementsController],
  providers: [
    InvoicePlans,
    InvoicesService,
    InvoicesQueries,
    InvoicePapers,
    PaymentsService,
    PaymentsFiles,
    MarginQueries,
    InvoicesByTimetable,
    StatementQueries,
    Statements,
  ],
  exports: [InvoicePlans, InvoicesService, InvoicePapers, PaymentsService],
})
export class InvoicingModule {}
