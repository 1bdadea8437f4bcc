import { LatestOnly } from './latest-only';

const settled = () => new Promise((done) => setTimeout(done, 0));

function kept() {
  const sent: number[] = [];
  const answers: { done: () => void; fail: () => void }[] = [];
  const latest = new LatestOnly<number>(
    (value) => new Promise<void>((done, fail) => (sent.push(value), answers.push({ done, fail: () => fail(new Error('no network')) }))),
  );
  return { latest, sent, answers };
}

describe('choices one after another', () => {
  it('are sent in their order, and of those that wait only the last', async () => {
    const { latest, sent, answers } = kept();
    for (const n of [1, 2, 3]) latest.choose(n);
    expect(sent).toEqual([1]);
    answers[0]?.done();
    await settled();
    expect(sent).toEqual([1, 3]);
    answers[1]?.done();
    await settled();
    latest.choose(4);
    expect(sent).toEqual([1, 3, 4]);
  });

  it('go on after one that failed', async () => {
    const { latest, sent, answers } = kept();
    latest.choose(1);
    latest.choose(2);
    answers[0]?.fail();
    await settled();
    expect(sent).toEqual([1, 2]);
  });

  it('do not wait when the page is left', () => {
    const { latest, sent } = kept();
    latest.choose(1);
    latest.leave();
    latest.choose(2);
    latest.leave();
    latest.leave();
    expect(sent).toEqual([1, 2]);
  });
});
