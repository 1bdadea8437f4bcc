import { oneAtATime } from './one-at-a-time';

describe('work that is called for often', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  /** Work that ends when it is told to. */
  function slow() {
    const ends: (() => void)[] = [];
    const work = jest.fn(() => new Promise<void>((done) => ends.push(done)));
    return { work, end: () => ends.shift()?.() };
  }

  it('is done once for calls that come together', async () => {
    const { work } = slow();
    const one = oneAtATime(work, 80, 1_000);
    for (let i = 0; i < 5; i++) one.call();
    expect(work).not.toHaveBeenCalled();
    await jest.advanceTimersByTimeAsync(80);
    expect(work).toHaveBeenCalledTimes(1);
  });

  it('is done once more after itself, however many called meanwhile', async () => {
    const { work, end } = slow();
    const one = oneAtATime(work, 80, 1_000);
    one.call();
    await jest.advanceTimersByTimeAsync(80);
    for (let i = 0; i < 9; i++) one.call();
    await jest.advanceTimersByTimeAsync(5_000);
    expect(work).toHaveBeenCalledTimes(1);
    end();
    await jest.advanceTimersByTimeAsync(80);
    expect(work).toHaveBeenCalledTimes(2);
    end();
    await jest.advanceTimersByTimeAsync(5_000);
    expect(work).toHaveBeenCalledTimes(2);
  });

  it('begins once a second at most, and at once after a rest', async () => {
    const work = jest.fn(() => Promise.resolve());
    const one = oneAtATime(work, 80, 1_000);
    for (let tenth = 0; tenth < 50; tenth++) {
      one.call();
      await jest.advanceTimersByTimeAsync(100);
    }
    expect(work).toHaveBeenCalledTimes(5);
    await jest.advanceTimersByTimeAsync(3_000);
    work.mockClear();
    one.call();
    await jest.advanceTimersByTimeAsync(80);
    expect(work).toHaveBeenCalledTimes(1);
  });

  it('goes on after a failure, and ends when it is stopped', async () => {
    const work = jest.fn(() => Promise.reject(new Error('no network')));
    const one = oneAtATime(work, 80, 1_000);
    one.call();
    await jest.advanceTimersByTimeAsync(80);
    one.call();
    await jest.advanceTimersByTimeAsync(1_000);
    expect(work).toHaveBeenCalledTimes(2);
    one.call();
    one.stop();
    one.call();
    await jest.advanceTimersByTimeAsync(80);
    expect(work).toHaveBeenCalledTimes(2);
  });
});
