import { ProblemError } from '../api/client';
import { CommandQueue } from './command-queue';

describe('the command queue', () => {
  const setUp = () => {
    const changes: [number, boolean][] = [];
    const slept: number[] = [];
    const queue = new CommandQueue(
      (waiting, offline) => changes.push([waiting, offline]),
      (ms) => {
        slept.push(ms);
        return Promise.resolve();
      },
    );
    return { queue, changes, slept };
  };
  const settled = () => new Promise((done) => setTimeout(done, 5));

  it('posts in the order in which commands were made, one at a time', async () => {
    const { queue } = setUp();
    const log: string[] = [];
    for (const id of ['a', 'b', 'c']) {
      queue.add({
        id,
        send: async () => {
          log.push(`send ${id}`);
          await Promise.resolve();
        },
        onDone: (_, left) => void log.push(`done ${id}, ${left} left`),
      });
    }
    await settled();
    expect(log).toEqual(['send a', 'done a, 2 left', 'send b', 'done b, 1 left', 'send c', 'done c, 0 left']);
  });

  it('sends again until the network is back, waiting longer each time', async () => {
    const { queue, changes, slept } = setUp();
    let tries = 0;
    const done: unknown[] = [];
    queue.add({
      id: 'a',
      send: () => (++tries < 5 ? Promise.reject(new TypeError('no network')) : Promise.resolve()),
      onDone: (problem) => void done.push(problem),
    });
    await settled();
    expect(tries).toBe(5);
    expect(done).toEqual([null]);
    expect(slept).toEqual([400, 800, 1600, 3200]);
    expect(changes).toContainEqual([1, true]);
    expect(changes.at(-1)).toEqual([0, false]);
  });

  it('tries again when the server is busy, and not when it refuses', async () => {
    const { queue } = setUp();
    const answers = [new ProblemError(503, 'busy', 'busy'), new ProblemError(409, 'refused', 'one over')];
    const done: unknown[] = [];
    queue.add({ id: 'a', send: () => Promise.reject(answers.shift()!), onDone: (problem) => void done.push(problem) });
    queue.add({ id: 'b', send: () => Promise.resolve(), onDone: (problem) => void done.push(problem) });
    await settled();
    expect(done).toEqual([expect.objectContaining({ code: 'refused' }), null]);
  });

  it('goes on waiting no longer than eight seconds between tries', async () => {
    const { queue, slept } = setUp();
    let tries = 0;
    queue.add({ id: 'a', send: () => (++tries < 9 ? Promise.reject(new Error('x')) : Promise.resolve()), onDone: () => undefined });
    await settled();
    expect(Math.max(...slept)).toBe(8_000);
  });
});
