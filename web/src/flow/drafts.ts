import { deviceDatabase } from './device-store';

/** What was in hand longer ago than this has been put down. */
const FRESH_MS = 8 * 3_600_000;

/** Keeps what a person has in hand on the device, so that a reload does not empty it. What is on its way is the queue's. */
export function keepDraft(address: string, personId: number, state: object): void {
  const { pending: _, ...own } = state as { pending?: unknown };
  void deviceDatabase().then((db) => {
    const tx = db.transaction('drafts', 'readwrite');
    void tx.store.put({ address, personId, at: Date.now(), state: own });
    // Said at once, so that a page that is left in the next moment does not take it along.
    tx.commit();
    return tx.done;
  });
}

/** What a person had in hand at a task; null where it was somebody else, or too long ago. */
export async function draftOf(address: string, personId: number): Promise<object | null> {
  const draft = await (await deviceDatabase()).get('drafts', address);
  return draft && draft.personId === personId && Date.now() - draft.at < FRESH_MS ? draft.state : null;
}
