import { all, at, textAt, type Written, writeXml, type XmlElement } from './xml.js';

export interface UblParty {
  /** What the buyer calls it. */
  code: string;
  name: string;
  addressLines: readonly string[];
  email: string;
  phone: string;
}
export interface UblOrderLine {
  line: number;
  /** Packs, of so many base units. */
  packs: number;
  factor: number;
  packName: string;
  price: string;
  total: string;
  sku: string;
  supplierSku: string;
  gtin: string | null;
  name: string;
  expectedOn: string | null;
}
export interface UblCharge {
  says: string;
  amount: string;
}
export interface UblOrder {
  code: string;
  issuedOn: string;
  currency: string;
  note: string;
  buyer: UblParty;
  seller: UblParty;
  deliverTo: UblParty;
  expectedOn: string | null;
  charges: readonly UblCharge[];
  lines: readonly UblOrderLine[];
  goods: string;
  total: string;
}

/** UN/ECE Recommendation 20: a piece, which here is one pack of the order's unit. */
const PIECE = 'C62';
const money = (name: string, amount: string, currency: string): Written => [name, amount, { currencyID: currency }];

export function party({ code, name, addressLines, email, phone }: UblParty): Written {
  return [
    'cac:Party',
    [
      code ? ['cac:PartyIdentification', [['cbc:ID', code]]] : null,
      ['cac:PartyName', [['cbc:Name', name]]],
      addressLines.length > 0 ? ['cac:PostalAddress', addressLines.map((l): Written => ['cac:AddressLine', [['cbc:Line', l]]])] : null,
      email || phone ? ['cac:Contact', [phone ? ['cbc:Telephone', phone] : null, email ? ['cbc:ElectronicMail', email] : null]] : null,
    ],
  ];
}

const period = (name: string, on: string): Written => [
  name,
  [
    ['cbc:StartDate', on],
    ['cbc:EndDate', on],
  ],
];

function lineOf(l: UblOrderLine, currency: string): Written {
  return [
    'cac:OrderLine',
    [
      [
        'cac:LineItem',
        [
          ['cbc:ID', l.line],
          ['cbc:Quantity', l.packs, { unitCode: PIECE }],
          money('cbc:LineExtensionAmount', l.total, currency),
          l.expectedOn ? ['cac:Delivery', [period('cac:RequestedDeliveryPeriod', l.expectedOn)]] : null,
          ['cac:Price', [money('cbc:PriceAmount', l.price, currency), ['cbc:BaseQuantity', 1, { unitCode: PIECE }]]],
          [
            'cac:Item',
            [
              ['cbc:Description', `${l.packName} of ${l.factor}`],
              ['cbc:PackSizeNumeric', l.factor],
              ['cbc:Name', l.name],
              ['cac:BuyersItemIdentification', [['cbc:ID', l.sku]]],
              l.supplierSku ? ['cac:SellersItemIdentification', [['cbc:ID', l.supplierSku]]] : null,
              l.gtin ? ['cac:StandardItemIdentification', [['cbc:ID', l.gtin, { schemeID: '0160' }]]] : null,
            ],
          ],
        ],
      ],
    ],
  ];
}

/** A purchase order as a UBL 2.1 Order. */
export function writeOrder(o: UblOrder): string {
  return writeXml('Order', [
    ['cbc:UBLVersionID', '2.1'],
    ['cbc:ID', o.code],
    ['cbc:IssueDate', o.issuedOn],
    o.note ? ['cbc:Note', o.note] : null,
    ['cbc:DocumentCurrencyCode', o.currency],
    ['cbc:LineCountNumeric', o.lines.length],
    ['cac:BuyerCustomerParty', [party(o.buyer)]],
    ['cac:SellerSupplierParty', [party(o.seller)]],
    [
      'cac:Delivery',
      [
        [
          'cac:DeliveryAddress',
          [['cbc:ID', o.deliverTo.code], ...o.deliverTo.addressLines.map((l): Written => ['cac:AddressLine', [['cbc:Line', l]]])],
        ],
        o.expectedOn ? period('cac:RequestedDeliveryPeriod', o.expectedOn) : null,
        ['cac:DeliveryParty', [['cac:PartyName', [['cbc:Name', o.deliverTo.name]]]]],
      ],
    ],
    ...o.charges.map((c): Written => [
      'cac:AllowanceCharge',
      [['cbc:ChargeIndicator', 'true'], ['cbc:AllowanceChargeReason', c.says], money('cbc:Amount', c.amount, o.currency)],
    ]),
    [
      'cac:AnticipatedMonetaryTotal',
      [money('cbc:LineExtensionAmount', o.goods, o.currency), money('cbc:PayableAmount', o.total, o.currency)],
    ],
    ...o.lines.map((l) => lineOf(l, o.currency)),
  ]);
}

function readParty(element: XmlElement | undefined): UblParty {
  return {
    code: textAt(element, 'cac:PartyIdentification/cbc:ID') ?? '',
    name: textAt(element, 'cac:PartyName/cbc:Name') ?? '',
    addressLines: all(at(element, 'cac:PostalAddress'), 'cac:AddressLine').flatMap((l) => textAt(l, 'cbc:Line') ?? []),
    email: textAt(element, 'cac:Contact/cbc:ElectronicMail') ?? '',
    phone: textAt(element, 'cac:Contact/cbc:Telephone') ?? '',
  };
}

/** Reads an Order back, as a supplier's system would. */
export function readOrder(root: XmlElement): UblOrder {
  const delivery = at(root, 'cac:Delivery');
  return {
    code: textAt(root, 'cbc:ID') ?? '',
    issuedOn: textAt(root, 'cbc:IssueDate') ?? '',
    currency: textAt(root, 'cbc:DocumentCurrencyCode') ?? '',
    note: textAt(root, 'cbc:Note') ?? '',
    buyer: readParty(at(root, 'cac:BuyerCustomerParty/cac:Party')),
    seller: readParty(at(root, 'cac:SellerSupplierParty/cac:Party')),
    deliverTo: {
      code: textAt(delivery, 'cac:DeliveryAddress/cbc:ID') ?? '',
      name: textAt(delivery, 'cac:DeliveryParty/cac:PartyName/cbc:Name') ?? '',
      addressLines: all(at(delivery, 'cac:DeliveryAddress'), 'cac:AddressLine').flatMap((l) => textAt(l, 'cbc:Line') ?? []),
      email: '',
      phone: '',
    },
    expectedOn: textAt(delivery, 'cac:RequestedDeliveryPeriod/cbc:EndDate'),
    charges: all(root, 'cac:AllowanceCharge').map((c) => ({
      says: textAt(c, 'cbc:AllowanceChargeReason') ?? '',
      amount: textAt(c, 'cbc:Amount') ?? '',
    })),
    lines: all(root, 'cac:OrderLine').map(readLine),
    goods: textAt(root, 'cac:AnticipatedMonetaryTotal/cbc:LineExtensionAmount') ?? '',
    total: textAt(root, 'cac:AnticipatedMonetaryTotal/cbc:PayableAmount') ?? '',
  };
}

function readLine(line: XmlElement): UblOrderLine {
  const item = at(line, 'cac:LineItem');
  const factor = Number(textAt(item, 'cac:Item/cbc:PackSizeNumeric') ?? 1);
  return {
    line: Number(textAt(item, 'cbc:ID')),
    packs: Number(textAt(item, 'cbc:Quantity')),
    factor,
    packName: (textAt(item, 'cac:Item/cbc:Description') ?? '').replace(new RegExp(` of ${factor}$`), ''),
    price: textAt(item, 'cac:Price/cbc:PriceAmount') ?? '',
    total: textAt(item, 'cbc:LineExtensionAmount') ?? '',
    sku: textAt(item, 'cac:Item/cac:BuyersItemIdentification/cbc:ID') ?? '',
    supplierSku: textAt(item, 'cac:Item/cac:SellersItemIdentification/cbc:ID') ?? '',
    gtin: textAt(item, 'cac:Item/cac:StandardItemIdentification/cbc:ID'),
    name: textAt(item, 'cac:Item/cbc:Name') ?? '',
    expectedOn: textAt(item, 'cac:Delivery/cac:RequestedDeliveryPeriod/cbc:EndDate'),
  };
}
