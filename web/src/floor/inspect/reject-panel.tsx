import type { InspectInput } from '@vectrum/core/scan';
import type { FlowInput } from '../../flow/use-flow';
import { Ask, PhoneBody, Key } from '../../ui/phone/parts';

const REASONS = ['Broken', 'Wrong goods', 'Wrong measure', 'Dirty', 'Short life'];

/** Why goods are rejected, by one touch or in words, and where they go. */
export function RejectPanel({
  words,
  found,
  reason,
  input,
  onBack,
}: {
  words: string;
  /** What the checks found wrong. */
  found: readonly string[];
  reason: string;
  input: (given: FlowInput<InspectInput>) => void;
  onBack: () => void;
}) {
  const say = (value: string) => input({ kind: 'reason', value });
  const reject = (verdict: 'quarantine' | 'back') => {
    onBack();
    input({ kind: 'verdict', verdict });
  };
  return (
    <>
      <Ask>What is wrong with {words}?</Ask>
      <PhoneBody>
        <div className="grid grid-cols-2 gap-[10px] px-[14px] mt-3">
          {[...found, ...REASONS].slice(0, 6).map((r) => (
            <Key key={r} type="button" aria-pressed={reason === r} onClick={() => say(r)}>
              {r}
            </Key>
          ))}
        </div>
        <label className="block px-[14px] mt-3 pb-3">
          <span className="text-[17px]">In your own words</span>
          <input
            className="w-full h-[64px] border-2 border-rule-firm bg-sheet px-3 text-[20px]"
            value={reason}
            maxLength={200}
            onChange={(e) => say(e.target.value)}
          />
        </label>
      </PhoneBody>
      <div className="grid gap-[10px] px-[14px] pb-[14px]">
        <Key type="button" next disabled={reason.trim() === ''} onClick={() => reject('quarantine')}>
          {reason.trim() === '' ? 'Say why first' : 'Set aside in quarantine'}
        </Key>
        <div className="grid grid-cols-2 gap-[10px]">
          <Key type="button" onClick={onBack}>
            Back
          </Key>
          <Key type="button" disabled={reason.trim() === ''} onClick={() => reject('back')}>
            Send back
          </Key>
        </div>
      </div>
    </>
  );
}
