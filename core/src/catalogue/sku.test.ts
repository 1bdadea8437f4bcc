import fc from 'fast-check';
import { foldedSku, keptSku, SKU } from './index.js';

describe('stock codes', () => {
  it('are taken as real firms write them', () => {
    for (const good of ['JAR-454-RD', 'A 1/2"'.replace('"', ''), '3/4 NPT #10', 'TÜR 40×60'.replace('×', 'x'), 'R&D (NEW)', '007', 'ŁÓDŹ.1', 'a_b+c']) expect([good, SKU.test(good)]).toEqual([good, true]); // prettier-ignore
    for (const bad of ['', ' A', 'A ', 'A  B', '-A', '/A', 'A\tB', 'A;B', 'A"B', 'A?B', 'A%B', 'A\\B', '<b>', 'X'.repeat(40)]) expect([bad, SKU.test(bad)]).toEqual([bad, false]); // prettier-ignore
  });

  it('are kept in one form, whoever writes them', () => {
    expect(keptSku('  tür   40 ')).toBe('TÜR 40');
    expect(keptSku('tu\u0308r 40')).toBe('TÜR 40');
    // The capital of this letter is three characters, two of which compose.
    expect(keptSku(keptSku('\u1fe2'))).toBe(keptSku('\u1fe2'));
    fc.assert(fc.property(fc.string({ unit: 'grapheme' }), (s) => keptSku(keptSku(s)) === keptSku(s)));
  });

  it('that differ in marks alone fold into one', () => {
    expect([foldedSku('TÜR'), foldedSku('tur'), foldedSku('GROß'), foldedSku('Gross')]).toEqual(['TUR', 'TUR', 'GROSS', 'GROSS']);
  });
});
