import { lacksSeparator, readGs1, scannedText, SEPARATOR } from './index.js';

const today = '2027-03-01';
const read = (raw: string) => readGs1(scannedText(raw, today), { today });
const LOT_THEN_DATE = { '01': '09506000134352', '10': 'ABC', '17': '280331' };

describe('what scanners make of a separator', () => {
  it.each([SEPARATOR, '{GS}', '<GS>', '[gs]', '(GS)', '{FNC1}', '␝', '^]', '\\x1D', '\\u001d', '\\035', '|', '~'])(
    'is understood as %j, with identifier and without',
    (sign) => {
      for (const before of [']C1', ']d2', ']Q3', ''])
        expect(read(`${before}010950600013435210ABC${sign}17280331`)).toMatchObject({ ok: true, fields: LOT_THEN_DATE });
    },
  );

  it('leaves alone what is no element string with it', () => {
    for (const code of ['A|B-1', '~T-01', 'KIT^]7', '(GS)']) expect(scannedText(code, today)).toBe(code);
  });

  it('reads an element string that came with neither identifier nor separator', () => {
    expect(read('01095060001343521728033110ABC')).toMatchObject({ ok: true, fields: LOT_THEN_DATE });
    expect(read('00106141411234567897')).toMatchObject({ ok: false });
  });

  it('is not led astray by numbers that only look alike', () => {
    for (const code of ['0112345678901234567', '01095060001343539', '00340123450000000001234']) expect(scannedText(code, today)).toBe(code);
  });
});

describe('symbology identifiers', () => {
  it.each([
    [']C0A-01-1', 'A-01-1'],
    [']A0T-7', 'T-7'],
    [']Q1VX-UNDO', ']Q1VX-UNDO'],
    [']I119506000134359', '19506000134359'],
    [']E09506000134352', '9506000134352'],
    [']E496385074', '96385074'],
    [']E00123456', ']E00123456'],
    [']C1010950600013435210A', ']C1010950600013435210A'],
  ])('%s', (sent, text) => expect(scannedText(sent, today)).toBe(text));
});

describe('a separator that is missing', () => {
  const lacks = (text: string) => {
    const data = readGs1(text, { today });
    return data.ok && lacksSeparator(text, data, today);
  };
  it.each([
    [']C1010950600013435210ABC17280331', true],
    [']d2010950600013435221X715280300', true],
    [']C110ABC0109506000134352', true],
    // No such day, no such number, a separator elsewhere, nothing that varies, and a lot of a date alone.
    [']C1010950600013435210ABC17281331', false],
    [']C110ABC0109506000134353', false],
    [`]C1010950600013435221X7${SEPARATOR}10ABC17280331`, false],
    [']C1010950600013435217280331', false],
    [']C101095060001343521017280331', false],
    ['(01)09506000134352(10)ABC17280331', false],
  ])('%s', (text, expected) => expect(lacks(text)).toBe(expected));
});
