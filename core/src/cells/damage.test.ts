import { codeMadeDay, dayMadeNumber, lostNoughts, postcodeCut, roundedNumber } from './index.js';

const none = (damage: (text: string) => string | null, ...texts: string[]) => expect(texts.map(damage)).toEqual(texts.map(() => null));
const some = (damage: (text: string) => string | null, ...texts: string[]) => expect(texts.filter((t) => damage(t) === null)).toEqual([]);

describe('what spreadsheets do to a file', () => {
  it('numbers that were rounded', () => {
    some(roundedNumber, '9,52108E+12', '9.52108E+12', '1E+15', '9.5e12', ' 1.06141E+17 ');
    none(roundedNumber, '9521080000012', 'E+12', '2E', 'SIZE-1E+5', 'JAR-9E12', '12E+5');
  });
  it('codes that became days', () => {
    some(codeMadeDay, '12-Mar', '3. Mär', '2026-12-03', '03/12/2026', '3.12.26', 'Mar-12', '12-Mar-26');
    none(codeMadeDay, 'MAR-12', '12-MAR', 'DEC-10', '3-12', 'A-01-1', '2026', '2026-123');
  });
  it('days that became numbers, with the day that they may be', () => {
    expect(dayMadeNumber('46143')).toContain('2026-05-01');
    expect(dayMadeNumber('46143.5')).toContain('2026-05-01');
    none(dayMadeNumber, '2026-05-01', '461430', '1234', '99999');
  });
  it('numbers without the noughts in front', () => {
    expect(lostNoughts('36000291452')).toContain('036000291452');
    none(lostNoughts, '036000291452', '36000291453', '1234567', 'A0000291452');
  });
  it('postcodes without theirs', () => {
    expect(postcodeCut('1067', 'DE')).toContain('5 digits');
    expect(postcodeCut('2134', 'us')).toContain('5 digits');
    expect([postcodeCut('01067', 'DE'), postcodeCut('1067', 'DK'), postcodeCut('SW1A', 'GB')]).toEqual([null, null, null]);
  });
});
