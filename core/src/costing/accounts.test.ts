import { OUTSIDE_KINDS } from '../places/index.js';
import { ACCOUNTS, accountFor } from './accounts.js';

describe('accounts', () => {
  it('name one of the house for goods from or to anywhere, and none twice', () => {
    const named = ['nowhere' as const, ...OUTSIDE_KINDS].map(accountFor);
    for (const account of named) expect(ACCOUNTS).toContain(account);
    expect(new Set(named).size).toBe(named.length);
    expect(named).not.toContain('stock');
  });
});
