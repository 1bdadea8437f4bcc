import { holdsWords } from './index.js';

describe('what a document holds, in a few words', () => {
  it.each([
    [[], ''],
    [['Jar 454 g, round'], 'Jar 454 g, round'],
    [['Jar 454 g, round', 'Lid 63 mm'], 'Jar 454 g, round, and 1 more'],
    [['Jar', 'Lid', 'Veil', 'Glove'], 'Jar, and 3 more'],
  ])('of %j is "%s"', (names, says) => expect(holdsWords(names)).toBe(says));
});
