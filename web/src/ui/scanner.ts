import { useEffect, useRef } from 'react';

/** A scanner types faster than any hand: within a field, characters closer together than this belong to one scan. */
const FAST_MS = 45;
/** Outside a field nobody types words, so that slow scanners may take their time. */
const UNHURRIED_MS = 300;
const SHORTEST = 3;

type Field = HTMLInputElement | HTMLTextAreaElement;
const isField = (target: EventTarget | null): target is Field =>
  target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement;

/** Puts text into a field as typing would, so that React hears of it. */
function typeInto(field: Field, value: string): void {
  const proto = field instanceof HTMLInputElement ? HTMLInputElement.prototype : HTMLTextAreaElement.prototype;
  Object.getOwnPropertyDescriptor(proto, 'value')?.set?.call(field, value);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

/** Tells scans from typing by their speed. Kept apart from the page so that it can be tested with made-up times. */
export class WedgeReader {
  private text = '';
  private last = -Infinity;

  /** Takes one key. Returns the code where Enter ends a scan, or whether the key belongs to a burst. */
  key(key: string, at: number, gap = FAST_MS): { scan: string } | { burst: boolean } {
    const fast = at - this.last <= gap;
    if (key === 'Enter') {
      const scan = fast && this.text.length >= SHORTEST ? this.text : '';
      this.text = '';
      this.last = -Infinity;
      return scan ? { scan } : { burst: false };
    }
    if (key.length !== 1) return { burst: false };
    this.text = fast ? this.text + key : key;
    this.last = at;
    return { burst: fast };
  }

  /** What has come of a burst so far; cleared by the caller when it turns out to be typing. */
  get pending(): string {
    return this.text;
  }
}

type Heard = { current: (code: string) => void };
/** Those who listen, the one on top last. */
const listening: Heard[] = [];

/** A scan from another source than the keyboard, such as the camera: whoever listens hears it alike. `at`: when it was taken. */
export function emitScan(code: string, at: number): void {
  performance.mark('scan-input', { startTime: at });
  listening.at(-1)?.current(code);
}

/**
 * Catches keyboard-wedge scanners anywhere on the page. A burst into a field that did not ask for scans (`data-scan`)
 * leaves the field as it was; fast typing that does not end in Enter is given back to the field.
 */
export function useScanner(onScan: (code: string) => void): void {
  const handler = useRef(onScan);
  useEffect(() => {
    handler.current = onScan;
  });
  useEffect(() => {
    listening.push(handler);
    return () => void listening.splice(listening.indexOf(handler), 1);
  }, []);
  useEffect(() => {
    const reader = new WedgeReader();
    let held: { field: Field; before: string; timer: number } | undefined;
    const giveBack = () => {
      if (held) typeInto(held.field, held.before + reader.pending);
      held = undefined;
    };
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      const field = isField(e.target) && !e.target.matches('[data-scan]') ? e.target : undefined;
      const before = field?.value ?? '';
      const read = reader.key(e.key, e.timeStamp, isField(e.target) ? FAST_MS : UNHURRIED_MS);
      if ('scan' in read) {
        if (isField(e.target) && e.target.matches('[data-scan]')) return;
        e.preventDefault();
        e.stopPropagation();
        window.clearTimeout(held?.timer);
        held = undefined;
        performance.mark('scan-input', { startTime: e.timeStamp });
        handler.current(read.scan);
        return;
      }
      if (!read.burst || !field) return;
      e.preventDefault();
      window.clearTimeout(held?.timer);
      const start = held?.before ?? before.slice(0, -1);
      if (!held) typeInto(field, start);
      held = { field, before: start, timer: window.setTimeout(giveBack, FAST_MS * 2) };
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => window.removeEventListener('keydown', onKey, { capture: true });
  }, []);
}
