import { scannedText } from '@vectrum/core/barcode';
import { useLayoutEffect, useRef } from 'react';
import { today } from '../api/site-day';
import { askingField, fill, isOurs } from './asking-field';
import { chooseByLetter, FieldHold, isField, typeInto } from './field-hold';
import { inputIsPending } from './input-pending';
import { scannerProfile } from './profile';
import { FAST_MS, nameOf, UNHURRIED_MS, WedgeReader } from './wedge-reader';

/** A scan that comes while one page makes way for the next is for the next, if that is there by then. */
const WAITS_MS = 3_000;
/** A run without an end of its own is over when nothing came for so long. */
const UNENDED_MS = 250;

/** A list whose letter is kept waiting, with what was chosen before. */
type HeldList = { of: HTMLSelectElement; letter: string; was: string };
/** No scanner sends these: a hand is at work, and what it pressed before and after is no scan. */
const BY_HAND = /^(Arrow|Page)|^(Home|End|Escape|Backspace|Delete)$/;
type Heard = { current: (code: string) => void };
/** Those who listen, the one on top last. */
const listening: Heard[] = [];
let waiting: { code: string; at: number } | undefined;

function hear(code: string): void {
  const top = listening.at(-1);
  if (top) top.current(code);
  else waiting = { code, at: Date.now() };
}

/** A scan from another source than the keyboard, such as the camera: whoever listens hears it alike. `at`: when it was taken. */
export function emitScan(code: string, at: number): void {
  performance.mark('scan-input', { startTime: at });
  hear(scannedText(code, today()));
}

/**
 * Hears what keyboard-wedge scanners type anywhere on the page, for as long as its component stands and none above it listens.
 * A scan leaves the field that it lands in as it was, wherever the caret stood, unless the field asks for scans (`data-scan`):
 * then it takes the scan whole. Fast typing that turns out to be none is given back.
 */
export function useScanner(onScan: (code: string) => void): void {
  const handler = useRef(onScan);
  // Before the page is painted: whoever sees it may scan.
  useLayoutEffect(() => {
    handler.current = onScan;
  });
  useLayoutEffect(() => {
    listening.push(handler);
    install();
    const late = waiting && Date.now() - waiting.at < WAITS_MS ? waiting.code : undefined;
    waiting = undefined;
    const timer = late === undefined ? undefined : window.setTimeout(() => hear(late), 0);
    return () => {
      window.clearTimeout(timer);
      listening.splice(listening.indexOf(handler), 1);
    };
  }, []);
}

const reader = new WedgeReader(scannerProfile);
/** What the run of keys at hand has met: a field as it was, or a list that was kept from choosing. */
let met: { hold?: FieldHold; list?: HeldList; target: EventTarget | null; timer?: number; isSettled?: boolean } | undefined;
let lastAt = -Infinity;
let installed = false;

function install(): void {
  if (installed) return;
  installed = true;
  window.addEventListener('keydown', onKey, { capture: true });
}

function onKey(e: KeyboardEvent): void {
  if (isOurs(e) || e.isComposing) return;
  const inField = isField(e.target);
  const isTyped = inField || e.target instanceof HTMLSelectElement;
  // Where nobody listens, a field is typed into in peace.
  if (inField && listening.length === 0) return;
  const pressed = { key: e.key, code: e.code, ctrl: e.ctrlKey, alt: e.altKey, repeat: e.repeat, at: e.timeStamp };
  // But for one that this device's own scanner was found to send between two fields.
  if (BY_HAND.test(e.key) && !scannerProfile().separators.includes(nameOf(pressed))) {
    if (met && !met.isSettled) conclude(e.timeStamp);
    reader.forget();
    return;
  }
  const read = reader.key(pressed, isTyped ? FAST_MS : UNHURRIED_MS);
  if (read.as === 'other') return;
  const isFast = e.timeStamp - lastAt <= Math.max(FAST_MS, scannerProfile().gapMs);
  lastAt = e.timeStamp;
  if (read.as === 'scan') {
    keep(e);
    performance.mark('scan-input', { startTime: e.timeStamp });
    return end(read.code, e.target);
  }
  if (read.as === 'first') {
    window.clearTimeout(met?.timer);
    met = { target: e.target, ...meeting(e) };
  } else {
    met ??= { target: e.target, ...meeting(e) };
    if (isTyped || isFast) keep(e);
    // By its own time it followed at once: the page was too busy to hear it, and what it took for typing is taken back.
    if (met.isSettled && met.list) typeInto(met.list.of, met.list.was);
    met.isSettled = false;
    if (reader.length > 0) met.hold?.restore();
  }
  window.clearTimeout(met.timer);
  met.timer = window.setTimeout(() => settle(e.timeStamp), reader.mayBeUnended ? UNENDED_MS : isTyped ? FAST_MS * 2 : UNHURRIED_MS);
}

/** What the first key of a run meets. A list would choose by it at once, so it is kept waiting. */
function meeting(e: KeyboardEvent): { hold?: FieldHold; list?: HeldList } {
  if (isField(e.target)) return { hold: new FieldHold(e.target) };
  if (!(e.target instanceof HTMLSelectElement) || e.key === ' ') return {};
  keep(e);
  return { list: { of: e.target, letter: e.key, was: e.target.value } };
}

function keep(e: KeyboardEvent): void {
  e.preventDefault();
  e.stopPropagation();
}

/** No key has come for a while: what there is was typed, unless the page was too busy to hear the next. */
function settle(at: number): void {
  // Keys that wait behind a busy page belong to the same run: half a code is worse than none.
  if (met && inputIsPending()) {
    met.timer = window.setTimeout(() => settle(at), FAST_MS);
    return;
  }
  conclude(at);
}

function conclude(at: number): void {
  window.clearTimeout(met?.timer);
  const unended = reader.pause(at);
  if (unended) return end(unended.code, met?.target ?? null);
  if (met?.list) chooseByLetter(met.list.of, met.list.letter);
  else if (reader.length > 1) met?.hold?.giveBack(reader.pending);
  // The run is not forgotten: the next key may have been pressed at once behind it, and come late.
  if (met) met.isSettled = true;
}

function end(code: string, target: EventTarget | null): void {
  window.clearTimeout(met?.timer);
  met?.hold?.restore();
  met = undefined;
  const text = scannedText(code, today());
  const field = askingField(target);
  if (!(field && fill(field, text))) hear(text);
}
