import { isSum, padValue, packName, pressed, type PadKey } from '@vectrum/core/quantity';
import type { ItemFacts } from '@vectrum/core/scan';
import { useState } from 'react';
import { BroadGap, BroadKey, FigureKeys, WordKey } from '../ui/phone/parts';
import { Glyph } from '../ui/glyph';
import { useKeypad } from './use-keypad';

const ROWS: readonly (readonly PadKey[])[] = [
  ['1', '2', '3', '×'],
  ['4', '5', '6', '+'],
  ['7', '8', '9'],
];
const MOST = 9_999_999;

/**
 * Pack-unit keys carry their own counts and are the tabs of the pad; digits go to the chosen pack. Layers are reckoned as they
 * are seen: "4×12+5". `fresh`: the next digit begins anew.
 */
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
  const [sum, setSum] = useState({ packId: active, text: '' });
  const packs = item.packs.slice(0, 3);
  const next = packs[(packs.findIndex((p) => p.id === active) + 1) % packs.length];
  const count = counts[active] ?? 0;
  // A scan may have counted meanwhile: then the sum goes on from there.
  const standing = sum.packId === active && padValue(sum.text) === count ? sum.text : String(count || '');
  const press = (key: PadKey) => {
    const text = pressed(fresh && !isSum(key) ? '' : standing, key);
    if (padValue(text) > MOST) return;
    setSum({ packId: active, text });
    onCount(active, padValue(text));
  };
  useKeypad((digit) => press(digit as PadKey));
  return (
    <>
      <div className="units" role="tablist" aria-label="Pack units">
        {packs.map((p) => (
          <button key={p.id} type="button" className="unit" role="tab" aria-selected={p.id === active} onClick={() => onActive(p.id)}>
            <span>
              {packName({ ...p, factor: 1 }, 1).replace(/^./, (c) => c.toUpperCase())}
              <em>
                {p.id === active && isSum(standing) ? standing : p.factor === 1 ? 'single' : `of ${p.factor.toLocaleString('en-GB')}`}
              </em>
            </span>
            <b>{counts[p.id] ?? 0}</b>
          </button>
        ))}
      </div>
      <FigureKeys>
        {ROWS.flat().map((k) => (
          <button key={k} type="button" aria-label={k === '×' ? 'times' : k === '+' ? 'plus' : k} onClick={() => press(k)}>
            {k}
          </button>
        ))}
        <WordKey
          type="button"
          onClick={() => {
            setSum({ packId: active, text: '' });
            onCount(active, 0);
          }}
        >
          Clear
        </WordKey>
        <BroadKey type="button" onClick={() => press('0')}>
          0
        </BroadKey>
        {next && packs.length > 1 ? (
          <WordKey type="button" broad onClick={() => onActive(next.id)}>
            {next.plural.replace(/^./, (c) => c.toUpperCase())} <Glyph name="go" size={18} />
          </WordKey>
        ) : (
          <BroadGap />
        )}
      </FigureKeys>
    </>
  );
}
