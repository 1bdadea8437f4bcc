import { Button } from '../ui/button';
import { Glyph } from '../ui/glyph';
import { WEIGHT_WHYS } from './parcel-choice';

/** Why a weight is right that is not as expected: one word for it, or none. */
export function WeightWhys({ why, onWhy }: { why: string; onWhy: (why: string) => void }) {
  return (
    <div role="group" aria-label="Why the weight is right" className="flex gap-2 flex-wrap py-2">
      {WEIGHT_WHYS.map((w) => (
        <Button key={w} type="button" aria-pressed={why === w} onClick={() => onWhy(why === w ? '' : w)}>
          <Glyph name={why === w ? 'full' : 'empty'} size={13} /> {w}
        </Button>
      ))}
    </div>
  );
}
