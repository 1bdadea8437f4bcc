import { spell } from '@vectrum/core/quantity';
import type { Codebook, PackLine } from '@vectrum/core/scan';
import { Glyph } from '../ui/glyph';
import { Picture } from '../ui/picture';
import { BenchList, BenchItem } from '../ui/bench/parts';

/** Pieces that are shown one by one. */
const MOST_MARKS = 8;

/** The order's lines, each filling in its place; the next one is in the highlighter. */
export function BenchLines({
  lines,
  next,
  book,
}: {
  lines: (PackLine & { rest: number; shelf: string | null })[];
  next: number | undefined;
  book: Codebook;
}) {
  return (
    <BenchList>
      {lines.map((l) => {
        const item = book.items[l.itemId];
        return (
          <BenchItem key={l.line} next={l.line === next} isIn={l.rest === 0}>
            <i>{l.line}</i>
            <Picture name={item?.picture} size={50} />
            <div>
              <b>{item?.name}</b>
              <span>
                {item && spell(l.picked, item.packs)}
                {l.shelf && l.rest > 0 && (
                  <>
                    , from <span className="code">{l.shelf}</span>
                  </>
                )}
              </span>
            </div>
            <span className="marks" role="img" aria-label={`${l.picked - l.rest} of ${l.picked} in`}>
              {l.picked <= MOST_MARKS ? (
                Array.from({ length: l.picked }, (_, i) => <Glyph key={i} name={i < l.picked - l.rest ? 'full' : 'empty'} />)
              ) : (
                <Glyph name={l.rest === 0 ? 'full' : l.rest === l.picked ? 'empty' : 'half'} />
              )}
            </span>
            <span className="to">
              {l.rest === 0 ? (
                'in the parcel'
              ) : (
                <>
                  <b>{l.rest}</b> to go
                </>
              )}
            </span>
          </BenchItem>
        );
      })}
    </BenchList>
  );
}
