import { useEffect, useRef } from 'react';
import { isField } from '../scanner/field-hold';
import { scannerProfile } from '../scanner/profile';
import { FAST_MS } from '../scanner/wedge-reader';

/**
 * Hears digits that a hand presses on a keyboard or keypad, outside of fields. What a scanner types comes faster and is none of
 * them: a key counts only once no other has followed at a scanner's pace.
 */
export function useKeypad(onDigit: (digit: string) => void): void {
  const heard = useRef(onDigit);
  useEffect(() => {
    heard.current = onDigit;
  });
  useEffect(() => {
    let held: { digit: string; timer: number } | null = null;
    let last = -Infinity;
    const flush = () => {
      if (!held) return;
      window.clearTimeout(held.timer);
      const { digit } = held;
      held = null;
      heard.current(digit);
    };
    const onKey = (e: KeyboardEvent) => {
      const pace = Math.max(FAST_MS, scannerProfile().gapMs);
      const isFast = e.timeStamp - last <= pace;
      last = e.timeStamp;
      if (isFast) {
        if (held) window.clearTimeout(held.timer);
        held = null;
        return;
      }
      flush();
      if (isField(e.target) || e.ctrlKey || e.altKey || e.metaKey || !/^[0-9]$/.test(e.key)) return;
      held = { digit: e.key, timer: window.setTimeout(flush, pace * 2) };
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => {
      if (held) window.clearTimeout(held.timer);
      window.removeEventListener('keydown', onKey, { capture: true });
    };
  }, []);
}
