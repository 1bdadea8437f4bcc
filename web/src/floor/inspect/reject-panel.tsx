import type { InspectInput } from '@vectrum/core/scan';
import type { FlowInput } from '../../flow/use-flow';

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
      <h1 className="f-ask ask">What is wrong with {words}?</h1>
      <div className="f-body">
        <div className="grid grid-cols-2 gap-[10px] px-[14px] mt-3">
          {[...found, ...REASONS].slice(0, 6).map((r) => (
            <button key={r} type="button" className="f-key" aria-pressed={reason === r} onClick={() => say(r)}>
              {r}
            </button>
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
      </div>
      <div className="grid gap-[10px] px-[14px] pb-[14px]">
        <button type="button" className="f-key next" disabled={reason.trim() === ''} onClick={() => reject('quarantine')}>
          {reason.trim() === '' ? 'Say why first' : 'Set aside in quarantine'}
        </button>
        <div className="grid grid-cols-2 gap-[10px]">
          <button type="button" className="f-key" onClick={onBack}>
            Back
          </button>
          <button type="button" className="f-key" disabled={reason.trim() === ''} onClick={() => reject('back')}>
            Send back
          </button>
        </div>
      </div>
    </>
  );
}
