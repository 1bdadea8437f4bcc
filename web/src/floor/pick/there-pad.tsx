import { spell } from '@vectrum/core/quantity';
import type { ItemFacts } from '@vectrum/core/scan';
import { CountPad } from '../count-pad';

/** How many are there, where too few are. */
export function TherePad({
  item,
  wanted,
  onThere,
  onBack,
}: {
  item: ItemFacts;
  wanted: number;
  onThere: (units: number) => void;
  onBack: () => void;
}) {
  return (
    <>
      <p className="there">
        Wanted here: <b>{spell(wanted, item.packs)}</b>. Count what lies there.
      </p>
      <CountPad item={item} onCount={onThere} onBack={onBack} />
    </>
  );
}
