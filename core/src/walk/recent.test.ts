import { Recent } from './recent.js';

describe('answers that were asked for last', () => {
  it('are worked out once while they are kept, nought too', () => {
    const recent = new Recent<number>(2);
    let worked = 0;
    const ask = (question: string) => recent.get(question, () => worked++);
    expect(['a', 'a', 'b', 'a'].map(ask)).toEqual([0, 0, 1, 0]);
    // The third lets go of the one that was not asked for longest.
    expect(['c', 'a', 'b', 'a'].map(ask)).toEqual([2, 0, 3, 0]);
    expect(recent.known('c')).toBeUndefined();
  });
});
