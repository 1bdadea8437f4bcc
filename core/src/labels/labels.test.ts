import fc from 'fast-check';
import { readGs1 } from '../barcode/index.js';
import {
  barcodeOf,
  faultOfMedia,
  faultsOf,
  fill,
  gs1Text,
  LABEL_FIELDS,
  placeLabels,
  sampleRecord,
  type LabelDesign,
  type Media,
} from './index.js';

const ROLL: Media = {
  kind: 'roll',
  widthMm: 100,
  heightMm: 50,
  columns: 1,
  rows: 1,
  pageWidthMm: 100,
  pageHeightMm: 50,
  leftMm: 0,
  topMm: 0,
  gapXMm: 0,
  gapYMm: 0,
};
const SHEET: Media = { ...ROLL, kind: 'sheet', widthMm: 70, heightMm: 37, columns: 3, rows: 8, pageWidthMm: 210, pageHeightMm: 297 };

describe('fields', () => {
  it('are filled from the record, and left standing where it has none', () => {
    expect(fill('{aisle}, {bay} {colour}', sampleRecord('place'))).toBe('C, 07 {colour}');
  });
  it('are never filled from what every object has', () => {
    expect(fill('{constructor}', {})).toBe('{constructor}');
  });
  it('all have a sample', () => {
    for (const fields of Object.values(LABEL_FIELDS)) expect(fields.every((f) => f.sample !== '')).toBe(true);
  });
});

describe('sheets', () => {
  it('are filled along the rows from the first free place, and go on to the next sheet', () => {
    const pages = placeLabels(SHEET, 3, 2, 22);
    expect(pages.map((p) => p.length)).toEqual([3, 3]);
    expect(pages[0]?.[0]).toEqual({ record: 0, xMm: 0, yMm: 7 * 37 });
    expect(pages[1]?.map((l) => l.record)).toEqual([1, 2, 2]);
  });
  it('must hold their labels', () => {
    expect(faultOfMedia({ ...SHEET, widthMm: 80 })).toMatch(/need 240 mm/);
    expect(faultOfMedia({ ...SHEET, rows: 9 })).toMatch(/need 333 mm/);
    expect(faultOfMedia({ ...SHEET, columns: 0 })).not.toBeNull();
    expect(faultOfMedia({ ...SHEET, gapXMm: -1 })).not.toBeNull();
    expect(faultOfMedia(SHEET)).toBeNull();
  });
  it('refuse a first place that they have not, and prints without end', () => {
    expect(() => placeLabels(SHEET, 1, 1, 25)).toThrow('1 to 24');
    expect(() => placeLabels(ROLL, 600, 10, 1)).toThrow('at most');
    expect(() => placeLabels(ROLL, 1, 0, 1)).toThrow(RangeError);
  });
  it('give every copy of every record one place, never two on one', () => {
    fc.assert(
      fc.property(fc.nat(60), fc.integer({ min: 1, max: 5 }), fc.integer({ min: 1, max: 24 }), (records, copies, start) => {
        const pages = placeLabels(SHEET, records, copies, start);
        const all = pages.flat();
        return (
          all.length === records * copies &&
          pages.every((p) => new Set(p.map((l) => `${l.xMm}/${l.yMm}`)).size === p.length) &&
          all.every((l) => l.xMm + SHEET.widthMm <= 210 && l.yMm + SHEET.heightMm <= 297)
        );
      }),
    );
  });
});

describe('designs', () => {
  const design: LabelDesign = {
    name: 'Shelf',
    subject: 'place',
    media: ROLL,
    elements: [{ id: 'a', kind: 'text', xMm: 2, yMm: 2, wMm: 60, hMm: 20, text: '{code}', align: 'left', bold: true, mono: true }],
  };
  it('are sound where everything stands on the label and asks for fields that there are', () => {
    expect(faultsOf(design)).toEqual([]);
  });
  it('say what stands over the edge, is unknown, or is empty', () => {
    const [text] = design.elements;
    expect(faultsOf({ ...design, elements: [{ ...text!, xMm: 50 }] })[0]).toMatch(/over the edge/);
    expect(faultsOf({ ...design, elements: [{ ...text!, wMm: NaN }] })[0]).toMatch(/smaller than 1 mm/);
    expect(faultsOf({ ...design, subject: 'badge' })[0]).toBe('Element 1 asks for {code}, which a badge has not');
    expect(faultsOf({ ...design, elements: [] })).toEqual(['Nothing stands on the label yet']);
    expect(
      faultsOf({
        ...design,
        elements: [{ id: 'b', kind: 'barcode', xMm: 0, yMm: 0, wMm: 9, hMm: 9, value: ' ', symbology: 'qr', withText: false }],
      })[0],
    ).toMatch(/of nothing/);
  });
});

describe('barcodes of a label', () => {
  it('are EANs where the number is one, and still barcodes where it is not', () => {
    expect(barcodeOf('ean', '9521077000010')?.writer).toBe('ean13');
    expect(barcodeOf('ean', '09521077000010')?.writer).toBe('ean13');
    expect(barcodeOf('ean', '96385074')).toEqual({ writer: 'ean8', text: '96385074', square: false });
    expect(barcodeOf('ean', '9521077000013')?.writer).toBe('code128');
    expect(barcodeOf('ean', 'TT-0001')?.writer).toBe('code128');
    expect(barcodeOf('ean', '   ')).toBeNull();
  });
  it('take GS1 data in brackets, and plain text as it is', () => {
    expect(barcodeOf('data-matrix', '(01)09506000134352')?.writer).toBe('gs1datamatrix');
    expect(barcodeOf('gs1-128', 'C-07-2')?.writer).toBe('code128');
    expect(barcodeOf('qr', 'https://example.org')?.writer).toBe('qrcode');
  });
  it('hold GTIN, date and lot in an order that reads back', () => {
    const text = gs1Text('9506000134352', 'L26/10', '2027-03-31');
    const read = readGs1(text, { today: '2026-05-14' });
    expect(read.ok && [read.gtin14, read.fields['10'], read.dates['17']]).toEqual(['09506000134352', 'L26/10', '2027-03-31']);
    expect(gs1Text('JAR', 'L', null)).toBe('');
    expect(gs1Text('9506000134353', null, null)).toBe('');
  });
});

describe('the samples of fields', () => {
  it('are sound where they are codes', () => {
    const sample = sampleRecord('item');
    const read = readGs1(sample['gs1'] ?? '', { today: '2026-05-14' });
    expect(read.ok && read.gtin14).toBe(`0${sample['barcode']}`);
    expect(barcodeOf('ean', sample['barcode'] ?? '')?.writer).toBe('ean13');
  });
});
