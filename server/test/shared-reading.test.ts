import { SharedReading } from '../src/desk/shared-reading.js';

describe('a reading that many make at once', () => {
  let shared: SharedReading;
  let [loads, atOnce, most, acts] = [0, 0, 0, 0];
  /** Takes a moment, and tells of what was done when it began. */
  const load = async () => {
    loads++;
    most = Math.max(most, ++atOnce);
    const seen = acts;
    await new Promise((done) => setTimeout(done, 5));
    atOnce--;
    return seen;
  };
  beforeEach(() => {
    shared = new SharedReading();
    [loads, atOnce, most, acts] = [0, 0, 0, 0];
  });

  it('is made twice for fifty who ask together, and one at a time however many go on asking', async () => {
    await Promise.all(Array.from({ length: 50 }, () => shared.read('now', load)));
    expect(loads).toBe(2);
    await Promise.all(
      Array.from({ length: 50 }, async (_, i) => {
        await new Promise((done) => setTimeout(done, i));
        await shared.read('now', load);
      }),
    );
    expect(most).toBe(1);
  });

  it('is never older than the question', async () => {
    const asked: Promise<void>[] = [];
    for (let n = 0; n < 60; n++) {
      acts++;
      const least = acts;
      asked.push(shared.read('now', load).then((seen) => expect(seen).toBeGreaterThanOrEqual(least)));
      await new Promise((done) => setTimeout(done, 1));
    }
    await Promise.all(asked);
  });

  it('is each site’s own', async () => {
    await Promise.all([shared.read('now 1', load), shared.read('now 2', load)]);
    expect(loads).toBe(2);
    expect(most).toBe(2);
  });

  it('that failed is made again, for those who waited too', async () => {
    const failing = shared.read('now', () => Promise.reject(new Error('away')));
    const waiting = shared.read('now', load);
    await expect(failing).rejects.toThrow('away');
    expect(await waiting).toBe(0);
    expect(await shared.read('now', load)).toBe(0);
  });
});
