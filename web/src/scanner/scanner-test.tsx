import { useLayoutEffect, useRef, useState } from 'react';
import { TextButton } from '../ui/button';
import { CardDrawing } from '../ui/barcode';
import { Glyph } from '../ui/glyph';
import { isOurs } from './asking-field';
import { inputIsPending } from './input-pending';
import { keepScannerProfile, scannerProfile, UNKNOWN_SCANNER } from './profile';
import { CARD_TEXT, readTestCard, type CardReading } from './test-card';
import type { PressedKey } from './wedge-reader';

/** A scanner has read the card when no key has come for so long. */
const DONE_MS = 450;
const FEWEST = 8;

/** Hears every key as it comes, and what the card shows of the scanner. */
function useTestCard(onRead: (reading: CardReading) => void): void {
  const read = useRef(onRead);
  // Before the page is painted: whoever sees the card may scan it, and a page that is drawn anew cuts no scan in two.
  useLayoutEffect(() => {
    read.current = onRead;
  });
  useLayoutEffect(() => {
    let keys: PressedKey[] = [];
    let timer: number | undefined;
    const done = () => {
      if (inputIsPending()) {
        timer = window.setTimeout(done, DONE_MS);
        return;
      }
      if (keys.length >= FEWEST) read.current(readTestCard(keys));
      keys = [];
    };
    const onKey = (e: KeyboardEvent) => {
      if (e.repeat || isOurs(e)) return;
      keys.push({ key: e.key, code: e.code, ctrl: e.ctrlKey, alt: e.altKey, at: e.timeStamp });
      // Ctrl with a letter may mean something to the browser.
      if (keys.length > 2 && (e.ctrlKey || e.altKey || e.key.length > 1)) e.preventDefault();
      window.clearTimeout(timer);
      timer = window.setTimeout(done, DONE_MS);
    };
    window.addEventListener('keydown', onKey, { capture: true });
    return () => {
      window.clearTimeout(timer);
      window.removeEventListener('keydown', onKey, { capture: true });
    };
  }, []);
}

/** The test card, what the scanner made of it, and what this device has learned of its scanner. */
export function ScannerTest() {
  const [reading, setReading] = useState<CardReading | null>(null);
  const [profile, setProfile] = useState(scannerProfile);
  const take = (read: CardReading) => {
    setReading(read);
    if (!read.profile) return;
    keepScannerProfile(read.profile);
    setProfile(scannerProfile());
  };
  useTestCard(take);
  const learned = profile !== UNKNOWN_SCANNER;
  return (
    <div className="flex flex-wrap gap-x-12 gap-y-6">
      <figure className="w-[340px] max-w-full">
        <div className="flex flex-col gap-5 items-start p-4 bg-white border border-ink">
          <CardDrawing kind="gs1datamatrix" text={CARD_TEXT} width={120} height={120} says="Test card, Data Matrix" />
          <CardDrawing kind="gs1-128" text={CARD_TEXT} width={300} height={56} says="Test card, GS1-128" />
          <span className="code text-[12px] text-black">{CARD_TEXT}</span>
        </div>
        <figcaption className="note mt-2">Scan either of the two, off the screen or off paper</figcaption>
      </figure>
      <div className="flex-1 min-w-[280px] max-w-[560px]">
        {reading ? (
          <ul aria-label="What the scanner sent" aria-live="polite">
            {reading.remarks.map((r) => (
              <li key={r.says} className="flex gap-3 py-2 border-b border-rule">
                <Glyph name={r.good ? 'full' : 'blocked'} says={r.good ? 'well' : 'to be set'} />
                <span>
                  <span className={r.good ? '' : 'font-semibold'}>{r.says}</span>
                  {r.todo && <span className="block mid">{r.todo}</span>}
                </span>
              </li>
            ))}
          </ul>
        ) : (
          <p className="mid py-2">Nothing has been scanned yet. What the scanner sends is told here, sign by sign.</p>
        )}
        <p className="mt-4">
          {learned ? 'This device knows its scanner by the card. ' : 'This device does not know its scanner yet. '}
          {learned && (
            <TextButton
              type="button"
              onClick={() => {
                keepScannerProfile(null);
                setProfile(UNKNOWN_SCANNER);
                setReading(null);
              }}
            >
              Forget it
            </TextButton>
          )}
        </p>
      </div>
    </div>
  );
}
