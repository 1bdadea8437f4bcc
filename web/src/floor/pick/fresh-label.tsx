import { type Codebook, resolve } from '@vectrum/core/scan';
import { PrintLabel } from '../print-label';

/** After a code was typed since it could not be read: a fresh label for what it stands on. */
export function FreshLabel({ typed, book }: { typed: string | null; book: Codebook }) {
  if (typed === null) return null;
  const meaning = resolve(typed, book);
  if (meaning.kind === 'place') return <PrintLabel key={typed} subject="place" code={meaning.place.code} />;
  if (meaning.kind === 'item')
    return <PrintLabel key={typed} subject="item" code={meaning.item.sku} holds={meaning.pack.factor} lot={meaning.lot} />;
  return null;
}
