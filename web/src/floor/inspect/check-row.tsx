import { boundsWords, readAnswer, type Check } from '@vectrum/core/inspection';
import { useState } from 'react';
import type { InspectInput } from '@vectrum/core/scan';
import type { FlowInput } from '../../flow/use-flow';
import { Glyph, type GlyphName } from '../../ui/glyph';
import { Key } from '../../ui/phone/parts';

function glyphOf(check: Check, value: string | undefined): GlyphName {
  const reading = value === undefined ? null : readAnswer(check, value);
  if (reading === null || 'fault' in reading) return 'empty';
  return reading.ok ? 'full' : 'blocked';
}

/** One thing to look at: yes or no by a key, a measurement or words in a field. */
export function CheckRow({
  check,
  value,
  input,
}: {
  check: Check;
  value: string | undefined;
  input: (given: FlowInput<InspectInput>) => void;
}) {
  const answer = (said: string) => input({ kind: 'check', no: check.no, value: said });
  const bounds = check.kind === 'measure' ? boundsWords(check) : '';
  return (
    <li className="check">
      <Glyph name={glyphOf(check, value)} size={24} says />
      <div>
        <b>{check.says}</b>
        {bounds && <span>{bounds}</span>}
      </div>
      {check.kind === 'yes' ? (
        <div className="yesno">
          {(['yes', 'no'] as const).map((said) => (
            <Key
              key={said}
              type="button"

              aria-pressed={value === said}
              aria-label={`${check.says}: ${said}`}
              onClick={() => answer(said)}
            >
              {said === 'yes' ? 'Yes' : 'No'}
            </Key>
          ))}
        </div>
      ) : (
        <Typed check={check} value={value} onAnswer={answer} />
      )}
    </li>
  );
}

/** What is typed counts once the field is left. */
function Typed({ check, value, onAnswer }: { check: Check; value: string | undefined; onAnswer: (said: string) => void }) {
  const [text, setText] = useState(value ?? '');
  const keep = () => {
    if (text.trim() !== '' && text.trim() !== value) onAnswer(text.trim());
  };
  return (
    <label className="measure">
      <input
        aria-label={check.says}
        inputMode={check.kind === 'measure' ? 'decimal' : 'text'}
        value={text}
        maxLength={120}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur();
        }}
      />
      <span>{check.unit}</span>
    </label>
  );
}
