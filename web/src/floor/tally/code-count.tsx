import { useState } from 'react';
import { Key, Keys, Say, Typed } from '../../ui/phone/parts';

/** How many there are of a code that nobody knows; the office finds out what it is. */
export function CodeCount({ code, onCount, onBack }: { code: string; onCount: (units: number) => void; onBack: () => void }) {
  const [text, setText] = useState('');
  const isNumber = /^[1-9]\d{0,6}$/.test(text.trim());
  return (
    <>
      <Say className="mt-3 text-[20px]">
        <b className="code">{code}</b>
      </Say>
      <Typed
        onSubmit={(e) => {
          e.preventDefault();
          if (isNumber) onCount(Number(text));
        }}
      >
        <input
          autoFocus
          inputMode="numeric"
          autoComplete="off"
          aria-label="How many of it"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Key next disabled={!isNumber} className="px-5">
          Keep
        </Key>
      </Typed>
      <Keys style={{ marginTop: 12 }}>
        <Key type="button" onClick={onBack}>
          Let it go
        </Key>
      </Keys>
    </>
  );
}
