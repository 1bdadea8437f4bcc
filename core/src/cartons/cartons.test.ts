import { rankCartons, weightSlackG, type Carton } from './index.js';

const box = (code: string, side: number, more: Partial<Carton> = {}): Carton => ({
  code,
  lengthMm: side,
  widthMm: side,
  heightMm: side,
  tareG: 100,
  mostG: 10_000,
  ...more,
});
const boxes = [box('L', 400), box('S', 100), box('M', 200)];
const jar = { units: 1, unitG: 300, unitMl: 700, longestMm: 110 };
const proposed = (goods: Parameters<typeof rankCartons>[1], from = boxes) => rankCartons(from, goods).find((r) => r.proposed)?.carton.code;

describe('boxes', () => {
  it('are ranked by room, the smallest that holds the goods proposed', () => {
    expect(rankCartons(boxes, [jar]).map((r) => [r.carton.code, r.fill])).toEqual([
      ['S', 70],
      ['M', 9],
      ['L', 2],
    ]);
    expect(proposed([{ ...jar, longestMm: 90 }])).toBe('S');
  });

  it('are large enough for the longest side, the weight, and some air', () => {
    expect(proposed([jar])).toBe('M');
    expect(proposed([{ ...jar, longestMm: 90, unitMl: 860 }])).toBe('M');
    expect(proposed([{ ...jar, longestMm: 90, unitG: 9_950 }], [...boxes, box('XL', 500, { mostG: 20_000 })])).toBe('XL');
  });

  it('are the largest where none is large enough, and any where nothing is known', () => {
    expect(proposed([{ ...jar, units: 999 }])).toBe('L');
    expect(proposed([{ units: 4, unitG: null, unitMl: null, longestMm: null }])).toBe('S');
    expect(rankCartons([], [jar])).toEqual([]);
  });
});

describe('weights', () => {
  it('may be off by a share, but at least by so much', () => {
    expect(weightSlackG(10_000, 4, 40)).toBe(400);
    expect(weightSlackG(100, 4, 40)).toBe(40);
  });
});
