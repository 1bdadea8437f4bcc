import type { ReactNode } from 'react';
import { Link } from 'react-router';

const WORDS = [
  ['items', 'Items', '/shelves/items'],
  ['places', 'Bins and places', '/shelves/places'],
  ['plan', 'Plan', '/shelves/plan'],
  ['store', 'To put away', '/shelves/to-put-away'],
] as const;

/** The lists of Shelves. */
export function ShelvesWords({ at, children }: { at: (typeof WORDS)[number][0]; children?: ReactNode }) {
  return (
    <div className="filter">
      <nav className="words" aria-label="Shelves">
        {WORDS.map(([key, says, to]) => (
          <Link key={key} to={to} aria-current={key === at ? 'true' : undefined}>
            {says}
          </Link>
        ))}
      </nav>
      {children}
    </div>
  );
}
