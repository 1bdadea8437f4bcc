import { metresBetween, metresOf } from './index.js';

describe('walks', () => {
  const cross = [0, 12, 24];
  it('go straight along an aisle', () => {
    expect(metresBetween({ x: 4, y: 3 }, { x: 4, y: 9 }, cross)).toBe(6);
  });
  it('change aisles by the nearer cross aisle', () => {
    expect(metresBetween({ x: 4, y: 11 }, { x: 8, y: 13 }, cross)).toBe(6);
    expect(metresBetween({ x: 4, y: 2 }, { x: 8, y: 3 }, cross)).toBe(9);
  });
  it('are straight where a site has no cross aisles', () => {
    expect(metresBetween({ x: 0, y: 0 }, { x: 3, y: 4 }, [])).toBe(7);
  });
  it('add up, and are nothing with one stop or none', () => {
    expect(
      metresOf(
        [
          { x: 4, y: 0 },
          { x: 4, y: 5 },
          { x: 4, y: 2 },
        ],
        cross,
      ),
    ).toBe(8);
    expect(metresOf([{ x: 4, y: 0 }], cross)).toBe(0);
    expect(metresOf([], cross)).toBe(0);
  });
});
