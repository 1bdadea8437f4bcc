import { party, type UblParty } from './order.document.js';
import { all, at, textAt, type Written, writeXml, type XmlElement } from './xml.js';

export interface UblInvoiceLine {
  line: number;
  /** Base units. */
  units: number;
  /** Without tax. */
  net: string;
  price: string;
  /** How many base units the price is for. */
  factor: number;
  sku: string;
  name: string;
  order: string | null;
  taxPercent: string;
}
export interface UblTax {
  percent: string;
  net: string;
  tax: string;
}
export interface UblInvoice {
  kind: 'invoice' | 'credit';
  code: string;
  issuedOn: string;
  /** Null on a credit note. */
  dueOn: string | null;
  note: string;
  currency: string;
  /** The invoice that a credit note is about. */
  credits: string | null;
  seller: UblParty;
  buyer: UblParty;
  buyerTaxNumber: string;
  taxes: readonly UblTax[];
  net: string;
  tax: string;
  gross: string;
  lines: readonly UblInvoiceLine[];
}

/** UN/ECE Recommendation 20: a piece. */
const PIECE = 'C62';
/** UN/CEFACT 1001: commercial invoice, credit note. */
const TYPES = { invoice: '380', credit: '381' } as const;

/** UN/CEFACT 5305: standard rate, or nothing at all. */
const category = (percent: string): Written => [
  'cac:TaxCategory',
  [
    ['cbc:ID', Number(percent) > 0 ? 'S' : 'Z'],
    ['cbc:Percent', percent],
    ['cac:TaxScheme', [['cbc:ID', 'VAT']]],
  ],
];

/** An invoice or a credit note as UBL 2.1 has it. What is credited stands on a credit note as amounts above nought. */
export function writeInvoice(i: UblInvoice): string {
  const sign = (amount: string) => (i.kind === 'credit' && amount.startsWith('-') ? amount.slice(1) : amount);
  const money = (name: string, amount: string): Written => [name, sign(amount), { currencyID: i.currency }];
  const isCredit = i.kind === 'credit';
  return writeXml(isCredit ? 'CreditNote' : 'Invoice', [
    ['cbc:UBLVersionID', '2.1'],
    ['cbc:ID', i.code],
    ['cbc:IssueDate', i.issuedOn],
    !isCredit && i.dueOn ? ['cbc:DueDate', i.dueOn] : null,
    [isCredit ? 'cbc:CreditNoteTypeCode' : 'cbc:InvoiceTypeCode', TYPES[i.kind]],
    i.note ? ['cbc:Note', i.note] : null,
    ['cbc:DocumentCurrencyCode', i.currency],
    ['cbc:LineCountNumeric', i.lines.length],
    i.credits ? ['cac:BillingReference', [['cac:InvoiceDocumentReference', [['cbc:ID', i.credits]]]]] : null,
    ['cac:AccountingSupplierParty', [party(i.seller)]],
    ['cac:AccountingCustomerParty', [taxed(party(i.buyer), i.buyerTaxNumber)]],
    [
      'cac:TaxTotal',
      [
        money('cbc:TaxAmount', i.tax),
        ...i.taxes.map((t): Written => [
          'cac:TaxSubtotal',
          [money('cbc:TaxableAmount', t.net), money('cbc:TaxAmount', t.tax), category(t.percent)],
        ]),
      ],
    ],
    [
      'cac:LegalMonetaryTotal',
      [
        money('cbc:LineExtensionAmount', i.net),
        money('cbc:TaxExclusiveAmount', i.net),
        money('cbc:TaxInclusiveAmount', i.gross),
        money('cbc:PayableAmount', i.gross),
      ],
    ],
    ...i.lines.map((l): Written => [
      isCredit ? 'cac:CreditNoteLine' : 'cac:InvoiceLine',
      [
        ['cbc:ID', l.line],
        [isCredit ? 'cbc:CreditedQuantity' : 'cbc:InvoicedQuantity', l.units, { unitCode: PIECE }],
        money('cbc:LineExtensionAmount', l.net),
        l.order ? ['cac:OrderLineReference', [['cbc:LineID', l.line], ['cac:OrderReference', [['cbc:ID', l.order]]]]] : null, // prettier-ignore
        [
          'cac:Item',
          [
            ['cbc:Name', l.name],
            l.sku ? ['cac:SellersItemIdentification', [['cbc:ID', l.sku]]] : null,
            [
              'cac:ClassifiedTaxCategory',
              [
                ['cbc:ID', Number(l.taxPercent) > 0 ? 'S' : 'Z'],
                ['cbc:Percent', l.taxPercent],
                ['cac:TaxScheme', [['cbc:ID', 'VAT']]],
              ],
            ],
          ],
        ],
        ['cac:Price', [money('cbc:PriceAmount', l.price), ['cbc:BaseQuantity', l.factor, { unitCode: PIECE }]]],
      ],
    ]),
  ]);
}

/** The buyer's tax number has its place between the address and whom to write to. */
function taxed([name, children]: Written, number: string): Written {
  if (number === '' || !Array.isArray(children)) return [name, children];
  const scheme: Written = ['cac:PartyTaxScheme', [['cbc:CompanyID', number], ['cac:TaxScheme', [['cbc:ID', 'VAT']]]]]; // prettier-ignore
  const parts = children as readonly (Written | null)[];
  const contact = parts.findIndex((c) => c?.[0] === 'cac:Contact');
  const before = contact < 0 ? parts.length : contact;
  return [name, [...parts.slice(0, before), scheme, ...parts.slice(before)]];
}

/** Reads an invoice or credit note back, as a customer's system would. Amounts of a credit note are above nought. */
export function readInvoice(root: XmlElement): UblInvoice {
  const isCredit = root.name === 'CreditNote';
  const total = at(root, 'cac:LegalMonetaryTotal');
  const partyAt = (name: string): UblParty => {
    const element = at(root, `${name}/cac:Party`);
    return {
      code: textAt(element, 'cac:PartyIdentification/cbc:ID') ?? '',
      name: textAt(element, 'cac:PartyName/cbc:Name') ?? '',
      addressLines: all(at(element, 'cac:PostalAddress'), 'cac:AddressLine').flatMap((l) => textAt(l, 'cbc:Line') ?? []),
      email: textAt(element, 'cac:Contact/cbc:ElectronicMail') ?? '',
      phone: textAt(element, 'cac:Contact/cbc:Telephone') ?? '',
    };
  };
  return {
    kind: isCredit ? 'credit' : 'invoice',
    code: textAt(root, 'cbc:ID') ?? '',
    issuedOn: textAt(root, 'cbc:IssueDate') ?? '',
    dueOn: textAt(root, 'cbc:DueDate'),
    note: textAt(root, 'cbc:Note') ?? '',
    currency: textAt(root, 'cbc:DocumentCurrencyCode') ?? '',
    credits: textAt(root, 'cac:BillingReference/cac:InvoiceDocumentReference/cbc:ID'),
    seller: partyAt('cac:AccountingSupplierParty'),
    buyer: partyAt('cac:AccountingCustomerParty'),
    buyerTaxNumber: textAt(root, 'cac:AccountingCustomerParty/cac:Party/cac:PartyTaxScheme/cbc:CompanyID') ?? '',
    taxes: all(at(root, 'cac:TaxTotal'), 'cac:TaxSubtotal').map((t) => ({
      percent: textAt(t, 'cac:TaxCategory/cbc:Percent') ?? '',
      net: textAt(t, 'cbc:TaxableAmount') ?? '',
      tax: textAt(t, 'cbc:TaxAmount') ?? '',
    })),
    net: textAt(total, 'cbc:TaxExclusiveAmount') ?? '',
    tax: textAt(root, 'cac:TaxTotal/cbc:TaxAmount') ?? '',
    gross: textAt(total, 'cbc:PayableAmount') ?? '',
    lines: all(root, isCredit ? 'cac:CreditNoteLine' : 'cac:InvoiceLine').map((l) => ({
      line: Number(textAt(l, 'cbc:ID')),
      units: Number(textAt(l, isCredit ? 'cbc:CreditedQuantity' : 'cbc:InvoicedQuantity')),
      net: textAt(l, 'cbc:LineExtensionAmount') ?? '',
      price: textAt(l, 'cac:Price/cbc:PriceAmount') ?? '',
      factor: Number(textAt(l, 'cac:Price/cbc:BaseQuantity') ?? 1),
      sku: textAt(l, 'cac:Item/cac:SellersItemIdentification/cbc:ID') ?? '',
      name: textAt(l, 'cac:Item/cbc:Name') ?? '',
      order: textAt(l, 'cac:OrderLineReference/cac:OrderReference/cbc:ID'),
      taxPercent: textAt(l, 'cac:Item/cac:ClassifiedTaxCategory/cbc:Percent') ?? '',
    })),
  };
}
