import { bodyOf, emptyKeyed, freshOrder, lineSum, localTime, priceFor } from './keyed-values';

describe('what is keyed', () => {
  it('comes to whole pieces and their price, also in parts of a pack', () => {
    expect(lineSum({ ...emptyKeyed, factor: 48, quantity: '1,5', price: '40.80' })).toEqual({ units: 72, goods: 61_200_000n });
    expect(lineSum({ ...emptyKeyed, quantity: '0.5', price: '1' })).toBeNull();
    expect(lineSum({ ...emptyKeyed, quantity: '2', price: 'cheap' })).toBeNull();
  });

  it('is priced as the customer pays, and reckoned from another pack where none is known for this one', () => {
    const prices = [
      { factor: 48, price: '39.360000', from: 'own' as const },
      { factor: 1, price: '0.950000', from: 'channel' as const },
    ];
    expect(priceFor({ prices }, 48)).toBe('39.36');
    expect(priceFor({ prices }, 1)).toBe('0.95');
    expect(priceFor({ prices }, 24)).toBe('19.68');
    expect(priceFor({ prices: [] }, 1)).toBe('');
  });

  it('is sent without lines that hold nothing, and leaves a time that nobody touched to the second', () => {
    const promisedAt = '2027-03-01T15:30:42.000Z';
    const values = {
      ...freshOrder(1, false),
      promisedAt: localTime(promisedAt),
      lines: [{ ...emptyKeyed }, { ...emptyKeyed, sku: 'JAR', quantity: '2,5', price: '' }],
    };
    const body = bodyOf(values, { promisedAt } as never);
    expect(body.promisedAt).toBe(promisedAt);
    expect(body.lines).toEqual([{ ...emptyKeyed, sku: 'JAR', quantity: '2.5', price: '0' }]);
    expect(bodyOf({ ...values, promisedAt: '' }, undefined).promisedAt).toBeNull();
  });
});
