import { age, dayWord, olderThan, plural, untilWords, when, whole } from './format';

const now = Date.parse('2026-05-14T11:42:00');

describe('how ages and days are written', () => {
  it.each([
    [0, '0 min'],
    [52, '52 min'],
    [80, '1 h 20'],
    [65, '1 h 05'],
    [26 * 60, '1 d 2 h'],
    [48 * 60, '2 d'],
    [11 * 1440 + 300, '11 d'],
  ])('%i minutes are %s', (minutes, words) => {
    expect(age(new Date(now - minutes * 60_000), now)).toBe(words);
  });

  it('never counts below nought', () => {
    expect(age(new Date(now + 60_000), now)).toBe('0 min');
  });

  it('names today and other days', () => {
    const today = new Date(now);
    expect(when('2026-05-14T15:30:00', today)).toBe('15:30');
    expect(when('2026-05-13T15:30:00', today)).toBe('Wed 13 May 15:30');
    expect(dayWord('2026-05-14', today)).toBe('today');
    expect(dayWord('2026-05-15', today)).toBe('Fri 15 May');
    expect(dayWord(null)).toBe('no date');
  });

  it('says how long is left, or that it is late', () => {
    expect(untilWords(new Date(now + 80 * 60_000), now)).toBe(', in 1 h 20');
    expect(untilWords(new Date(now - 1), now)).toBe(', late');
    expect(olderThan(new Date(now - 10), 5, now)).toBe(true);
    expect(olderThan(new Date(now - 10), 50, now)).toBe(false);
  });
});

describe('how numbers are written', () => {
  it('groups thousands and uses a true minus', () => {
    expect(whole(1536)).toBe('1,536');
    expect(whole(-14)).toBe('−14');
    expect(plural(1, 'line', 'lines')).toBe('1 line');
    expect(plural(4000, 'lid', 'lids')).toBe('4,000 lids');
  });
});
