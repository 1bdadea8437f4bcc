import { randomUUID } from 'node:crypto';

const HOUR = 3_600_000;
const address = { line: '2 Beacon Row', city: 'Netherwick', postcode: 'NW8 2RE', country: 'GB' };
/** An order as the web shop says it. */
export const shopOrder = (more: object = {}) => ({
  ref: `W-${randomUUID().slice(0, 8)}`,
  placedAt: '2026-05-14T08:00:00Z',
  customer: 'Petra Lindow',
  email: 'petra@mail.example',
  address,
  lines: [{ sku: 'JAR-454-RD', quantity: 4, price: '0.95' }],
  ...more,
});
/** An order as the marketplace says it. */
export const linden = (more: object = {}) => ({
  number: `LM-${randomUUID().slice(0, 8)}`,
  status: 'placed',
  edition: 0,
  bought: '2026-05-14T08:00:00Z',
  dispatchBy: new Date(Date.now() + 30 * HOUR).toISOString(),
  recipient: { name: 'Otto Lindqvist', street: '7 Fulling Lane', town: 'Hathersley', postcode: 'HA1 3PN', country: 'GB' },
  goods: [{ offer: 'LM-88121', count: 2, unitPrice: '0.99' }],
  ...more,
});
const NAMES =
  'xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2" xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2"';
/** A UBL order of these lines; `by` is whose code a line has: `Sellers`, `Buyers` or `Standard`. */
export const trade = (id: string, lines: [by: string, code: string, quantity: number | string][]) =>
  `<?xml version="1.0"?><Order xmlns="urn:oasis:names:specification:ubl:schema:xsd:Order-2" ${NAMES}><cbc:ID>${id}</cbc:ID><cbc:IssueDate>2026-05-14</cbc:IssueDate><cac:BuyerCustomerParty><cac:Party><cac:PartyName><cbc:Name>Thornlea Garden Centre</cbc:Name></cac:PartyName><cac:PostalAddress><cbc:StreetName>Station Approach</cbc:StreetName><cbc:CityName>Thornlea</cbc:CityName><cbc:PostalZone>TL1 3BQ</cbc:PostalZone></cac:PostalAddress></cac:Party></cac:BuyerCustomerParty><cac:SellerSupplierParty/>${lines.map(([by, code, n], i) => `<cac:OrderLine><cac:LineItem><cbc:ID>${i + 1}</cbc:ID><cbc:Quantity>${n}</cbc:Quantity><cac:Price><cbc:PriceAmount currencyID="GBP">0.80</cbc:PriceAmount></cac:Price><cac:Item><cac:${by}ItemIdentification><cbc:ID>${code}</cbc:ID></cac:${by}ItemIdentification></cac:Item></cac:LineItem></cac:OrderLine>`).join('')}</Order>`;
/** A UBL cancellation of an order. */
export const cancellation = (of: string) =>
  `<?xml version="1.0"?><OrderCancellation xmlns="urn:oasis:names:specification:ubl:schema:xsd:OrderCancellation-2" ${NAMES}><cbc:ID>C-1</cbc:ID><cac:OrderReference><cbc:ID>${of}</cbc:ID></cac:OrderReference></OrderCancellation>`;
