import { party, type UblParty } from './order.document.js';
import { dayOf, wholeNumber } from './values.js';
import { all, at, textAt, type Written, writeXml, XmlFault, type XmlElement } from './xml.js';

export interface UblDespatchLine {
  line: number;
  order: string;
  orderLine: number;
  /** Packs, of so many base units; null where the line says nothing, and the order's own unit is meant. */
  packs: number;
  factor: number | null;
  sku: string;
  name: string;
  lot: string | null;
  expires: string | null;
  sscc: string | null;
}
export interface UblDespatchAdvice {
  id: string;
  issuedOn: string;
  /** The day on which it arrives, where it is said. */
  arrivesOn: string | null;
  supplier: string;
  /** The carrier's number of the parcel; null where it is not said. */
  tracking: string | null;
  lines: readonly UblDespatchLine[];
}

/** What a supplier has sent, as a UBL 2.1 DespatchAdvice; the pallet of a line by its SSCC. */
export function writeDespatchAdvice(a: UblDespatchAdvice, supplier: UblParty, buyer: UblParty): string {
  return writeXml('DespatchAdvice', [
    ['cbc:UBLVersionID', '2.1'],
    ['cbc:ID', a.id],
    ['cbc:IssueDate', a.issuedOn],
    ['cbc:LineCountNumeric', a.lines.length],
    ...[...new Set(a.lines.map((l) => l.order))].map((order): Written => ['cac:OrderReference', [['cbc:ID', order]]]),
    ['cac:DespatchSupplierParty', [party(supplier)]],
    ['cac:DeliveryCustomerParty', [party(buyer)]],
    ['cac:Shipment', [['cbc:ID', a.id], a.arrivesOn || a.tracking ? deliveryWritten(a) : null]],
    ...a.lines.map(lineWritten),
  ]);
}

const deliveryWritten = (a: UblDespatchAdvice): Written => [
  'cac:Delivery',
  [
    a.tracking ? ['cbc:TrackingID', a.tracking] : null,
    a.arrivesOn ? ['cac:EstimatedDeliveryPeriod', [['cbc:EndDate', a.arrivesOn]]] : null,
  ],
];

function lineWritten(l: UblDespatchLine): Written {
  const traced = l.lot || l.expires;
  return [
    'cac:DespatchLine',
    [
      ['cbc:ID', l.line],
      ['cbc:DeliveredQuantity', l.packs, { unitCode: 'C62' }],
      [
        'cac:OrderLineReference',
        [
          ['cbc:LineID', l.orderLine],
          ['cac:OrderReference', [['cbc:ID', l.order]]],
        ],
      ],
      [
        'cac:Item',
        [
          l.factor === null ? null : ['cbc:PackSizeNumeric', l.factor],
          l.name ? ['cbc:Name', l.name] : null,
          l.sku ? ['cac:BuyersItemIdentification', [['cbc:ID', l.sku]]] : null,
          traced
            ? [
                'cac:ItemInstance',
                [['cac:LotIdentification', [l.lot ? ['cbc:LotNumberID', l.lot] : null, l.expires ? ['cbc:ExpiryDate', l.expires] : null]]],
              ]
            : null,
        ],
      ],
      l.sscc
        ? [
            'cac:Shipment',
            [
              ['cbc:ID', l.sscc],
              ['cac:TransportHandlingUnit', [['cbc:ID', l.sscc, { schemeID: 'SSCC' }]]],
            ],
          ]
        : null,
    ],
  ];
}

/** Reads an advice. The pallet of a line stands beneath the line, or the line beneath the pallet: both are read. */
export function readDespatchAdvice(root: XmlElement): UblDespatchAdvice {
  const only = all(root, 'cac:OrderReference');
  const order = only.length === 1 ? (textAt(only[0], 'cbc:ID') ?? '') : '';
  const shipment = at(root, 'cac:Shipment');
  const onPallets = all(shipment, 'cac:TransportHandlingUnit').flatMap((unit) =>
    all(unit, 'cac:HandlingUnitDespatchLine').map((line) => lineOf(line, order, ssccOf(unit))),
  );
  const arrives = at(shipment, 'cac:Delivery');
  return {
    id: textAt(root, 'cbc:ID') ?? '',
    issuedOn: textAt(root, 'cbc:IssueDate') ?? '',
    arrivesOn: dayOf(
      textAt(arrives, 'cac:EstimatedDeliveryPeriod/cbc:EndDate') ?? textAt(arrives, 'cbc:LatestDeliveryDate'),
      'The day of arrival',
    ),
    tracking: textAt(arrives, 'cbc:TrackingID'),
    supplier: textAt(root, 'cac:DespatchSupplierParty/cac:Party/cac:PartyName/cbc:Name') ?? '',
    lines: onPallets.length > 0 ? onPallets : all(root, 'cac:DespatchLine').map((line) => lineOf(line, order, null)),
  };
}

function ssccOf(unit: XmlElement | undefined): string | null {
  const id = textAt(unit, 'cbc:ID')?.replace(/^\(?00\)?(?=\d{18}$)/, '') ?? null;
  if (id !== null && !/^\d{18}$/.test(id)) throw new XmlFault(`${id} is no pallet code (SSCC): it has 18 digits`);
  return id;
}

function lineOf(line: XmlElement, onlyOrder: string, pallet: string | null): UblDespatchLine {
  const id = textAt(line, 'cbc:ID') ?? '';
  const ref = at(line, 'cac:OrderLineReference');
  const item = at(line, 'cac:Item');
  const trace = at(item, 'cac:ItemInstance');
  const lot = at(trace, 'cac:LotIdentification');
  const size = textAt(item, 'cbc:PackSizeNumeric');
  return {
    line: wholeNumber(id, 'The number of a line'),
    order: (textAt(ref, 'cac:OrderReference/cbc:ID') ?? onlyOrder).toUpperCase(),
    orderLine: wholeNumber(textAt(ref, 'cbc:LineID') ?? '', `The order line of line ${id}`),
    packs: wholeNumber(textAt(line, 'cbc:DeliveredQuantity') ?? '', `The quantity of line ${id}`),
    factor: size === null ? null : wholeNumber(size, `The pack size of line ${id}`),
    sku: textAt(item, 'cac:BuyersItemIdentification/cbc:ID') ?? '',
    name: textAt(item, 'cbc:Name') ?? '',
    lot: textAt(lot, 'cbc:LotNumberID') ?? textAt(trace, 'cbc:SerialID'),
    expires: dayOf(textAt(lot, 'cbc:ExpiryDate') ?? textAt(trace, 'cbc:BestBeforeDate'), `The date of the lot on line ${id}`),
    sscc: pallet ?? ssccOf(at(line, 'cac:Shipment/cac:TransportHandlingUnit')),
  };
}
