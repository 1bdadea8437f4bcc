import { lotWords } from '@vectrum/core/quantity';
import type { ItemFacts, TallyHand, TallyInput, TallyLine } from '@vectrum/core/scan';
import { useState } from 'react';
import type { FlowInput } from '../../flow/use-flow';
import { Key, PhoneItem, PhoneList, Say, Typed } from '../../ui/phone/parts';

/** Which lot the goods in hand are of: one that the list names, or as it is printed on them. Pieces with numbers are scanned. */
export function LotChoice({
  item,
  lots,
  hand,
  input,
}: {
  item: ItemFacts;
  lots: readonly TallyLine[];
  hand: TallyHand;
  input: (input: FlowInput<TallyInput>) => void;
}) {
  const [text, setText] = useState('');
  const isPiece = item.tracking === 'serial';
  return (
    <>
      {lots.length > 0 && !isPiece && (
        <PhoneList className="mt-2 max-h-[34dvh] overflow-y-auto" aria-label="Lots on the list">
          {lots.map((l) => (
            <PhoneItem key={l.lotId}>
              <button type="button" onClick={() => input({ kind: 'text', field: 'lot', value: l.lot ?? '' })}>
                <b>{lotWords(item, l.lot)}</b>
                <span>{l.counted === null ? 'on the list' : 'counted already'}</span>
              </button>
            </PhoneItem>
          ))}
        </PhoneList>
      )}
      <Say className="text-[17px]">
        {isPiece ? 'Scan the number of each piece, or type it.' : 'Another one: scan its label, or type it.'}
      </Say>
      <Typed
        onSubmit={(e) => {
          e.preventDefault();
          const value = text.trim();
          if (value === '') return;
          setText('');
          if (isPiece) input({ kind: 'choose', itemId: item.id, lot: value, isDamaged: hand.isDamaged });
          else input({ kind: 'text', field: 'lot', value });
        }}
      >
        <input
          autoComplete="off"
          autoCapitalize="characters"
          aria-label={isPiece ? 'Number of the piece' : 'Lot'}
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Key className="px-5">Enter</Key>
      </Typed>
    </>
  );
}
