import { registerSW } from 'virtual:pwa-register';
import { useSyncExternalStore } from 'react';

let fresh = false;
let renew: ((reload: boolean) => Promise<void>) | undefined;
const watchers = new Set<() => void>();

/** Keeps the shell on this device. Only secure pages may; others go on without. */
export function keepShell(): void {
  if (renew || !('serviceWorker' in navigator) || import.meta.env.DEV) return;
  renew = registerSW({
    immediate: true,
    onNeedRefresh() {
      fresh = true;
      for (const watcher of watchers) watcher();
    },
  });
}

/** Whether a newer shell is here, and how to go over to it. */
export function useNewShell(): { fresh: boolean; use: () => void } {
  const now = useSyncExternalStore(
    (fn) => {
      watchers.add(fn);
      return () => void watchers.delete(fn);
    },
    () => fresh,
  );
  return { fresh: now, use: () => void renew?.(true) };
}
