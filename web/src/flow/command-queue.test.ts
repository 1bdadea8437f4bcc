import { ProblemError } from '../api/client';
import { CommandQueue, type Outcome, type QueueOptions, type QueueStore } from './command-queue';
import type { KeptCommand } from './device-store';

/** A device's database in memory; it outlives the queues that are made over it, as pages come and go. */
class Disk implements QueueStore {
  readonly rows = new Map<number, KeptCommand>();
  private next = 1;

  prune() {
    return Promise.resolve();
  }
  load() {
    return Promise.resolve([...this.rows.values()].sort((a, b) => a.seq - b.seq).map((c) => ({ ...c })));
  }
  add(command: Omit<KeptCommand, 'seq'>) {
    const seq = this.next++;
    this.rows.set(seq, { ...command, seq });
    return Promise.resolve(seq);
  }
  put(command: KeptCommand) {
    if (this.rows.has(command.seq)) this.rows.set(command.seq, { ...command });
    return Promise.resolve();
  }
  remove(command: KeptCommand) {
    this.rows.delete(command.seq);
    return Promise.resolve();
  }
}

const settled = () => new Promise((done) => setTimeout(done, 5));
const ADDRESS = 'pick/R-1';
const command = (id: string, more: Partial<KeptCommand> = {}) => ({
  id,
  address: ADDRESS,
  command: { kind: 'take' as const, id, round: 'R-1' },
  title: '',
  detail: '',
  personId: 1,
  person: 'Ines',
  madeAt: new Date().toISOString(),
  ...more,
});

/** A page over a disk, with a server that answers from a list: a problem, or done. */
function page(disk: Disk, answers: (ProblemError | TypeError | 'done')[] = [], more: Partial<QueueOptions> = {}) {
  const sent: { id: string; late: boolean; by: number }[] = [];
  const slept: number[] = [];
  const queue = new CommandQueue({
    store: disk,
    page: 'page-1',
    post: (c, late) => {
      sent.push({ id: c.id, late, by: c.personId });
      const next = answers.shift() ?? 'done';
      return next === 'done' ? Promise.resolve({ activityId: sent.length }) : Promise.reject(next);
    },
    sleep: (ms) => {
      slept.push(ms);
      return Promise.resolve();
    },
    ...more,
  });
  const heard: [string, Outcome][] = [];
  queue.listen(ADDRESS, (c, outcome) => heard.push([c.id, outcome]));
  return { queue, sent, slept, heard };
}

const gone = new TypeError('no network');
const refused = new ProblemError(409, 'refused', 'one over');

describe('the command queue', () => {
  it('posts in the order in which commands were made, one at a time', async () => {
    const { queue, sent } = page(new Disk());
    for (const id of ['a', 'b', 'c']) void queue.add(command(id));
    await settled();
    expect(sent.map((s) => s.id)).toEqual(['a', 'b', 'c']);
    expect(queue.snapshot.unsent).toEqual([]);
  });

  it('sends again until the network is back, waiting longer each time, no longer than eight seconds', async () => {
    const { queue, sent, slept } = page(
      new Disk(),
      Array.from({ length: 7 }, () => gone),
    );
    await queue.add(command('a'));
    await settled();
    expect(sent).toHaveLength(8);
    expect(slept).toEqual([400, 800, 1600, 3200, 6400, 8000, 8000]);
    expect(queue.snapshot).toMatchObject({ offline: false, unsent: [] });
  });

  it('tries again when the server is busy, and not when it refuses', async () => {
    const { queue, sent, heard } = page(new Disk(), [new ProblemError(503, 'busy', 'busy'), refused]);
    await queue.add(command('a'));
    await queue.add(command('b'));
    await settled();
    expect(sent.map((s) => s.id)).toEqual(['a', 'a', 'b']);
    expect(heard).toMatchObject([
      ['a', { problem: { code: 'refused' }, late: false }],
      ['b', { answer: {} }],
    ]);
  });

  it('keeps what it has not sent over the end of its page, and sends it as late from the next', async () => {
    const disk = new Disk();
    const before = page(disk, [], { post: () => new Promise(() => undefined) });
    await before.queue.add(command('a'));
    await before.queue.add(command('b'));
    await settled();
    expect(disk.rows.size).toBe(2);
    const after = page(disk, [], { page: 'page-2' });
    await settled();
    expect(after.sent).toEqual([
      { id: 'a', late: true, by: 1 },
      { id: 'b', late: true, by: 1 },
    ]);
  });

  it('counts as late what is old, and what nobody listens for', async () => {
    const { queue, sent } = page(new Disk());
    await queue.add(command('old', { madeAt: new Date(Date.now() - 60_000).toISOString() }));
    await queue.add(command('elsewhere', { address: 'store/1' }));
    await queue.add(command('now'));
    await settled();
    expect(sent.map((s) => s.late)).toEqual([true, true, false]);
  });

  it('asks again, as late, where whoever waited for a refused command has left its page meanwhile', async () => {
    const disk = new Disk();
    const { queue, sent } = page(disk, [], {
      post: (c, late) => {
        sent.push({ id: c.id, late, by: c.personId });
        leave();
        return Promise.reject(late ? new ProblemError(409, 'late', 'kept') : refused);
      },
    });
    const leave = queue.listen(ADDRESS, () => undefined);
    await queue.add(command('a'));
    await settled();
    expect(sent.map((s) => s.late)).toEqual([false, true]);
    expect(disk.rows.size).toBe(0);
  });

  it('keeps answered commands until a task shows their effect', async () => {
    const { queue } = page(new Disk());
    await queue.add(command('a'));
    await queue.add(command('b'));
    await settled();
    expect(queue.pendingOf(ADDRESS).map((c) => [c.id, c.answeredAt !== null])).toEqual([
      ['a', true],
      ['b', true],
    ]);
    await queue.seen(ADDRESS, ['a', 'x']);
    expect(queue.pendingOf(ADDRESS).map((c) => c.id)).toEqual(['b']);
  });

  it('takes back only what the server cannot have seen', async () => {
    const disk = new Disk();
    const { queue } = page(disk, [], { post: () => new Promise(() => undefined) });
    await queue.add(command('tried'));
    await queue.add(command('waits'));
    await settled();
    expect(await queue.takeBack('tried')).toBe(false);
    expect(await queue.takeBack('waits')).toBe(true);
    expect([...disk.rows.values()].map((c) => c.id)).toEqual(['tried']);
  });

  it('stops when nobody is signed in, and goes on when somebody is, each command in the name of who made it', async () => {
    const { queue, sent } = page(new Disk(), [new ProblemError(401, 'signed-out', 'sign in')]);
    await queue.add(command('a'));
    await queue.add(command('b', { personId: 2, person: 'Joss' }));
    await settled();
    expect(queue.snapshot).toMatchObject({ signedOut: true, unsent: [{ id: 'a' }, { id: 'b' }] });
    queue.kick();
    await settled();
    expect(sent.map((s) => [s.id, s.by])).toEqual([
      ['a', 1],
      ['a', 1],
      ['b', 2],
    ]);
  });

  it('lets others go first where somebody must sign in here for theirs', async () => {
    const { queue, sent } = page(new Disk(), [new ProblemError(403, 'made-by', 'who was it')]);
    await queue.add(command('a'));
    await queue.add(command('b', { personId: 2, person: 'Joss' }));
    await settled();
    expect(sent.map((s) => s.id)).toEqual(['a', 'b']);
    expect(queue.snapshot).toMatchObject({ heldBack: ['Ines'], unsent: [{ id: 'a' }] });
    queue.kick();
    await settled();
    expect(queue.snapshot.unsent).toEqual([]);
  });

  it('has a command that the server fails on kept as a question rather than trying for ever', async () => {
    const broken = Array.from({ length: 5 }, () => new ProblemError(500, 'unknown', 'broken'));
    const { queue, sent, heard } = page(new Disk(), [...broken, new ProblemError(409, 'late', 'kept')]);
    await queue.add(command('a'));
    await settled();
    expect(sent.map((s) => s.late)).toEqual([false, false, false, false, false, true]);
    expect(heard).toMatchObject([['a', { late: true }]]);
  });

  it('tells whoever waits for one command what came of it', async () => {
    const { queue } = page(new Disk(), [refused]);
    const said = queue.outcomeOf('a');
    await queue.add(command('a'));
    expect(await said).toMatchObject({ problem: { message: 'one over' } });
  });
});
