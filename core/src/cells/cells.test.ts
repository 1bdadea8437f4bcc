import fc from 'fast-check';
import { guessColumns, harmless, plain, readDate, readDecimal, readMeasure, readWhole, readYesNo, unitInHead } from './index.js';

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
  it('knows the heads of German, French and Dutch houses, with umlauts, in compounds and with units behind them', () => {
    const by = (...heads: string[]) => guessColumns(heads, fields);
    expect(by('Artikelnummer', 'Bezeichnung', 'EK-Preis', 'Gewicht (kg)')).toEqual(['sku', 'name', 'cost', 'weightG']);
    expect(by('Référence', 'Désignation', 'Prix d’achat', 'Poids net')).toEqual(['sku', 'name', 'cost', 'weightG']);
    expect(by('Artikelcode', 'Omschrijving', 'Inkoopprijs', 'Gewicht in gram')).toEqual(['sku', 'name', 'cost', 'weightG']);
    const packs = [{ key: 'height', label: 'Height, mm', also: ['height'] }, { key: 'width', label: 'Width, mm', also: ['width'] }, { key: 'expires', label: 'Expires' }, { key: 'email', label: 'E-mail', also: ['email'] }]; // prettier-ignore
    expect(guessColumns(['Höhe', 'BREITE cm', 'MHD', 'E-Mail-Adresse'], packs)).toEqual(['height', 'width', 'expires', 'email']);
    expect(guessColumns(['Straße', 'PLZ', 'Ort'], [{ key: 'line', label: 'Address', also: ['street'] }, { key: 'postcode', label: 'Postcode' }, { key: 'city', label: 'City' }])).toEqual(['line', 'postcode', 'city']); // prettier-ignore
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

describe('weights and lengths', () => {
  it('are read in the unit that the cell names, otherwise in that of the column', () => {
    expect(['1,2 kg', '350', '350g', '0.35 KG', '2 lb', '1 oz'].map((t) => readMeasure(t, 'g'))).toEqual([
      '1200',
      '350',
      '350',
      '350',
      '907',
      '28',
    ]);
    expect(['1,2', '0.35', '1 200'].map((t) => readMeasure(t, 'g', 'kg'))).toEqual(['1200', '350', '1200000']);
    expect(['30 cm', '30', '1,5 m', '12"'].map((t) => readMeasure(t, 'mm', 'cm'))).toEqual(['300', '300', '1500', '305']);
  });
  it('are none where the unit is none of theirs, or nothing is a number', () => {
    for (const no of ['30 cm', 'heavy', '', 'kg', '1-2 kg', '5 stone']) expect([no, readMeasure(no, 'g')]).toEqual([no, null]);
  });
  it('have the unit of their head', () => {
    expect(['Gewicht (kg)', 'Weight, g', 'Length cm', 'Poids', 'kg per piece'].map((h) => unitInHead(h, 'g'))).toEqual([
      'kg',
      'g',
      null,
      null,
      'kg',
    ]);
    expect(['Länge in cm', 'Höhe [mm]', 'Width "'].map((h) => unitInHead(h, 'mm'))).toEqual(['cm', 'mm', 'in']);
  });
});

describe('words of other languages', () => {
  it('are read as yes, no and months', () => {
    expect(['ja', 'Nein', 'oui', 'NON', 'nee', 'wahr'].map(readYesNo)).toEqual([true, false, true, false, false, true]);
    expect(['14. Mai 2026', '1 März 2026', '3 août 2026', '5 okt 2026', '7 Juli 2026', '7 juin 2026', '9 déc. 2026'].map(readDate)).toEqual(
      [
        '2026-05-14',
        '2026-03-01',
        '2026-08-03',
        '2026-10-05',
        '2026-07-07',
        '2026-06-07',
        '2026-12-09', // prettier-ignore
      ],
    );
    expect(['1 Foo 2026', '31 juin 2026'].map(readDate)).toEqual([null, null]);
  });
});
