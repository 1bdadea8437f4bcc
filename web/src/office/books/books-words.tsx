import type { ReactNode } from 'react';
import { FilterLine } from '../../ui/page';
import { WordLinks } from '../../ui/word-links';

const WORDS = [
  ['open', 'To invoice', '/books'],
  ['invoices', 'Invoices', '/books/invoices'],
  ['payments', 'Payments', '/books/payments'],
  ['journal', 'Journal', '/books/journal'],
  ['accounts', 'Accounts', '/books/accounts'],
] as const;

/** The parts of the books. */
export function BooksWords({ at, children }: { at: (typeof WORDS)[number][0]; children?: ReactNode }) {
  return (
    <FilterLine>
      <WordLinks label="Books" links={WORDS.map(([, says, to]) => ({ to, says }))} here={WORDS.find(([key]) => key === at)?.[2]} />
      {children}
    </FilterLine>
  );
}
