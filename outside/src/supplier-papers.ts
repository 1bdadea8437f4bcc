import type { KeptPurchase } from './state.js';

/** What a supplier's clerk says to an order. */
export type Deviation = 'accept' | 'change' | 'refuse';

const LINES_ON_A_PALLET = 3;
const DAY_MS = 86_400_000;
/** Dearer, in per cent, and later, in days, when a clerk changes the first line. */
const DEARER = 1.04;
const LATER_DAYS = 3;
const LOT_LIFE_DAYS = 500;

const NAMESPACES = (kind: string) =>
  `xmlns="urn:oasis:names:specification:ubl:schema:xsd:${kind}-2" xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2" xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2"`;
const esc = (text: string) => text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] ?? c);
const dayFrom = (days: number) => new Date(Date.now() + days * DAY_MS).toISOString().slice(0, 10);
const party = (role: string, name: string, id = '') =>
  `<cac:${role}><cac:Party>${id ? `<cac:PartyIdentification><cbc:ID>${esc(id)}</cbc:ID></cac:PartyIdentification>` : ''}<cac:PartyName><cbc:Name>${esc(name)}</cbc:Name></cac:PartyName></cac:Party></cac:${role}>`;
const BUYER = party('BuyerCustomerParty', 'Tarn & Thistle');

/** UBL codes of an answer: accepted, accepted with changes, refused. */
const CODES: Readonly<Record<Deviation, string>> = { accept: 'AP', change: 'CA', refuse: 'RE' };

/** An OrderResponse to the whole order; a change makes its first line dearer and later. */
export function orderResponse(purchase: KeptPurchase, id: string, how: Deviation): string {
  const [first] = purchase.lines;
  const changed =
    how === 'change' && first
      ? `<cac:OrderLine><cac:LineItem><cbc:ID>${first.line}</cbc:ID><cbc:LineStatusCode>3</cbc:LineStatusCode><cbc:Quantity unitCode="C62">${first.packs}</cbc:Quantity><cac:Delivery><cac:PromisedDeliveryPeriod><cbc:StartDate>${dayFrom(LATER_DAYS)}</cbc:StartDate><cbc:EndDate>${dayFrom(LATER_DAYS)}</cbc:EndDate></cac:PromisedDeliveryPeriod></cac:Delivery><cac:Price><cbc:PriceAmount currencyID="GBP">${(Number(first.price) * DEARER).toFixed(2)}</cbc:PriceAmount></cac:Price><cac:Item><cbc:Name>${esc(first.name)}</cbc:Name></cac:Item></cac:LineItem></cac:OrderLine>`
      : '';
  return `<?xml version="1.0" encoding="UTF-8"?><OrderResponse ${NAMESPACES('OrderResponse')}><cbc:UBLVersionID>2.1</cbc:UBLVersionID><cbc:ID>${id}</cbc:ID><cbc:IssueDate>${dayFrom(0)}</cbc:IssueDate><cbc:OrderResponseCode>${CODES[how]}</cbc:OrderResponseCode>${how === 'refuse' ? '<cbc:Note>We cannot deliver these</cbc:Note>' : ''}<cac:OrderReference><cbc:ID>${purchase.order}</cbc:ID></cac:OrderReference>${party('SellerSupplierParty', purchase.name, purchase.supplier)}${BUYER}${changed}</OrderResponse>`;
}

/** Appends the check digit of a GS1 number. */
export function checked(digits: string): string {
  const sum = [...digits].reverse().reduce((total, d, i) => total + Number(d) * (i % 2 === 0 ? 3 : 1), 0);
  return `${digits}${(10 - (sum % 10)) % 10}`;
}

/** A pallet code of a supplier's own: GS1 company prefix of the samples, and a number that comes once. */
const palletCode = (purchase: KeptPurchase, n: number) =>
  checked(`39521077${String(Number(purchase.order.replace(/\D/g, '')) * 100 + purchase.papers * 10 + n).padStart(9, '0')}`);

/** A DespatchAdvice for all that was ordered, arriving today, with lots and pallet codes. */
export function despatchAdvice(purchase: KeptPurchase, id: string): string {
  const lines = purchase.lines.map(
    (l, i) =>
      `<cac:DespatchLine><cbc:ID>${i + 1}</cbc:ID><cbc:DeliveredQuantity unitCode="C62">${l.packs}</cbc:DeliveredQuantity><cac:OrderLineReference><cbc:LineID>${l.line}</cbc:LineID><cac:OrderReference><cbc:ID>${purchase.order}</cbc:ID></cac:OrderReference></cac:OrderLineReference><cac:Item><cbc:Name>${esc(l.name)}</cbc:Name><cac:ItemInstance><cac:LotIdentification><cbc:LotNumberID>${id.slice(-6)}-${i + 1}</cbc:LotNumberID><cbc:ExpiryDate>${dayFrom(LOT_LIFE_DAYS)}</cbc:ExpiryDate></cac:LotIdentification></cac:ItemInstance></cac:Item><cac:Shipment><cbc:ID>${id}</cbc:ID><cac:TransportHandlingUnit><cbc:ID>${palletCode(purchase, Math.floor(i / LINES_ON_A_PALLET))}</cbc:ID></cac:TransportHandlingUnit></cac:Shipment></cac:DespatchLine>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?><DespatchAdvice ${NAMESPACES('DespatchAdvice')}><cbc:UBLVersionID>2.1</cbc:UBLVersionID><cbc:ID>${id}</cbc:ID><cbc:IssueDate>${dayFrom(0)}</cbc:IssueDate>${party('DespatchSupplierParty', purchase.name, purchase.supplier)}${party('DeliveryCustomerParty', 'Tarn & Thistle')}<cac:Shipment><cbc:ID>${id}</cbc:ID><cac:Delivery><cac:EstimatedDeliveryPeriod><cbc:StartDate>${dayFrom(0)}</cbc:StartDate><cbc:EndDate>${dayFrom(0)}</cbc:EndDate></cac:EstimatedDeliveryPeriod></cac:Delivery></cac:Shipment>${lines.join('')}</DespatchAdvice>`;
}
