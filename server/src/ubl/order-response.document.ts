import { party, type UblParty } from './order.document.js';
import { dayOf, priceOf, wholeNumber } from './values.js';
import { all, textAt, type Written, writeXml, XmlFault, type XmlElement } from './xml.js';

/** UN/CEFACT 4343: how the supplier answers as a whole. */
const RESPONSES = { AP: 'accepted', CA: 'changed', RE: 'refused', AB: 'acknowledged' } as const;
/** UN/CEFACT 1229: what is said of a line. */
const LINES = { '5': 'accepted', '3': 'changed', '7': 'refused' } as const;

export type ResponseWord = (typeof RESPONSES)[keyof typeof RESPONSES];
export type LineWord = (typeof LINES)[keyof typeof LINES];

export interface UblResponseLine {
  line: number;
  says: LineWord;
  /** Packs, the price of one and the day, where the supplier names them. */
  packs: number | null;
  price: string | null;
  promisedOn: string | null;
  note: string;
}
export interface UblOrderResponse {
  id: string;
  issuedOn: string;
  says: ResponseWord;
  order: string;
  note: string;
  seller: string;
  /** A day for the whole order. */
  promisedOn: string | null;
  lines: readonly UblResponseLine[];
}

const entry = <T extends Record<string, string>>(all: T, word: T[keyof T]) => Object.entries(all).find(([, w]) => w === word)?.[0] ?? '';

/** A supplier's answer to an order as a UBL 2.1 OrderResponse. */
export function writeOrderResponse(r: UblOrderResponse, seller: UblParty, buyer: UblParty, currency: string): string {
  const promised = (on: string): Written => ['cac:Delivery', [['cac:PromisedDeliveryPeriod', [['cbc:EndDate', on]]]]];
  return writeXml('OrderResponse', [
    ['cbc:UBLVersionID', '2.1'],
    ['cbc:ID', r.id],
    ['cbc:IssueDate', r.issuedOn],
    ['cbc:OrderResponseCode', entry(RESPONSES, r.says)],
    r.note ? ['cbc:Note', r.note] : null,
    ['cbc:DocumentCurrencyCode', currency],
    ['cac:OrderReference', [['cbc:ID', r.order]]],
    ['cac:SellerSupplierParty', [party(seller)]],
    ['cac:BuyerCustomerParty', [party(buyer)]],
    r.promisedOn ? promised(r.promisedOn) : null,
    ...r.lines.map((l): Written => [
      'cac:OrderLine',
      [
        [
          'cac:LineItem',
          [
            ['cbc:ID', l.line],
            l.note ? ['cbc:Note', l.note] : null,
            ['cbc:LineStatusCode', entry(LINES, l.says)],
            l.packs === null ? null : ['cbc:Quantity', l.packs, { unitCode: 'C62' }],
            l.promisedOn ? promised(l.promisedOn) : null,
            l.price === null ? null : ['cac:Price', [['cbc:PriceAmount', l.price, { currencyID: currency }]]],
            ['cac:Item', []],
          ],
        ],
      ],
    ]),
  ]);
}

export function readOrderResponse(root: XmlElement): UblOrderResponse {
  const code = textAt(root, 'cbc:OrderResponseCode') ?? 'AB';
  const says = (RESPONSES as Readonly<Record<string, ResponseWord>>)[code];
  if (!says) throw new XmlFault(`OrderResponseCode ${code} is none of AP, CA, RE, AB`);
  return {
    id: textAt(root, 'cbc:ID') ?? '',
    issuedOn: textAt(root, 'cbc:IssueDate') ?? '',
    says,
    order: (textAt(root, 'cac:OrderReference/cbc:ID') ?? '').toUpperCase(),
    note: textAt(root, 'cbc:Note') ?? '',
    seller: textAt(root, 'cac:SellerSupplierParty/cac:Party/cac:PartyName/cbc:Name') ?? '',
    promisedOn: dayOf(textAt(root, 'cac:Delivery/cac:PromisedDeliveryPeriod/cbc:EndDate'), 'The promised day'),
    lines: all(root, 'cac:OrderLine').map(lineOf),
  };
}

function lineOf(line: XmlElement): UblResponseLine {
  const id = textAt(line, 'cac:LineItem/cbc:ID') ?? '';
  const status = textAt(line, 'cac:LineItem/cbc:LineStatusCode') ?? '5';
  const says = (LINES as Readonly<Record<string, LineWord>>)[status];
  if (!says) throw new XmlFault(`LineStatusCode ${status} of line ${id} is none of 5, 3, 7`);
  if (!/^\d{1,6}$/.test(id)) throw new XmlFault(`${id || 'An empty text'} is no number of a line`);
  const packs = textAt(line, 'cac:LineItem/cbc:Quantity');
  return {
    line: Number(id),
    says,
    packs: packs === null ? null : wholeNumber(packs, `The quantity of line ${id}`),
    price: priceOf(textAt(line, 'cac:LineItem/cac:Price/cbc:PriceAmount'), `The price of line ${id}`),
    promisedOn: dayOf(textAt(line, 'cac:LineItem/cac:Delivery/cac:PromisedDeliveryPeriod/cbc:EndDate'), `The day of line ${id}`),
    note: textAt(line, 'cac:LineItem/cbc:Note') ?? '',
  };
}
