import { packName } from '@vectrum/core/quantity';
import type { ItemFacts } from '@vectrum/core/scan';

const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];
const MOST_DIGITS = 5;

/** Pack-unit keys carry their own counts and are the tabs of the pad; digits go to the chosen pack. `fresh`: the next digit begins anew. */
export function QuantityPad({
  item,
  counts,
  active,
  fresh = false,
  onCount,
  onActive,
}: {
  item: ItemFacts;
  counts: Record<number, number>;
  active: number;
  fresh?: boolean;
  onCount: (packId: number, count: number) => void;
  onActive: (packId: number) => void;
}) {
  const packs = item.packs.slice(0, 3);
  const at = packs.findIndex((p) => p.id === active);
  const next = packs[(at + 1) % packs.length];
  const digit = (d: string) => {
    const text = `${fresh ? '' : counts[active] || ''}${d}`;
    if (text.length <= MOST_DIGITS) onCount(active, Number(text));
  };
  return (
    <>
      <div className="units" role="tablist" aria-label="Pack units">
        {packs.map((p) => (
          <button key={p.id} type="button" className="unit" role="tab" aria-selected={p.id === active} onClick={() => onActive(p.id)}>
            <span>
              {packName({ ...p, factor: 1 }, 1).replace(/^./, (c) => c.toUpperCase())}
              <em>{p.factor === 1 ? 'single' : `of ${p.factor.toLocaleString('en-GB')}`}</em>
            </span>
            <b>{counts[p.id] ?? 0}</b>
          </button>
        ))}
      </div>
      <div className="pad">
        {KEYS.map((k) => (
          <button key={k} type="button" onClick={() => digit(k)}>
            {k}
          </button>
        ))}
        <button type="button" className="w" onClick={() => onCount(active, 0)}>
          Clear
        </button>
        <button type="button" onClick={() => digit('0')}>
          0
        </button>
        {next && packs.length > 1 ? (
          <button type="button" className="w" onClick={() => onActive(next.id)}>
            {next.plural.replace(/^./, (c) => c.toUpperCase())} <span className="g g-go" style={{ fontSize: 18 }} aria-hidden />
          </button>
        ) : (
          <span style={{ background: 'var(--color-paper)' }} />
        )}
      </div>
    </>
  );
}
