import { useState } from 'react';
import { micro, moneyText } from '@vectrum/core/money';
import { TextButton } from '../../ui/button';
import { Glyph } from '../../ui/glyph';
import { DrawnBox } from './drawn-box';
import type { BoxOffer, ParcelBox } from './use-parcel-box';

/** The boxes beside the chosen one that are worth a look. */
const MOST_SHOWN = 4;

function words({ fill, holds, proposed }: BoxOffer, boxes: number): string {
  if (holds !== false) return fill > 100 ? 'too small' : `${fill} % full`;
  return proposed ? `one of ${boxes}` : fill > 100 ? 'too small' : 'does not go in';
}

/** The boxes to choose from, smallest first, in outline: the one chosen, the next smaller and larger. */
export function BoxOffers({ box, onChoose }: { box: ParcelBox; onChoose: (code: string) => void }) {
  const [all, setAll] = useState(false);
  const at = box.offers.findIndex((o) => o === box.chosen);
  const from = Math.min(Math.max(0, at - 1), Math.max(0, box.offers.length - MOST_SHOWN));
  return (
    <div className="cartons" role="group" aria-label="Box">
      {(all ? box.offers : box.offers.slice(from, from + MOST_SHOWN)).map((o) => (
        <button key={o.carton.code} type="button" aria-pressed={o === box.chosen} onClick={() => onChoose(o.carton.code)}>
          <DrawnBox inner={[o.carton.lengthMm, o.carton.widthMm, o.carton.heightMm]} span={30} />
          <span>
            {o.carton.code} {o.proposed && <Glyph name="full" size={12} says="proposed" />}
            <span className="note block">
              {words(o, box.together.length)}
              {o.carton.cost !== undefined && `, ${moneyText(micro(o.carton.cost))}`}
              {o.carton.left !== null && o.carton.left < 10 && `, ${o.carton.left === 0 ? 'none' : o.carton.left} left`}
            </span>
          </span>
        </button>
      ))}
      {!all && box.offers.length > MOST_SHOWN && (
        <TextButton type="button" className="self-start" onClick={() => setAll(true)}>
          All boxes
        </TextButton>
      )}
    </div>
  );
}
