import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { classes } from './classes';

/** A row of a list that opens its record by click or Enter; `data-open` lets the sheet step through them. */
export function OpenRow({ to, open, soft, children }: { to: string; open: boolean; soft?: boolean; children: ReactNode }) {
  const navigate = useNavigate();
  const go = () => void navigate(to);
  return (
    <tr
      data-open
      tabIndex={0}
      aria-selected={open}
      className={soft ? 'soft' : undefined}
      onClick={(e) => {
        // A link or a key within it does what it says.
        if (!(e.target as Element).closest('a, button')) go();
      }}
      onKeyDown={(e) => e.key === 'Enter' && e.target === e.currentTarget && go()}
    >
      {children}
    </tr>
  );
}

/** The same for a list whose rows are of several lines: the link within it is what the keyboard reaches. */
export function OpenItem({ to, open, className = '', children }: { to: string; open: boolean; className?: string; children: ReactNode }) {
  const navigate = useNavigate();
  return (
    <li
      className={classes('po-row', className)}
      aria-current={open ? 'true' : undefined}
      data-open
      onClick={(e) => {
        // A link within it goes where it says.
        if (!(e.target as Element).closest('a')) void navigate(to);
      }}
    >
      {children}
    </li>
  );
}
