import { matchLine, within } from './index.js';

const line = { units: 192, amount: '80.64', open: 192, price: '20.16', factor: 48 };
const tolerance = { percent: 2, amount: 1 };

describe('a line of a bill', () => {
  it('fits its order and what came', () => {
    expect(matchLine(line, tolerance)).toEqual({ says: 'fits', expected: '80.640000', difference: '0.000000', over: 0 });
    expect(matchLine({ ...line, units: 96, amount: '40.32' }, tolerance).says).toBe('fits');
  });

  it('may be off by the per cent or by the amount, whichever is more', () => {
    expect(matchLine({ ...line, amount: '82.25' }, tolerance).says).toBe('fits');
    expect(matchLine({ ...line, amount: '82.26' }, tolerance)).toMatchObject({ says: 'dearer', difference: '1.620000' });
    expect(matchLine({ ...line, units: 48, amount: '21.16' }, tolerance).says).toBe('fits');
    expect(matchLine({ ...line, units: 48, amount: '21.17' }, tolerance).says).toBe('dearer');
    expect(matchLine({ ...line, amount: '70' }, tolerance)).toMatchObject({ says: 'cheaper', difference: '-10.640000' });
  });

  it('is too many where more is billed than came', () => {
    expect(matchLine({ ...line, open: 144 }, tolerance)).toMatchObject({ says: 'too many', over: 48 });
  });

  it('lets nothing pass where nothing may be off', () => {
    expect(within(0n, 100n, { percent: 0, amount: 0 })).toBe(true);
    expect(within(1n, 100n, { percent: 0, amount: 0 })).toBe(false);
  });
});
