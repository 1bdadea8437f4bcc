import fc from 'fast-check';
import {
  readDespatchAdvice,
  readOrder,
  readOrderResponse,
  readXml,
  structureFaults,
  writeDespatchAdvice,
  writeOrder,
  writeOrderResponse,
  XmlFault,
  type UblDespatchAdvice,
  type UblOrder,
  type UblOrderResponse,
  type UblParty,
} from '../src/ubl/index.js';

const house: UblParty = {
  code: '',
  name: 'Tarn & Thistle',
  addressLines: ['Millrace', 'NW8 2RE Netherwick'],
  email: 'orders@tarnthistle.example',
  phone: '+44 1632 960000',
};
const quillon: UblParty = { code: 'QUILLON', name: 'Quillon Glassware <Ltd>', addressLines: [], email: 'sales@quillon.example', phone: '' };
const order: UblOrder = {
  code: 'P-1187',
  issuedOn: '2026-05-14',
  currency: 'EUR',
  note: 'Ring "before" & after',
  buyer: house,
  seller: quillon,
  deliverTo: { code: 'MILL', name: 'Millrace', addressLines: ['Netherwick'], email: '', phone: '' },
  expectedOn: '2026-06-01',
  charges: [{ says: 'Freight', amount: '120.00' }],
  goods: '80.64',
  total: '200.64',
  lines: [
    {
      line: 1,
      packs: 4,
      factor: 48,
      packName: 'tray',
      price: '20.160000',
      total: '80.64',
      sku: 'JAR-454-RD',
      supplierSku: 'QG 454',
      gtin: '09521077000010',
      name: 'Jar 454 g, round',
      expectedOn: '2026-06-08',
    },
  ],
};
const response: UblOrderResponse = {
  id: 'QR-1',
  issuedOn: '2026-05-15',
  says: 'changed',
  order: 'P-1187',
  note: '',
  seller: quillon.name,
  promisedOn: '2026-06-02',
  lines: [
    { line: 1, says: 'changed', packs: 3, price: '21.00', promisedOn: '2026-06-10', note: 'glass is short' },
    { line: 2, says: 'refused', packs: null, price: null, promisedOn: null, note: '' },
    { line: 3, says: 'accepted', packs: null, price: null, promisedOn: null, note: '' },
  ],
};
const advice: UblDespatchAdvice = {
  id: 'DA-77',
  issuedOn: '2026-05-30',
  arrivesOn: '2026-06-01',
  tracking: 'HP10023757GB',
  supplier: quillon.name,
  lines: [
    {
      line: 1,
      order: 'P-1187',
      orderLine: 1,
      packs: 2,
      factor: 48,
      sku: 'JAR-454-RD',
      name: 'Jar',
      lot: null,
      expires: null,
      sscc: '395060001343520013',
    },
    {
      line: 2,
      order: 'P-1188',
      orderLine: 3,
      packs: 1,
      factor: null,
      sku: 'SYR-05',
      name: 'Syrup',
      lot: 'LM1',
      expires: '2028-01-31',
      sscc: null,
    },
  ],
};
const read = (text: string) => readXml(Buffer.from(text));

describe('documents written by the house', () => {
  it('keep to the structure of UBL 2.1', () => {
    for (const text of [
      writeOrder(order),
      writeOrder({
        ...order,
        note: '',
        expectedOn: null,
        charges: [],
        lines: [{ ...order.lines[0]!, supplierSku: '', gtin: null, expectedOn: null }],
      }),
      writeOrderResponse(response, quillon, house, 'EUR'),
      writeDespatchAdvice(advice, quillon, house),
    ])
      expect(structureFaults(read(text))).toEqual([]);
  });

  it('come back as they were', () => {
    expect(readOrder(read(writeOrder(order)))).toEqual(order);
    expect(readOrderResponse(read(writeOrderResponse(response, quillon, house, 'EUR')))).toEqual(response);
    expect(readDespatchAdvice(read(writeDespatchAdvice(advice, quillon, house)))).toEqual(advice);
  });

  it('come back whatever people have typed into them', () => {
    const words = fc
      .string({ unit: fc.constantFrom(...'aZ9 &<>"\'/%;#-é€漢'.split('')), minLength: 1, maxLength: 30 })
      .map((t) => `x${t.trim()}x`);
    fc.assert(
      fc.property(words, words, words, (note, name, says) => {
        const one = { ...order, note, seller: { ...quillon, name }, charges: [{ says, amount: '1.00' }] };
        expect(readOrder(read(writeOrder(one)))).toEqual(one);
      }),
      { numRuns: 60 },
    );
  });
});

describe('documents of others', () => {
  it('may use any prefixes for the namespaces', () => {
    const text = writeDespatchAdvice(advice, quillon, house)
      .replace(/cac:/g, 'a:')
      .replace(/xmlns:cac=/, 'xmlns:a=')
      .replace(/<(\/?)DespatchAdvice/g, '<$1d:DespatchAdvice')
      .replace(/ xmlns="/, ' xmlns:d="');
    expect(readDespatchAdvice(read(text))).toEqual(advice);
  });

  it('may have the lines beneath their pallets', () => {
    const text = `<DespatchAdvice xmlns="urn:oasis:names:specification:ubl:schema:xsd:DespatchAdvice-2" xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2" xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2">
      <cbc:ID>X</cbc:ID><cbc:IssueDate>2026-05-30</cbc:IssueDate><cac:OrderReference><cbc:ID>p-1187</cbc:ID></cac:OrderReference>
      <cac:DespatchSupplierParty/><cac:DeliveryCustomerParty/>
      <cac:Shipment><cbc:ID>1</cbc:ID><cac:TransportHandlingUnit><cbc:ID>(00)395060001343520013</cbc:ID>
        <cac:HandlingUnitDespatchLine><cbc:ID>7</cbc:ID><cbc:DeliveredQuantity unitCode="C62">5.00</cbc:DeliveredQuantity><cac:OrderLineReference><cbc:LineID>2</cbc:LineID></cac:OrderLineReference><cac:Item/></cac:HandlingUnitDespatchLine>
      </cac:TransportHandlingUnit></cac:Shipment>
      <cac:DespatchLine><cbc:ID>7</cbc:ID><cac:OrderLineReference><cbc:LineID>2</cbc:LineID></cac:OrderLineReference><cac:Item/></cac:DespatchLine></DespatchAdvice>`;
    expect(structureFaults(read(text))).toEqual([]);
    expect(readDespatchAdvice(read(text)).lines).toMatchObject([
      { line: 7, order: 'P-1187', orderLine: 2, packs: 5, factor: null, sscc: '395060001343520013' },
    ]);
  });

  it.each<[string, (t: string) => string, string]>([
    ['out of order', (t) => t.replace(/(<cbc:ID>QR-1<\/cbc:ID>)\s*(<cbc:IssueDate>.*<\/cbc:IssueDate>)/, '$2$1'), 'stands too late'],
    [
      'twice what may be once',
      (t) => t.replace(/<cbc:OrderResponseCode>CA/, '<cbc:OrderResponseCode>AP</cbc:OrderResponseCode><cbc:OrderResponseCode>CA'),
      'more than one',
    ],
    ['without what must be', (t) => t.replace(/<cac:OrderReference>[\s\S]*?<\/cac:OrderReference>/, ''), 'lacks cac:OrderReference'],
    ['with what is not known', (t) => t.replace('<cbc:IssueDate>', '<cbc:Colour>red</cbc:Colour><cbc:IssueDate>'), 'has no cbc:Colour'],
    ['with an empty text', (t) => t.replace('<cbc:ID>QR-1</cbc:ID>', '<cbc:ID/>'), 'is empty'],
    ['with elements in a text', (t) => t.replace('QR-1', '<cbc:ID>1</cbc:ID>'), 'holds text'],
  ])('that depart from the structure are told where: %s', (_, spoil, says) => {
    const faults = structureFaults(read(spoil(writeOrderResponse(response, quillon, house, 'EUR'))));
    expect(faults.join('; ')).toContain(says);
  });

  it('that are something else are not taken', () => {
    expect(structureFaults(read('<Pear/>'))).toEqual(['{}Pear is no document that is taken here']);
    const reminder = '<Reminder xmlns="urn:oasis:names:specification:ubl:schema:xsd:Reminder-2"/>';
    expect(structureFaults(read(reminder))[0]).toContain('Reminder is no document');
  });

  it('with figures that are none are refused with the line', () => {
    const spoilt = (from: string, to: string) => () =>
      readDespatchAdvice(read(writeDespatchAdvice(advice, quillon, house).replace(from, to)));
    expect(spoilt('>2</cbc:DeliveredQuantity>', '>2.5</cbc:DeliveredQuantity>')).toThrow('The quantity of line 1 is 2.5');
    expect(spoilt('"SSCC">395060001343520013', '"SSCC">39506')).toThrow('no pallet code');
    expect(spoilt('2028-01-31', '31.1.2028')).toThrow('is no day');
    expect(() => readOrderResponse(read(writeOrderResponse(response, quillon, house, 'EUR').replace('>CA<', '>XX<')))).toThrow(XmlFault);
  });
});

describe('hostile documents', () => {
  const wrapped = (inside: string) => `<Order xmlns="urn:oasis:names:specification:ubl:schema:xsd:Order-2">${inside}</Order>`;

  it.each<[string, string | Buffer, string]>([
    ['entities that grow', `<!DOCTYPE x [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;">]>${wrapped('&b;')}`, 'document type'],
    ['entities that read files', `<!doctype x [<!ENTITY f SYSTEM "file:///etc/passwd">]>${wrapped('&f;')}`, 'document type'],
    ['a declaration in the midst', wrapped('<!ENTITY a "b">'), 'document type'],
    ['depth', wrapped('<a>'.repeat(5_000) + '</a>'.repeat(5_000)), 'nested more than 40'],
    ['size', Buffer.alloc(2 * 1024 * 1024 + 1, 'a'), 'larger than 2 MB'],
    ['many elements', wrapped('<a></a>'.repeat(70_000)), 'too many elements'],
    ['many short elements', wrapped('<a/>'.repeat(70_000)), 'too many elements'],
    ['tags that do not close', wrapped('<a><b></a>'), 'not well formed'],
    ['no document', '', 'not well formed|no document'],
    ['bytes that are no text', Buffer.from([0xff, 0xfe, 0x00, 0x3c]), 'not well formed|no document'],
  ])('are refused: %s', (_, text, says) => {
    expect(() => readXml(Buffer.isBuffer(text) ? text : Buffer.from(text))).toThrow(XmlFault);
    expect(() => readXml(Buffer.isBuffer(text) ? text : Buffer.from(text))).toThrow(new RegExp(says));
  });

  it.each(['__proto__', 'constructor', 'toString'])('are not let into the names of things: %s', (name) => {
    try {
      expect(structureFaults(read(wrapped(`<${name}><x>1</x></${name}>`)))[0]).toMatch(/has no/);
    } catch (thrown) {
      expect(thrown).toBeInstanceOf(XmlFault);
    }
    expect(({} as Record<string, unknown>)['x']).toBeUndefined();
  });

  it('never throw anything but a fault that can be told', () => {
    const piece = fc.constantFrom(
      '<a>',
      '</a>',
      '<b x="1">',
      '&lt;',
      '&#65;',
      '<!--',
      '-->',
      '<![CDATA[',
      ']]>',
      'text',
      '"',
      '<',
      '>',
      '&',
      ' ',
      '<?pi?>',
    );
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 25 }), (parts) => {
        try {
          readXml(Buffer.from(wrapped(parts.join(''))));
        } catch (thrown) {
          expect(thrown).toBeInstanceOf(XmlFault);
        }
      }),
      { numRuns: 400 },
    );
  });
});
