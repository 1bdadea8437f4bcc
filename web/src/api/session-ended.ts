import { useSyncExternalStore } from 'react';

let ended = false;
const watchers = new Set<() => void>();

/** Says whether the server has let go of whoever is signed in here. */
export function tellSession(hasEnded: boolean): void {
  if (ended === hasEnded) return;
  ended = hasEnded;
  for (const tell of watchers) tell();
}

/** Whether the sign-in of this page has ended meanwhile. What is on the page stays until somebody signs in again. */
export const useSessionEnded = (): boolean =>
  useSyncExternalStore(
    (tell) => {
      watchers.add(tell);
      return () => watchers.delete(tell);
    },
    () => ended,
  );
