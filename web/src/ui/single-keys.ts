import { useEffect, useRef } from 'react';

/** A scanner's next character comes sooner than this; a person's next key does not. */
const SETTLE_MS = 70;

export const inField = (e: KeyboardEvent) => e.target instanceof HTMLElement && e.target.matches('input, textarea, select');

/**
 * Shortcuts of one letter or digit, outside fields. A key counts only when no other follows at once, so that the first
 * character of a scanned code does not turn the page.
 */
export function useSingleKeys(keys: Record<string, () => void>): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    let timer: number | undefined;
    let last = -Infinity;
    const onKey = (e: KeyboardEvent) => {
      const burst = e.timeStamp - last < SETTLE_MS;
      last = e.timeStamp;
      window.clearTimeout(timer);
      if (burst || e.ctrlKey || e.metaKey || e.altKey || inField(e) || !Object.hasOwn(latest.current, e.key)) return;
      timer = window.setTimeout(() => latest.current[e.key]?.(), SETTLE_MS);
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => {
      window.clearTimeout(timer);
      window.removeEventListener('keydown', onKey, { capture: true });
    };
  }, []);
}
