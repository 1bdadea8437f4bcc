/** Invoices and credit notes to customers, and what is paid of them. */
export { checkInvoices } from './invoice-check.js';
export { InvoicingModule } from './invoicing.module.js';
