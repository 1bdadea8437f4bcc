import fc from 'fast-check';
import { guessColumns, harmless, plain, readDate, readDecimal, readWhole, readYesNo } from './index.js';

describe('cells that begin like formulas', () => {
  it('are made harmless', () => {
    for (const evil of ['=1+1', '+SUM(A1)', '-2+3', '@cmd', '\t=1', "'=1", '＝1']) expect(harmless(evil)).toBe(`'${evil}`);
  });
  it('leave words and plain numbers as they are', () => {
    for (const good of ['Jar 454 g', '-12', '-0.5', '', "O'Hara", "'quoted'"]) expect(harmless(good)).toBe(good);
  });
  it('never begin like a formula, and read back as what they were', () => {
    const text = fc.oneof(fc.string({ unit: 'binary' }), fc.stringMatching(/^'*[=+@\t-]{0,3}.{0,5}$/));
    fc.assert(
      fc.property(text, (t) => {
        const cell = harmless(t);
        return plain(cell) === t && (!/^[=+\-@\t\r\n]/.test(cell) || /^-\d+(\.\d+)?$/.test(cell));
      }),
    );
  });
});

describe('guessing columns', () => {
  const fields = [
    { key: 'sku', label: 'SKU', also: ['item code', 'part number'] },
    { key: 'name', label: 'Name', also: ['description'] },
    { key: 'cost', label: 'Cost', also: ['unit cost', 'purchase price'] },
    { key: 'weightG', label: 'Weight, g' },
  ];
  it('goes by our own heads, by what others call them, and by parts of words', () => {
    expect(guessColumns(['Part Number', 'DESCRIPTION', 'Unit cost (GBP)', 'weight g', 'Colour'], fields)).toEqual([
      'sku',
      'name',
      'cost',
      'weightG',
      null,
    ]);
  });
  it('gives a field once, to the better head', () => {
    expect(guessColumns(['Supplier name', 'Name'], fields)).toEqual([null, 'name']);
  });
  it('never gives one field twice, whatever the heads', () => {
    fc.assert(
      fc.property(fc.array(fc.string(), { maxLength: 12 }), (heads) => {
        const given = guessColumns(heads, fields).filter((g) => g !== null);
        return new Set(given).size === given.length;
      }),
    );
  });
});

describe('values as people write them', () => {
  it('reads decimals of both habits', () => {
    for (const [text, value] of [
      ['0.42', '0.42'],
      ['1,234.50', '1234.5'],
      ['1.234,50', '1234.5'],
      ['0,42', '0.42'],
      ['1,234', '1234'],
      ['£ 20.16', '20.16'],
      ['−3', '-3'],
      ['.5', '0.5'],
      ['007', '7'],
      ['-0', '0'],
    ] as const)
      expect([text, readDecimal(text)]).toEqual([text, value]);
    for (const text of ['', 'abc', '1.2.3', '1e5', '--2', '5 kg']) expect([text, readDecimal(text)]).toEqual([text, null]);
  });
  it('reads back every decimal that it wrote', () => {
    fc.assert(
      fc.property(
        fc.integer(),
        fc.integer({ min: 0, max: 999_999 }),
        (w, p) => readDecimal(readDecimal(`${w}.${p}`) ?? 'x') === readDecimal(`${w}.${p}`),
      ),
    );
  });
  it('refuses whole numbers that are not whole or too large', () => {
    expect([readWhole('1,536'), readWhole('2.5'), readWhole('9007199254740993'), readWhole('-4')]).toEqual([1536, null, null, -4]);
  });
  it('reads days, day before month, and refuses days that are none', () => {
    expect(['2026-05-14', '14/05/2026', '14.5.2026', '14 May 2026', '2026-05-14T00:00:00Z'].map(readDate)).toEqual(
      Array(5).fill('2026-05-14'),
    );
    expect(['2026-02-30', '31/04/2026', '5/14/2026', 'May', '14 Xyz 2026', '0001-01-01'].map(readDate)).toEqual(Array(6).fill(null));
  });
  it('reads yes and no', () => {
    expect(['Yes', 'x', 'FALSE', '', 'perhaps'].map(readYesNo)).toEqual([true, true, false, false, null]);
  });
});
