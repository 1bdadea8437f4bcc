import { rankRates } from './index.js';

const slow = { name: 'slow', price: '3.60', days: 2 };
const fast = { name: 'fast', price: '5.30', days: 1 };
const today = { name: 'today', price: '9.00', days: 0 };
const names = (speed: string, rates = [today, fast, slow]) => rankRates(rates, speed).map((r) => `${r.name}${r.keeps ? '' : ' late'}`);

describe('services', () => {
  it('are proposed by what keeps the promise, then by price, then by speed', () => {
    expect(names('standard')).toEqual(['slow', 'fast', 'today']);
    expect(names('express')).toEqual(['fast', 'today', 'slow late']);
    expect(names('same-day')).toEqual(['today', 'slow late', 'fast late']);
    expect(names('whatever')[0]).toBe('slow');
    expect(names('standard', [slow, { ...fast, price: '3.6' }])).toEqual(['fast', 'slow']);
    expect(names('express', [])).toEqual([]);
  });
});
