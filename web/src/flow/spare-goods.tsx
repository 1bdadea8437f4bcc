import { goodsWords } from '@vectrum/core/quantity';
import type { Codebook, SpareGoods } from '@vectrum/core/scan';
import { Link } from 'react-router';
import { Glyph } from '../ui/glyph';

/** The order has changed: what lies in a tote or parcel and is wanted no longer, with the way to put it away. */
export function SpareList({ spare, book }: { spare: readonly SpareGoods[] | undefined; book: Codebook }) {
  if (!spare || spare.length === 0) return null;
  return (
    <div role="alert" className="spare">
      <Glyph name="undo" size={18} />
      <p>
        <b>The order has changed</b>
        {spare.map((s) => {
          const item = book.items[s.itemId];
          return (
            <span key={`${s.code}/${s.itemId}`} className="block">
              {item ? goodsWords(s.units, item) : `${s.units} pieces`} in <span className="code">{s.code}</span> not wanted any more.{' '}
              <Link to="/floor/store">Put them away</Link>
            </span>
          );
        })}
      </p>
    </div>
  );
}
