import { SEPARATOR } from '@vectrum/core/barcode';
import { UNKNOWN_SCANNER, type ScannerProfile } from './profile';

/** A scanner types faster than any hand: within a field, characters closer together than this belong to one scan. */
export const FAST_MS = 45;
/** Outside a field nobody types words, so that slow scanners may take their time. */
export const UNHURRIED_MS = 300;
/** No scanner is so slow and then so fast: keys farther apart than this were pressed by hand, before the scan that follows them. */
const HAND_MS = 90;
const SHORTEST = 3;
/** Without Enter at its end, a run must be longer than what fingers roll over by chance. */
const SHORTEST_UNENDED = 6;
/** An Enter that comes this soon behind a run which ended without one belongs to it. */
const LATE_ENTER_MS = 600;

/** A key as a keyboard sends it. `at`: milliseconds. */
export interface PressedKey {
  key: string;
  code?: string;
  ctrl?: boolean;
  alt?: boolean;
  repeat?: boolean;
  at: number;
}

/**
 * What a key is: nothing of a scan's; perhaps a scan's first, which only the next can tell; one of a scan's, so that the page
 * must not have it; or its end.
 */
export type KeyRead = { as: 'other' | 'first' | 'scanned' } | { as: 'scan'; code: string };

/** How a key is named in a scanner's profile, such as "Ctrl+]" or "F9". */
export const nameOf = (k: PressedKey): string => `${k.ctrl ? 'Ctrl+' : ''}${k.alt ? 'Alt+' : ''}${k.key}`;

const isSilent = (key: string) => ['Shift', 'Control', 'Alt', 'AltGraph', 'Meta', 'CapsLock', 'NumLock'].includes(key);

/** Tells scans from typing by their speed. Kept apart from the page so that it can be tested with made-up times. */
export class WedgeReader {
  private text = '';
  /** Digits of a character that is sent by its number, while the Alt key is held. */
  private numbered = '';
  private last = -Infinity;
  private fast = false;
  /** All keys of the run so far came at a hand's pace. */
  private byHand = true;
  private unendedAt = -Infinity;

  constructor(private readonly profile: () => ScannerProfile = () => UNKNOWN_SCANNER) {}

  /** Takes one key. `gap`: how far apart keys of one scan may be here. */
  key(k: PressedKey, gap = FAST_MS): KeyRead {
    if (isSilent(k.key)) return { as: 'other' };
    if (k.repeat) return this.drop();
    const fast = k.at - this.last <= Math.max(gap, this.profile().gapMs);
    if (k.alt && !k.ctrl && /^\d$/.test(k.key)) return this.take('', k.key, fast, k.at);
    if (this.isSeparator(k)) return this.take(SEPARATOR, '', fast, k.at, true);
    if (k.key === 'Enter' || k.key === 'Tab') return this.end(k, fast);
    if (k.key.length !== 1 || (k.ctrl && !k.alt)) return { as: 'other' };
    return this.take(k.key, '', fast, k.at);
  }

  /** No key has come for a while: a run that is long enough was a scan without an end of its own. */
  pause(at: number): { code: string } | undefined {
    this.flushNumbered();
    if (!this.fast || this.text.length < SHORTEST_UNENDED) return undefined;
    this.unendedAt = at;
    return { code: this.finish() };
  }

  /** How many characters have come in a run, at a scanner's pace. */
  get length(): number {
    return this.fast ? this.text.length + Math.sign(this.numbered.length) : 0;
  }

  /** Whether the run is long enough to be a scan that has no end of its own. */
  get mayBeUnended(): boolean {
    return this.length >= SHORTEST_UNENDED;
  }

  /** What has come of a run so far, for a field to have back. */
  get pending(): string {
    this.flushNumbered();
    return this.text.replaceAll(SEPARATOR, '');
  }

  /** Forgets the run; what it was is with the caller. */
  forget(): void {
    this.text = '';
    this.numbered = '';
    this.last = -Infinity;
    this.fast = false;
    this.byHand = true;
  }

  private isSeparator(k: PressedKey): boolean {
    const isBracket = k.key === ']' || k.code === 'BracketRight' || k.key === SEPARATOR;
    return (
      k.key === SEPARATOR || (k.ctrl === true && !k.alt && isBracket) || k.key === 'F8' || this.profile().separators.includes(nameOf(k))
    );
  }

  private take(text: string, digit: string, fast: boolean, at: number, mayBegin = false): KeyRead {
    const gap = at - this.last;
    if (!fast) this.forget();
    // A number keyed by hand, and a scan right behind it: the scan begins with the key before this one.
    else if (gap <= FAST_MS && this.byHand) this.text = this.text.slice(-1);
    this.byHand = !fast || (this.byHand && gap > HAND_MS);
    if (digit === '') this.flushNumbered();
    this.text += text;
    this.numbered += digit;
    this.last = at;
    this.fast = fast;
    return { as: fast || mayBegin || digit !== '' ? 'scanned' : 'first' };
  }

  private flushNumbered(): void {
    const number = Number(this.numbered);
    if (this.numbered !== '' && number > 0 && number < 127) this.text += String.fromCharCode(number);
    this.numbered = '';
  }

  private end(k: PressedKey, fast: boolean): KeyRead {
    this.flushNumbered();
    const isScan = fast && this.text.length >= SHORTEST;
    if (isScan) return { as: 'scan', code: this.finish() };
    const isLate = k.at - this.unendedAt <= LATE_ENTER_MS;
    this.unendedAt = -Infinity;
    this.forget();
    return { as: isLate ? 'scanned' : 'other' };
  }

  private drop(): KeyRead {
    this.forget();
    return { as: 'other' };
  }

  private finish(): string {
    const { prefix, suffix } = this.profile();
    let code = this.text;
    if (prefix !== '' && code.startsWith(prefix)) code = code.slice(prefix.length);
    if (suffix !== '' && code.endsWith(suffix)) code = code.slice(0, -suffix.length);
    this.forget();
    return code;
  }
}
