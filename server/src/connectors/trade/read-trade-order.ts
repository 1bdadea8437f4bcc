import type { IncomingOrder } from '../../orders/index.js';
import { all, at, dayOf, priceOf, textAt, wholeNumber, XmlFault, type XmlElement } from '../../ubl/index.js';

/** An Order as a customer's system sends it. Throws XmlFault with what is missing. */
export function readTradeOrder(root: XmlElement): IncomingOrder {
  const buyer = at(root, 'cac:BuyerCustomerParty/cac:Party');
  const delivery = at(root, 'cac:Delivery');
  const ref = textAt(root, 'cbc:ID');
  const customer = textAt(buyer, 'cac:PartyName/cbc:Name');
  const lines = all(root, 'cac:OrderLine').map((l) => lineOf(at(l, 'cac:LineItem')));
  if (!ref) throw new XmlFault('The order has no number');
  if (!customer) throw new XmlFault('The buyer has no name');
  if (lines.length === 0) throw new XmlFault('The order has no lines');
  if (lines.length > 300) throw new XmlFault('The order has more than 300 lines. Send it in parts');
  const issued = dayOf(textAt(root, 'cbc:IssueDate'), 'The day of the order');
  const wanted = dayOf(textAt(delivery, 'cac:RequestedDeliveryPeriod/cbc:EndDate'), 'The day of delivery');
  return {
    ref: ref.slice(0, 60),
    placedAt: issued ? `${issued}T${textAt(root, 'cbc:IssueTime')?.slice(0, 8) ?? '00:00:00'}Z` : new Date().toISOString(),
    customer: customer.slice(0, 120),
    account: textAt(buyer, 'cac:PartyIdentification/cbc:ID')?.slice(0, 20) ?? null,
    email: (textAt(buyer, 'cac:Contact/cbc:ElectronicMail') ?? '').slice(0, 190),
    phone: (textAt(buyer, 'cac:Contact/cbc:Telephone') ?? '').slice(0, 40),
    address: addressOf(at(delivery, 'cac:DeliveryAddress') ?? at(buyer, 'cac:PostalAddress')),
    note: textAt(root, 'cbc:Note')?.slice(0, 300) ?? null,
    // What is wanted on a day that has passed is wanted as soon as it can be.
    ...(wanted && wanted > new Date().toISOString().slice(0, 10) ? { promisedAt: `${wanted}T12:00:00Z` } : {}),
    lines,
  };
}

/** Street, town and postcode where they are told apart; otherwise the lines as they stand, the last of them the town. */
function addressOf(address: XmlElement | undefined): IncomingOrder['address'] {
  const loose = all(address, 'cac:AddressLine').flatMap((l) => textAt(l, 'cbc:Line') ?? []);
  const street = [textAt(address, 'cbc:StreetName'), textAt(address, 'cbc:BuildingNumber'), textAt(address, 'cbc:AdditionalStreetName')];
  const country = textAt(address, 'cac:Country/cbc:IdentificationCode') ?? 'GB';
  if (!/^[A-Za-z]{2}$/.test(country)) throw new XmlFault(`${country} is no country of two letters`);
  return {
    line: (street.filter(Boolean).join(' ') || loose.slice(0, -1).join(', ') || (loose[0] ?? '')).slice(0, 200),
    city: (textAt(address, 'cbc:CityName') ?? (loose.length > 1 ? (loose.at(-1) ?? '') : '')).slice(0, 80),
    postcode: (textAt(address, 'cbc:PostalZone') ?? '').slice(0, 16),
    country: country.toUpperCase(),
  };
}

/** Goods by our own number where the customer says it, otherwise by their GTIN, otherwise by the customer's. */
function lineOf(item: XmlElement | undefined): IncomingOrder['lines'][number] {
  const id = textAt(item, 'cbc:ID') ?? '?';
  const sku =
    textAt(item, 'cac:Item/cac:SellersItemIdentification/cbc:ID') ??
    textAt(item, 'cac:Item/cac:StandardItemIdentification/cbc:ID') ??
    textAt(item, 'cac:Item/cac:BuyersItemIdentification/cbc:ID');
  if (!sku) throw new XmlFault(`Line ${id} does not say which goods`);
  const quantity = wholeNumber(textAt(item, 'cbc:Quantity') ?? '', `The quantity of line ${id}`);
  if (quantity < 1 || quantity > 100_000) throw new XmlFault(`The quantity of line ${id} is not from 1 to 100,000`);
  return { sku: sku.slice(0, 60), quantity, price: priceOf(textAt(item, 'cac:Price/cbc:PriceAmount'), `The price of line ${id}`) ?? '0' };
}
