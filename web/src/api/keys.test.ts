import { key, shows } from './keys';

describe('what is read again', () => {
  it('is what shows something that has changed', () => {
    expect(shows('order', ['parcels'])).toBe(true);
    expect(shows('order', ['suppliers'])).toBe(false);
    expect(shows('suppliers', ['suppliers', 'purchasing'])).toBe(true);
  });

  it('is always what shows something of everything, and never what is a person’s own', () => {
    expect(shows('tape', [])).toBe(true);
    expect(shows('preference', ['people', 'setup'])).toBe(false);
    expect(shows('me', ['people'])).toBe(true);
    expect(shows('book', null)).toBe(false);
  });

  it('is everything but one’s own where nobody says what has changed', () => {
    expect(shows('supplier', null)).toBe(true);
    expect(shows('preference', null)).toBe(false);
  });

  it('is kept under its name and what makes it this one', () => {
    expect(key('supplier', 'ALDER')).toEqual(['supplier', 'ALDER']);
    expect(key('line')).toEqual(['line']);
  });
});
