import { fieldsOf } from './fields-of';

const items = [
  { key: 'sku', label: 'SKU', also: ['item code'] },
  { key: 'name', label: 'Name', also: [] },
  { key: 'weightG', label: 'Weight, g', also: [] },
];

describe('a file that is said to be of another kind', () => {
  it('keeps what fits, and guesses the rest by the heads', () => {
    expect(fieldsOf(['Item code', 'What it is', 'Weight g', 'Colour'], items, ['', 'name', 'price', 'colour'])).toEqual([
      'sku',
      'name',
      'weightG',
      '',
    ]);
  });
  it('gives no field twice, also where a person had said otherwise', () => {
    expect(fieldsOf(['SKU', 'Name'], items, ['name', 'sku'])).toEqual(['name', 'sku']);
  });
});
