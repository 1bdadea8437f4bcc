import { useSyncExternalStore } from 'react';
import { api, ask, newKey } from '../api/client';
import { CommandQueue, type QueueState, type QueueStore } from './command-queue';
import { deviceDatabase, type KeptCommand } from './device-store';

/** This page, as against those that were open before it. */
export const thisPage = newKey();
const others = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('vectrum-queue');

const store: QueueStore = {
  async prune() {
    const db = await deviceDatabase();
    for (const { seq, address, answeredAt } of await db.getAll('commands')) {
      if (answeredAt === null || seq === undefined) continue;
      const task = await db.get('tasks', address);
      if (!task || task.readAt > answeredAt) await db.delete('commands', seq);
    }
  },
  async load() {
    const all = await (await deviceDatabase()).getAll('commands');
    return all.map((c) => ({ ...c, seq: c.seq ?? 0 }));
  },
  async add(command) {
    const tx = (await deviceDatabase()).transaction('commands', 'readwrite');
    const added = tx.store.add(command);
    // Said at once, so that a page that is left in the next moment does not take it along.
    tx.commit();
    const [seq] = await Promise.all([added, tx.done]);
    others?.postMessage('changed');
    return seq;
  },
  async put(command) {
    await (await deviceDatabase()).put('commands', command);
    if (command.answeredAt !== null) others?.postMessage('changed');
  },
  async remove(command) {
    const db = await deviceDatabase();
    const seq = await db.getKeyFromIndex('commands', 'id', command.id);
    if (seq !== undefined) await db.delete('commands', seq);
    others?.postMessage('changed');
  },
};

/** Sends one command through the floor's door, under its own id and in the name of whoever made it. */
function post({ command, madeAt, personId }: KeptCommand, late: boolean) {
  const body = { command, madeAt, madeBy: personId, late };
  return ask(api.POST('/api/floor/commands', { body, headers: { 'idempotency-key': command.id } }));
}

/** Two pages of one device take turns, so that what was made first is sent first. */
const alone = (work: () => Promise<void>): Promise<void> =>
  'locks' in navigator ? navigator.locks.request('vectrum-queue', work) : work();

/** This device's queue of commands. */
export const queue = new CommandQueue({ store, post, page: thisPage, alone });
others?.addEventListener('message', () => void queue.reload());
window.addEventListener('online', () => queue.kick());

/** What is on its way, wherever one looks. */
export function useQueue(): QueueState {
  return useSyncExternalStore(
    (fn) => queue.watch(fn),
    () => queue.snapshot,
  );
}
