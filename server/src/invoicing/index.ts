/** Invoices and credit notes to customers, and what is paid of them. */
export { checkInvoices } from './invoice-check.js';
export { InvoicePapers } from './invoice-papers.js';
export { InvoicingModule } from './invoicing.module.js';
export { type Billable, InvoicePlans } from './invoice-plans.js';
export { InvoicesService } from './invoices.service.js';
export { PaymentsService } from './payments.service.js';
