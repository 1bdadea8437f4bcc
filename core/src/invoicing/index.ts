export { documentInOther, openInOther, priceInOther } from './currency.js';
export { microOf, pence, penceOf, shareOf, sumsOf, wholePence, type Pence, type Sums, type TaxedLine, type TaxSum } from './sums.js';
export { matchPayment, type OpenInvoice } from './match.js';
