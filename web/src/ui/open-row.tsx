import type { ReactNode } from 'react';
import { useNavigate } from 'react-router';

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
      onClick={go}
      onKeyDown={(e) => e.key === 'Enter' && go()}
    >
      {children}
    </tr>
  );
}
