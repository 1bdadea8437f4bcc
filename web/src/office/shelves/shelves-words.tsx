import type { ReactNode } from 'react';
import { useMe } from '../../api/queries';
import { FilterLine } from '../../ui/page';
import { WordLinks } from '../../ui/word-links';

const WORDS = [
  ['items', 'Items', '/shelves/items'],
  ['places', 'Bins and places', '/shelves/places'],
  ['plan', 'Plan', '/shelves/plan'],
  ['store', 'To put away', '/shelves/to-put-away'],
  ['refill', 'To refill', '/shelves/to-refill'],
  ['slotting', 'Slotting', '/shelves/slotting'],
  ['counts', 'Counts', '/shelves/counts'],
  ['count', 'Reported bins', '/shelves/to-count'],
  ['transfers', 'Transfers', '/shelves/transfers'],
  ['builds', 'Assembly', '/shelves/builds'],
  ['expiring', 'Expiring', '/shelves/expiring'],
  ['trace', 'Trace', '/shelves/trace'],
  ['codes', 'Codes', '/shelves/codes'],
] as const;

/** The lists of Shelves. */
export function ShelvesWords({ at, children }: { at: (typeof WORDS)[number][0]; children?: ReactNode }) {
  const me = useMe();
  const mayMatch = me.data?.rights.includes('items') ?? false;
  return (
    <FilterLine>
      <WordLinks
        label="Shelves"
        links={WORDS.filter(([key]) => key !== 'codes' || mayMatch).map(([, says, to]) => ({ to, says }))}
        here={WORDS.find(([key]) => key === at)?.[2]}
      />
      {children}
    </FilterLine>
  );
}
