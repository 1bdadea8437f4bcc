import { useSyncExternalStore } from 'react';

const KEY = 'vectrum-camera';
const watchers = new Set<() => void>();

/** Whether the camera is wanted on this device; it stays open from page to page. */
export function useCameraOpen(): readonly [boolean, (open: boolean) => void] {
  const open = useSyncExternalStore(
    (fn) => {
      watchers.add(fn);
      return () => void watchers.delete(fn);
    },
    () => sessionStorage.getItem(KEY) === '1',
  );
  return [
    open,
    (wanted) => {
      sessionStorage.setItem(KEY, wanted ? '1' : '0');
      for (const watcher of watchers) watcher();
    },
  ];
}
