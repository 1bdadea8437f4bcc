import { spell } from '@vectrum/core/quantity';
import type { ItemFacts } from '@vectrum/core/scan';
import { useState } from 'react';
import { QuantityPad } from '../flow/quantity-pad';
import { Key, Keys } from '../ui/phone/parts';

/** How many lie there: counted by packs and keyed, or none at all. */
export function CountPad({ item, onCount, onBack }: { item: ItemFacts; onCount: (units: number) => void; onBack: () => void }) {
  const [counts, setCounts] = useState<Record<number, number>>({});
  const [active, setActive] = useState(item.packs.find((p) => p.factor === 1)?.id ?? 0);
  const units = item.packs.reduce((n, p) => n + (counts[p.id] ?? 0) * p.factor, 0);
  return (
    <>
      <QuantityPad
        item={item}
        counts={counts}
        active={active}
        onCount={(packId, count) => {
          setActive(packId);
          setCounts({ ...counts, [packId]: count });
        }}
        onActive={setActive}
      />
      <Keys style={{ marginTop: 12 }}>
        <Key type="button" next onClick={() => onCount(units)}>
          {units > 0 ? `${spell(units, item.packs)} there` : 'None there'}
        </Key>
        <Key type="button" onClick={onBack}>
          Back
        </Key>
      </Keys>
    </>
  );
}
