import type { PackParcel } from '@vectrum/core/scan';
import { Glyph } from '../ui/glyph';
import { Button } from '../ui/button';

/** The order's parcels: the one in use, those that are closed, and the way to another one. */
export function ParcelTabs({
  parcels,
  inUse,
  outOf,
  onChoose,
  onOpen,
  onApart,
}: {
  parcels: readonly PackParcel[];
  inUse: number;
  /** The parcel that scanned goods come out of; null while they go in. */
  outOf: number | null;
  onChoose: (number: number | 'next') => void;
  onOpen: (number: number) => void;
  onApart: () => void;
}) {
  const filled = parcels.some((p) => p.number === inUse && p.contents.length > 0);
  const shown = parcels.some((p) => p.number === inUse) ? parcels : [...parcels, { number: inUse, code: '', open: true, contents: [] }];
  return (
    <div className="flex flex-wrap gap-2" role="group" aria-label="Parcels">
      {shown.map((p) => (
        <Button
          key={p.number}
          type="button"

          style={{ height: 40, fontSize: 16, ...(p.number === inUse ? { boxShadow: 'inset 0 -4px 0 var(--color-ink)' } : {}) }}
          aria-pressed={p.number === inUse}
          onClick={() => (p.open ? onChoose(p.number) : onOpen(p.number))}
        >
          {p.open ? `Parcel ${p.number}` : `Open ${p.number} again`} {!p.open && <Glyph name="full" size={12} says="closed" />}
        </Button>
      ))}
      {filled && (
        <Button type="button" style={{ height: 40, fontSize: 16 }} aria-pressed={outOf !== null} onClick={onApart}>
          {outOf === null ? 'Take out' : 'Goods go in again'}
        </Button>
      )}
      {filled && (
        <Button type="button" style={{ height: 40, fontSize: 16 }} onClick={() => onChoose('next')}>
          Another parcel
        </Button>
      )}
    </div>
  );
}
