/** Business documents of the UBL 2.1 family, read and written. */
export { readDespatchAdvice, writeDespatchAdvice, type UblDespatchAdvice, type UblDespatchLine } from './despatch-advice.document.js';
export { readInvoice, writeInvoice, type UblInvoice, type UblInvoiceLine } from './invoice.document.js';
export { readOrder, writeOrder, type UblCharge, type UblOrder, type UblOrderLine, type UblParty } from './order.document.js';
export { readOrderResponse, writeOrderResponse, type UblOrderResponse, type UblResponseLine } from './order-response.document.js';
export { readSupplierDocument, type SupplierDocument } from './read-document.js';
export { structureFaults } from './structure.js';
export { dayOf, priceOf, wholeNumber } from './values.js';
export { all, at, MOST_XML_BYTES, readXml, textAt, XmlFault, type XmlElement } from './xml.js';
