import type { PackParcel } from '@vectrum/core/scan';
import { Glyph } from '../ui/glyph';
import { Button } from '../ui/button';

/** The order's parcels: the one in use, those that are closed, and the way to another one. */
export function ParcelTabs({
  parcels,
  inUse,
  onChoose,
}: {
  parcels: readonly PackParcel[];
  inUse: number;
  onChoose: (number: number | 'next') => void;
}) {
  const filled = parcels.some((p) => p.number === inUse && p.contents.length > 0);
  const shown = parcels.some((p) => p.number === inUse) ? parcels : [...parcels, { number: inUse, code: '', open: true, contents: [] }];
  return (
    <div className="flex flex-wrap gap-2" role="group" aria-label="Parcels">
      {shown.map((p) => (
        <Button
          key={p.number}
          type="button"

          style={{ height: 40, fontSize: 16 }}
          aria-pressed={p.number === inUse}
          disabled={!p.open}
          onClick={() => onChoose(p.number)}
        >
          Parcel {p.number} {!p.open && <Glyph name="full" size={12} says="closed" />}
        </Button>
      ))}
      {filled && (
        <Button type="button" style={{ height: 40, fontSize: 16 }} onClick={() => onChoose('next')}>
          Another parcel
        </Button>
      )}
    </div>
  );
}
