import type { InspectInput } from '@vectrum/core/scan';
import type { FlowInput } from '../../flow/use-flow';
import { Ask, Keys, Key } from '../../ui/phone/parts';

/** Why goods pass although a check was not fulfilled. */
export function WhyPanel({
  words,
  reason,
  input,
  onBack,
}: {
  words: string;
  reason: string;
  input: (given: FlowInput<InspectInput>) => void;
  onBack: () => void;
}) {
  return (
    <>
      <Ask>A check was not fulfilled. Why do they pass?</Ask>
      <label className="block px-[14px] mt-3">
        <span className="text-[17px]">In your own words</span>
        <input
          className="w-full h-[64px] border-2 border-rule-firm bg-sheet px-3 text-[20px]"
          value={reason}
          maxLength={200}
          onChange={(e) => input({ kind: 'reason', value: e.target.value })}
        />
      </label>
      <Keys style={{ marginTop: 'auto', gridAutoColumns: 'auto', gridTemplateColumns: '104px 1fr' }}>
        <Key type="button" onClick={onBack}>
          Back
        </Key>
        <Key
          type="button"
          next
          disabled={reason.trim() === ''}
          onClick={() => {
            onBack();
            input({ kind: 'verdict', verdict: 'pass' });
          }}
        >
          {reason.trim() === '' ? 'Say why first' : `Pass ${words}`}
        </Key>
      </Keys>
    </>
  );
}
