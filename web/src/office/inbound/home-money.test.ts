import { inHomeMoney } from './home-money';

const money = { currencies: [{ code: 'CZK', rate: '0.0345', asOf: '2026-05-01' }], taxRates: [] };

describe('an order in another currency', () => {
  it('also shows what it comes to at home', () => {
    expect(inHomeMoney({ currency: 'CZK', goods: '10000.00' }, money, 'GBP')).toBe(', about £345.00');
  });
  it('shows nothing where there is nothing to turn, no rate, or no cost to see', () => {
    expect(inHomeMoney({ currency: 'GBP', goods: '10' }, money, 'GBP')).toBe('');
    expect(inHomeMoney({ currency: 'EUR', goods: '10' }, money, 'GBP')).toBe('');
    expect(inHomeMoney({ currency: 'CZK' }, money, 'GBP')).toBe('');
  });
});
