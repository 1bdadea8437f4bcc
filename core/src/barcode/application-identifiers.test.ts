import fc from 'fast-check';
import { formOf, leadingForm } from './application-identifiers.js';
import { faultIn } from './value.js';

const YEAR = 2027;
const numbers = Array.from({ length: 10_000 }, (_, n) => [2, 3, 4].map((width) => String(n).padStart(width, '0'))).flat();
const all = [...new Set(numbers)].filter((ai) => ai.length <= 4 && formOf(ai) !== undefined);

describe('the table of application identifiers', () => {
  it('is prefix-free, so that the first that fits is the one', () => {
    const begun = all.filter((ai) => [2, 3].some((n) => n < ai.length && formOf(ai.slice(0, n)) !== undefined));
    expect(begun).toEqual([]);
    expect(all.length).toBeGreaterThan(300);
  });

  it('finds each identifier at the beginning of a text', () => {
    for (const ai of all) expect(leadingForm(`${ai}123`)?.ai).toBe(ai);
    expect(leadingForm('9')).toBeUndefined();
    expect(leadingForm('05')).toBeUndefined();
  });

  it.each([
    ['00', 18, 18, true],
    ['01', 14, 14, true],
    ['10', 1, 20, false],
    ['17', 6, 6, true],
    ['20', 2, 2, true],
    ['37', 1, 8, false],
    ['253', 13, 30, false],
    ['3103', 6, 6, true],
    ['3929', 1, 15, false],
    ['3932', 4, 18, false],
    ['402', 17, 17, false],
    ['410', 13, 13, true],
    ['421', 4, 12, false],
    ['7003', 10, 10, false],
    ['7007', 6, 12, false],
    ['8003', 14, 30, false],
    ['8008', 8, 12, false],
    ['8200', 1, 70, false],
    ['99', 1, 90, false],
  ])('%s holds %i to %i characters', (ai, min, max, predefined) => {
    expect(formOf(ai)).toMatchObject({ min, max, predefined });
  });

  it.each(['04', '05', '14', '18', '19', '23', '3106', '3180', '3946', '4100', '8888'])('%s is none', (ai) => {
    expect(formOf(ai)).toBeUndefined();
  });

  it.each([
    ['8006', '095060001343520102', undefined],
    ['8006', '095060001343530102', 'checkDigit'],
    ['8017', '106141411234567897', undefined],
    ['8013', '1987654Ad4X4bL5ttr2310c2K', undefined],
    ['8013', '1987654Ad4X4bL5ttr2310c2L', 'checkDigit'],
    ['8013', '2K', 'length'],
    ['253', '9506000134352ABC', undefined],
    ['253', '9506000134353ABC', 'checkDigit'],
    ['255', '9506000134352X', 'charset'],
    ['7007', '270301270331', undefined],
    ['7007', '270301270231', 'date'],
    ['7007', '2703012', 'length'],
    ['8008', '27030112', undefined],
    ['8008', '2703012460', 'date'],
    ['8008', '27030124', 'date'],
    ['4324', '2703019999', undefined],
    ['4324', '2703012460', 'date'],
    ['7250', '19990230', 'date'],
    ['7250', '19990228', undefined],
    ['8010', 'AB#12/3', undefined],
    ['8010', 'ab', 'charset'],
    ['8030', 'AZaz09-_', undefined],
    ['8030', 'A+B', 'charset'],
    ['10', 'A B', 'charset'],
    ['10', 'AB"/1', undefined],
    ['421', '276ABC', undefined],
    ['421', '27', 'length'],
  ])('a value of %s, %s, has the fault %s', (ai, value, fault) => {
    expect(faultIn(formOf(ai)!, value, YEAR)).toBe(fault);
  });

  it('judges any value without a throw, and length before all else', () => {
    fc.assert(
      fc.property(fc.constantFrom(...all), fc.string({ maxLength: 100 }), (ai, value) => {
        const form = formOf(ai)!;
        const fault = faultIn(form, value, YEAR);
        if (value.length > form.max || value.length < form.min) expect(['length', 'tooLong']).toContain(fault);
      }),
      { numRuns: 1_000 },
    );
  });
});
