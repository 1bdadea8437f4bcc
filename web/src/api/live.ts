import { type Query, type QueryClient, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { Dto } from './client';
import { freshFor, key, type Topic } from './keys';
import { oneAtATime } from './one-at-a-time';

const GATHER_MS = 80;
/** Each screen has its own beat, so that fifty do not all ask at the same moment. */
const EVERY_MS = 1_000 + Math.random() * 500;
const LISTEN_AGAIN_MS = 4_000;

/** The tape of the whole house, as against one document's or one's own. */
const isWholeTape = (query: Query) =>
  query.queryKey[0] === 'tape' && Object.keys((query.queryKey[2] as object | undefined) ?? {}).length === 0;

/** The tape with new lines on top, the newest first, but for those that are there. The next reading puts its figures right. */
export function withEntries(tape: Dto['TapeDto'], entries: readonly Dto['TapeEntryDto'][]): Dto['TapeDto'] {
  const fresh = entries.filter((entry) => tape.entries.every((e) => e.id !== entry.id));
  return fresh.length === 0 ? tape : { ...tape, entries: [...fresh.reverse(), ...tape.entries] };
}

/** Waits for the readings that began before now, since asking for them again meanwhile would give the same answer. */
const underWay = (client: QueryClient) =>
  Promise.allSettled(
    client
      .getQueryCache()
      .findAll({ fetchStatus: 'fetching' })
      .map((query) => Promise.resolve(query.promise)),
  );

/**
 * Listens to the server's events: new lines of the tape say what their acts have changed, and what shows that is read
 * again. Returns whether the line to the server stands.
 */
export function useLive(): boolean {
  const client = useQueryClient();
  const [up, setUp] = useState(true);
  useEffect(() => {
    /** What has changed since the last reading; null where it may be anything. */
    let changed: Set<Topic> | null = new Set();
    // A page that nobody looks at is read again when somebody does.
    const reading = oneAtATime(
      () => {
        const stale = freshFor(changed && [...changed]);
        changed = new Set();
        return client.invalidateQueries({ predicate: stale, refetchType: document.hidden ? 'none' : 'active' });
      },
      GATHER_MS,
      EVERY_MS,
    );
    // Until the line first stands, nobody here was told anything either.
    let lost = true;
    let timer = 0;
    let source: EventSource;
    const listen = () => {
      source = new EventSource('/api/live');
      source.onopen = () => {
        setUp(true);
        // What happened while the line was down was told to nobody here.
        if (lost)
          void underWay(client).then(() => {
            changed = null;
            reading.call();
          });
        lost = false;
      };
      source.onerror = () => {
        setUp(false);
        // A session that ended closes the line too; asking who is here tells the two apart.
        if (!lost) void client.invalidateQueries({ queryKey: key('me') });
        lost = true;
        // The browser tries again by itself, except where something answered in the server's place.
        if (source.readyState === EventSource.CLOSED) timer = window.setTimeout(listen, LISTEN_AGAIN_MS);
      };
      source.addEventListener('tape', (event: MessageEvent<string>) => {
        const { entries, changed: topics } = JSON.parse(event.data) as Dto['LiveLinesDto'];
        for (const topic of topics) changed?.add(topic);
        client.setQueriesData<Dto['TapeDto']>({ predicate: isWholeTape }, (tape) => tape && withEntries(tape, entries));
        reading.call();
      });
    };
    listen();
    return () => {
      window.clearTimeout(timer);
      reading.stop();
      source.close();
    };
  }, [client]);
  return up;
}
