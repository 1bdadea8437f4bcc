import type { ReactNode } from 'react';
import { useMe } from '../../api/queries';
import { FilterLine } from '../../ui/page';
import { WordLinks } from '../../ui/word-links';

const WORDS = [
  ['open', 'To invoice', '/books'],
  ['invoices', 'Invoices', '/books/invoices'],
  ['payments', 'Payments', '/books/payments'],
  ['journal', 'Journal', '/books/journal'],
  ['accounts', 'Accounts', '/books/accounts'],
  ['value', 'Value', '/books/value'],
  ['slow', 'Slow goods', '/books/slow'],
  ['margin', 'Margin', '/books/margin'],
] as const;

/** Those that tell what goods cost. */
const OF_COSTS: ReadonlySet<string> = new Set(['journal', 'accounts', 'value', 'slow', 'margin']);

/** The parts of the books. */
export function BooksWords({ at, children }: { at: (typeof WORDS)[number][0]; children?: ReactNode }) {
  const me = useMe();
  const isShown = (part: string) => me.data?.seesCosts === true || !OF_COSTS.has(part);
  return (
    <FilterLine>
      <WordLinks
        label="Books"
        links={WORDS.filter(([part]) => isShown(part)).map(([, says, to]) => ({ to, says }))}
        here={WORDS.find(([key]) => key === at)?.[2]}
      />
      {children}
    </FilterLine>
  );
}
