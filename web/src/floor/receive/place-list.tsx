import { isFor } from '@vectrum/core/places';
import type { Codebook, PlaceFacts } from '@vectrum/core/scan';
import { useState } from 'react';
import { Ask, Key, Keys, NoItem, PhoneBody, PhoneList } from '../../ui/phone/parts';

/** As many places as a thumb scrolls through; more are found by their code. */
const MOST = 60;
const ORDER = ['dock', 'inspection', 'cart', 'reserve', 'pick-face'];

/** Where goods can be booked in, docks first, for whoever has no label to scan. */
export function PlaceList({
  book,
  siteId,
  onChoose,
  onBack,
}: {
  book: Codebook;
  siteId: number;
  onChoose: (code: string) => void;
  onBack: () => void;
}) {
  const [text, setText] = useState('');
  const rank = (p: PlaceFacts) => (ORDER.includes(p.kind) ? ORDER.indexOf(p.kind) : ORDER.length);
  const all = Object.values(book.places)
    .filter((p) => p.siteId === siteId && isFor(p.kind, 'receive') && p.code.includes(text.trim().toUpperCase()))
    .sort((a, b) => rank(a) - rank(b) || a.code.localeCompare(b.code, undefined, { numeric: true }));
  return (
    <>
      <Ask>Where do goods go?</Ask>
      <input
        className="code mx-[14px] mt-3 h-[56px] border-2 border-rule-firm bg-sheet px-3 text-[20px]"
        aria-label="Part of the place’s code"
        placeholder="Part of its code"
        autoComplete="off"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <PhoneBody className="mt-3">
        <PhoneList aria-label="Places">
          {all.slice(0, MOST).map((p) => (
            <li key={p.id}>
              <button type="button" onClick={() => onChoose(p.code)}>
                <b className="code">{p.code}</b>
                <span>{p.kind.replaceAll('-', ' ')}</span>
              </button>
            </li>
          ))}
          {all.length === 0 && <NoItem>No place here has such a code.</NoItem>}
          {all.length > MOST && <NoItem>{all.length - MOST} more. Type a part of the code.</NoItem>}
        </PhoneList>
      </PhoneBody>
      <Keys style={{ marginTop: 12 }}>
        <Key type="button" onClick={onBack}>
          Back
        </Key>
      </Keys>
    </>
  );
}
