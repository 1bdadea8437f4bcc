import fc from 'fast-check';
import { checkDigit, checkPair, expandUpcE, hasCheckDigit, readGs1 } from './index.js';

const today = '2027-03-01';
const GS = '\u001d';
const read = (input: string, context?: 'upc-e') => readGs1(input, { today, ...(context ? { context } : {}) });
const fault = (input: string, context?: 'upc-e') => {
  const result = read(input, context);
  return result.ok ? 'read' : result.errorKind;
};
const fields = (input: string) => {
  const result = read(input);
  return result.ok ? result.fields : result.errorKind;
};

describe('element strings', () => {
  it('read the GTIN, the date and the measure', () => {
    expect(read(']C10109506000134352172803313103001250')).toEqual({
      ok: true,
      fields: { '01': '09506000134352', '17': '280331', '3103': '001250' },
      gtin14: '09506000134352',
      dates: { '17': '2028-03-31' },
      decimals: { '3103': '1.250' },
    });
  });

  it.each([']C1', ']d2', ']Q3', ']e0'])('are introduced by %s', (symbology) => {
    expect(fields(`${symbology}0109506000134352`)).toEqual({ '01': '09506000134352' });
  });

  it('part variable values by the separator', () => {
    expect(fields(`]C110ABC123${GS}21XYZ`)).toEqual({ '10': 'ABC123', '21': 'XYZ' });
  });

  it('do not mind a separator before the first or after a fixed value', () => {
    expect(fields(`]C1${GS}0109506000134352${GS}10L1`)).toEqual({ '01': '09506000134352', '10': 'L1' });
  });

  it('do not mind a separator at the end', () => {
    expect(fields(`]C110L1${GS}`)).toEqual({ '10': 'L1' });
  });

  it.each([
    ['a wrong check digit', ']C10109506000134353', 'checkDigit'],
    ['a short GTIN', ']C1010950600013435', 'length'],
    ['letters in a GTIN', ']C101095060001343AB', 'charset'],
    ['a day that is none', ']C117280231', 'date'],
    ['a month that is none', ']C117281301', 'date'],
    ['an unknown identifier', ']C10509506000134352', 'unknownAi'],
    ['a letter where an identifier is due', ']C1X109506', 'unknownAi'],
    ['an identifier twice', `]C110A${GS}10B`, 'duplicateAi'],
    ['a lot that is too long', `]C110${'A'.repeat(21)}`, 'tooLong'],
    ['a fixed value that runs on', ']C1422276010950', 'missingSeparator'],
    ['an empty lot', `]C110${GS}21A`, 'length'],
    ['a separator inside a fixed value', `]C10109506${GS}000134352`, 'length'],
    ['a character that GS1 does not allow', ']C110A~B', 'charset'],
    ['nothing', ']C1', 'empty'],
    ['only a separator', `]C1${GS}`, 'empty'],
    ['a wrong SSCC', ']C100106141411234567898', 'checkDigit'],
  ])('refuse %s', (_, input, kind) => {
    expect(fault(input)).toBe(kind);
  });

  it('read the SSCC of a pallet', () => {
    expect(fields(']C100106141411234567897')).toEqual({ '00': '106141411234567897' });
  });

  it.each([
    ['3100', '001250', '1250'],
    ['3105', '000001', '0.00001'],
    ['3922', '00299', '2.99'],
    ['3932', '978123456', '1234.56'],
    ['3900', '0', '0'],
    ['3941', '1250', '125.0'],
  ])('place the point of %s', (ai, value, decimal) => {
    const result = read(`]C1${ai}${value}`);
    expect(result.ok && result.decimals[ai]).toBe(decimal);
  });

  it('know no measure with six places', () => {
    expect(fault(']C13106001250')).toBe('unknownAi');
  });
});

describe('dates', () => {
  const date = (yymmdd: string, day = today) => {
    const result = readGs1(`]C117${yymmdd}`, { today: day });
    return result.ok ? result.dates['17'] : result.errorKind;
  };

  it.each([
    ['280300', '2028-03-31'],
    ['280200', '2028-02-29'],
    ['270200', '2027-02-28'],
    ['280229', '2028-02-29'],
    ['270229', 'date'],
    ['280431', 'date'],
  ])('%s is %s', (given, wanted) => {
    expect(date(given)).toBe(wanted);
  });

  it.each([
    ['770101', '2077-01-01'],
    ['780101', '1978-01-01'],
    ['990101', '1999-01-01'],
    ['000101', '2000-01-01'],
  ])('take the century from today: %s is %s in 2027', (given, wanted) => {
    expect(date(given)).toBe(wanted);
  });

  it('look ahead over the turn of a century', () => {
    expect(date('100101', '2098-06-01')).toBe('2110-01-01');
  });

  it('read time of day', () => {
    expect(fault(']C170032803312460')).toBe('date');
    expect(fields(']C170032803312359')).toEqual({ '7003': '2803312359' });
  });
});

describe('bracketed text', () => {
  it('is read with brackets inside a value', () => {
    expect(fields('(01)09506000134352(10)AB(C')).toEqual({ '01': '09506000134352', '10': 'AB(C' });
  });
  it.each([
    ['(01)9506000134352', 'length'],
    ['(01)09506000134353', 'checkDigit'],
    ['(10)', 'length'],
    ['(9999)1', 'unknownAi'],
    ['(1)2', 'notGs1'],
    ['(01', 'notGs1'],
    ['(10)A(10)B', 'duplicateAi'],
    [`(10)${'A'.repeat(21)}`, 'tooLong'],
  ])('%s is %s', (input, kind) => {
    expect(fault(input)).toBe(kind);
  });
});

describe('GS1 Digital Link', () => {
  it.each([
    ['https://id.gs1.org/01/09506000134352', { '01': '09506000134352' }],
    ['http://example.org/a/b/01/9506000134352/10/L%2F1?17=280331&linkType=x', { '01': '09506000134352', '10': 'L/1', '17': '280331' }],
    ['https://example.org/gtin/09506000134352/lot/A/ser/7', { '01': '09506000134352', '10': 'A', '21': '7' }],
    ['https://example.org/00/106141411234567897', { '00': '106141411234567897' }],
    ['HTTPS://EXAMPLE.ORG/414/9506000134352', { '414': '9506000134352' }],
    ['https://example.org/01/09506000134352/?3103=000125#top', { '01': '09506000134352', '3103': '000125' }],
  ])('%s', (address, wanted) => {
    expect(fields(address)).toEqual(wanted);
  });

  it('is read from a QR code too', () => {
    expect(fields(']Q1https://id.gs1.org/01/09506000134352')).toEqual({ '01': '09506000134352' });
  });

  it.each([
    ['https://example.org/', 'notGs1'],
    ['https://example.org/about/us', 'notGs1'],
    ['https://example.org/01/09506000134353', 'checkDigit'],
    ['https://example.org/01/09506000134352?17=281340', 'date'],
    ['https://example.org/01/09506000134352?9998=1', 'unknownAi'],
    ['https://example.org/01/09506000134352/10/%E0%A4%A', 'charset'],
    ['https://example.org/01/09506000134352?01=09506000134352', 'duplicateAi'],
  ])('%s is %s', (address, kind) => {
    expect(fault(address)).toBe(kind);
  });
});

describe('plain numbers', () => {
  it.each(['9506000134352', ']E09506000134352', '09506000134352'])('%s is the same GTIN', (input) => {
    const result = read(input);
    expect(result.ok && result.gtin14).toBe('09506000134352');
  });
  it.each([
    ['96385074', '00000096385074'],
    [']E496385074', '00000096385074'],
    ['036000291452', '00036000291452'],
  ])('%s is padded to %s', (input, gtin) => {
    const result = read(input);
    expect(result.ok && result.gtin14).toBe(gtin);
  });
  it.each([
    ['01234565', '00012345000065'],
    ['04252614', '00042100005264'],
    ['425261', '00042100005264'],
  ])('UPC-E %s is %s', (input, gtin) => {
    const result = read(input, 'upc-e');
    expect(result.ok && result.gtin14).toBe(gtin);
  });
  it.each([
    ['9506000134353', 'checkDigit'],
    [']E0950600013435', 'checkDigit'],
    [']E0123', 'length'],
    [']E41234567', 'length'],
    [']E095060001343X2', 'charset'],
    [']C0ABC', 'symbology'],
    [']A0ABC', 'symbology'],
    [']', 'symbology'],
    ['', 'empty'],
    ['  ', 'empty'],
    ['T-31', 'notGs1'],
    ['12345', 'notGs1'],
  ])('%s is %s', (input, kind) => {
    expect(fault(input)).toBe(kind);
  });
  it('UPC-E of a foreign number system is refused', () => {
    expect(fault('21234565', 'upc-e')).toBe('notGs1');
  });
});

describe('check digits', () => {
  it('follow the standard’s examples', () => {
    expect(checkDigit('950600013435')).toBe(2);
    expect(checkDigit('10614141123456789')).toBe(7);
    expect(checkPair('1987654Ad4X4bL5ttr2310c')).toBe('2K');
  });
  it('find every single wrong digit', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^\d{13}$/), fc.nat(13), fc.integer({ min: 1, max: 9 }), (body, at, by) => {
        const good = body + String(checkDigit(body));
        const wrong = good.slice(0, at) + String((Number(good[at]) + by) % 10) + good.slice(at + 1);
        return hasCheckDigit(good) && !hasCheckDigit(wrong);
      }),
    );
  });
  it('expand every UPC-E to twelve digits', () => {
    fc.assert(fc.property(fc.stringMatching(/^[01]\d{7}$/), (e) => /^\d{12}$/.test(expandUpcE(e) ?? '')));
  });
});

describe('whatever comes', () => {
  it('is answered without a throw', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => typeof read(text).ok === 'boolean'),
      { numRuns: 500 },
    );
    const prefixes = [']C1', ']d2', ']Q3', '(01)', '(10)', 'https://x.y/01/', '01', ''];
    fc.assert(
      fc.property(fc.constantFrom(...prefixes), fc.string({ maxLength: 40 }), (p, text) => typeof read(p + text).ok === 'boolean'),
      { numRuns: 1000 },
    );
  });

  it('means the same in each of its spellings', () => {
    const lot = fc.stringMatching(/^[A-Z0-9]{1,20}$/);
    fc.assert(
      fc.property(fc.stringMatching(/^\d{13}$/), lot, lot, (body, lotCode, serial) => {
        const gtin = body + String(checkDigit(body));
        const wanted = { '01': gtin, '10': lotCode, '21': serial };
        expect(fields(`]C101${gtin}10${lotCode}${GS}21${serial}`)).toEqual(wanted);
        expect(fields(`(01)${gtin}(10)${lotCode}(21)${serial}`)).toEqual(wanted);
        expect(fields(`https://id.example.org/01/${gtin}/10/${lotCode}/21/${serial}`)).toEqual(wanted);
      }),
    );
  });
});
