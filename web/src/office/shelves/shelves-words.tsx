import type { ReactNode } from 'react';
import { FilterLine } from '../../ui/page';
import { WordLinks } from '../../ui/word-links';

const WORDS = [
  ['items', 'Items', '/shelves/items'],
  ['places', 'Bins and places', '/shelves/places'],
  ['plan', 'Plan', '/shelves/plan'],
  ['store', 'To put away', '/shelves/to-put-away'],
  ['refill', 'To refill', '/shelves/to-refill'],
  ['count', 'To count', '/shelves/to-count'],
] as const;

/** The lists of Shelves. */
export function ShelvesWords({ at, children }: { at: (typeof WORDS)[number][0]; children?: ReactNode }) {
  return (
    <FilterLine>
      <WordLinks label="Shelves" links={WORDS.map(([, says, to]) => ({ to, says }))} here={WORDS.find(([key]) => key === at)?.[2]} />
      {children}
    </FilterLine>
  );
}
