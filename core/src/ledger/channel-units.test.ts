import fc from 'fast-check';
import { channelUnits } from './channel-units.js';

const rule = (more: object = {}) => ({ factor: 1, keepBack: 0, share: 100, scarceUnder: 0, ...more });

describe('what a channel may be told', () => {
  it('is whole ones of what it sells, less what is kept back', () => {
    expect(channelUnits(100, rule())).toBe(100);
    expect(channelUnits(100, rule({ factor: 12, keepBack: 5 }))).toBe(7);
    expect(channelUnits(4, rule({ keepBack: 5 }))).toBe(0);
    expect(channelUnits(-3, rule())).toBe(0);
  });

  it('is its share of what is scarce, and all of what is not', () => {
    expect(channelUnits(9, rule({ share: 40, scarceUnder: 10 }))).toBe(3);
    expect(channelUnits(10, rule({ share: 40, scarceUnder: 10 }))).toBe(10);
  });

  it('is together never more than there is, where shares make up the whole', () => {
    fc.assert(
      fc.property(fc.nat(50), fc.nat(100), (free, first) => {
        const told = [first, 100 - first].map((share) => channelUnits(free, rule({ share, scarceUnder: 51 })));
        expect(told[0]! + told[1]!).toBeLessThanOrEqual(free);
      }),
    );
  });
});
