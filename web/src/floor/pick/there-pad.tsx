import { spell } from '@vectrum/core/quantity';
import type { ItemFacts } from '@vectrum/core/scan';
import { useState } from 'react';
import { QuantityPad } from '../../flow/quantity-pad';
import { Key, Keys } from '../../ui/phone/parts';

/** How many are there, where too few are: counted and keyed, or none at all. */
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
  const [counts, setCounts] = useState<Record<number, number>>({});
  const [active, setActive] = useState(item.packs.find((p) => p.factor === 1)?.id ?? 0);
  const units = item.packs.reduce((n, p) => n + (counts[p.id] ?? 0) * p.factor, 0);
  return (
    <>
      <p className="there">
        Wanted here: <b>{spell(wanted, item.packs)}</b>. {units > 0 ? `Seen: ${spell(units, item.packs)}.` : 'Count what lies there.'}
      </p>
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
        <Key type="button" next onClick={() => onThere(units)}>
          {units > 0 ? `${spell(units, item.packs)} there` : 'None there'}
        </Key>
        <Key type="button" onClick={onBack}>
          Back
        </Key>
      </Keys>
    </>
  );
}
