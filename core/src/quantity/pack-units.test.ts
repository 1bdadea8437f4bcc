import fc from 'fast-check';
import { countOf, goodsWords, inPacks, packName, spell, toBase, type PackUnit } from './index.js';

const jar: PackUnit = { id: 1, name: 'jar', plural: 'jars', factor: 1 };
const tray: PackUnit = { id: 2, name: 'tray', plural: 'trays', factor: 48 };
const pallet: PackUnit = { id: 3, name: 'pallet', plural: 'pallets', factor: 1536 };
const ladder = [jar, tray, pallet];

describe('pack units', () => {
  it('count in base units: 4 trays of 48 are 192', () => {
    expect(toBase(4, 48)).toBe(192);
    expect(toBase(0, 48)).toBe(0);
  });

  it.each([
    [1.5, 48],
    [-1, 48],
    [4, 0],
    [4, 1.5],
    [Number.NaN, 1],
    [Number.MAX_SAFE_INTEGER, 2],
  ])('refuse %p packs of %p', (packs, factor) => {
    expect(() => toBase(packs, factor)).toThrow(RangeError);
  });

  it.each([
    [108, '2 trays and 12 jars'],
    [1536, '1 pallet'],
    [1, '1 jar'],
    [0, 'no jars'],
    [3121, '2 pallets, 1 tray and 1 jar'],
  ])('spell %i as "%s"', (units, words) => {
    expect(spell(units, ladder)).toBe(words);
  });

  it('says how many there are also before their packs are known', () => {
    expect(spell(20, [])).toBe('20 units');
    expect(spell(1, [])).toBe('1 unit');
    expect(spell(0, [])).toBe('no units');
  });

  it('name themselves with what they hold', () => {
    expect(packName(tray)).toBe('trays of 48');
    expect(packName(pallet, 1)).toBe('pallet of 1,536');
    expect(packName(jar, 1)).toBe('jar');
    expect(countOf(1536, jar)).toBe('1,536 jars');
    expect(goodsWords(96, { name: 'Jar 454 g', packs: ladder })).toBe('2 trays: Jar 454 g');
  });

  it('lose nothing when a quantity is put into packs', () => {
    fc.assert(
      fc.property(fc.nat(1_000_000), fc.uniqueArray(fc.integer({ min: 2, max: 5000 }), { maxLength: 4 }), (units, factors) => {
        const packs = [1, ...factors].map((factor, id) => ({ id, name: 'p', plural: 'ps', factor }));
        const counts = inPacks(units, packs);
        expect(counts.reduce((sum, c) => sum + c.count * c.pack.factor, 0)).toBe(units);
        expect(counts.every((c) => c.count > 0)).toBe(true);
      }),
    );
  });
});
