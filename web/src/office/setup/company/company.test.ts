import { choicesOf } from './choices';
import { daysWords, vanName } from './working-days';

describe('what is typed about the company', () => {
  it('has choices with commas between, each once', () => {
    expect(choicesOf(' red, blue ,,red, ')).toEqual(['red', 'blue']);
    expect(choicesOf('')).toEqual([]);
  });

  it('says a week in words', () => {
    expect(daysWords('YYNNYNN')).toBe('Mon, Tue, Fri');
    expect(daysWords('NNNNNNN')).toBe('');
  });

  it('calls a van as it was called, otherwise as its carrier', () => {
    const carriers = [{ code: 'HARRIER', name: 'Harrier Post' }];
    expect(vanName({ name: ' Early ', carrier: 'HARRIER' }, carriers)).toBe('Early');
    expect(vanName({ name: '', carrier: 'HARRIER' }, carriers)).toBe('Harrier Post');
    expect(vanName({ name: '', carrier: '' }, carriers)).toBe('Van');
    expect(vanName({ name: '', carrier: 'LONG' }, [{ code: 'LONG', name: 'x'.repeat(60) }])).toHaveLength(40);
  });
});
