import { type Codebook, resolve } from '@vectrum/core/scan';
import { PrintLabel } from '../print-label';

/** After a code was typed since it could not be read: a fresh label for what it stands on. */
export function FreshLabel({ typed, book }: { typed: string | null; book: Codebook }) {
  if (typed === null) return null;
  const meaning = resolve(typed, book);
  const label =
    meaning.kind === 'place' ? (
      <PrintLabel key={typed} subject="place" code={meaning.place.code} />
    ) : meaning.kind === 'item' ? (
      <PrintLabel key={typed} subject="item" code={meaning.item.sku} holds={meaning.pack.factor} lot={meaning.lot} />
    ) : null;
  return label && <div className="pb-3">{label}</div>;
}
