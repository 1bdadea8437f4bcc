import type { ComponentProps, ReactNode } from 'react';
import { useState } from 'react';
import { Link } from 'react-router';
import { whole } from './format';
import { SkeletonLine } from './skeleton-line';
import { useSingleKeys } from './single-keys';

export interface WhyTerm {
  sign: string;
  term: string;
  /** Whole units, or an amount in words. */
  units: number | string;
  documents: string[];
}

/** The number that opens its sum. `W` opens the first on the page. */
export function WhyNumber({
  open,
  onToggle,
  children,
  label,
}: {
  open: boolean;
  onToggle: () => void;
  children: ReactNode;
  label: string;
}) {
  return (
    <button type="button" className="why" aria-expanded={open} onClick={onToggle} data-why title={label}>
      {children}
    </button>
  );
}

/** The number that leads to what it counts. */
export const WhyLink = (props: Omit<ComponentProps<typeof Link>, 'className'>) => <Link {...props} className="why" />;

/** The row beneath a figure in which its sum opens. */
export function SumRow({ columns, children }: { columns: number; children: ReactNode }) {
  return (
    <tr className="sumrow">
      <td colSpan={columns}>{children}</td>
    </tr>
  );
}

/** The opened sum: sign, term, figure, source documents, ink rule, result. */
export function WhySum({ terms, at = 20 }: { terms: WhyTerm[] | undefined; at?: number }) {
  return (
    <div className="sum" style={{ ['--at' as string]: `${at}px` }}>
      {!terms ? (
        <SkeletonLine width={220} />
      ) : (
        <table>
          <tbody>
            {terms.map((t, i) => (
              <tr key={i} className={t.sign === '=' ? 'tot' : ''}>
                <td className="op">{t.sign}</td>
                <td>{t.term}</td>
                <td className="n">{typeof t.units === 'number' ? whole(t.units) : t.units}</td>
                <td>
                  {t.documents.map((d) => (
                    <span key={d} className="code" style={{ marginRight: 10 }}>
                      {d}
                    </span>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

/** Which sum is open, by key; one at a time. */
export function useWhy() {
  const [open, setOpen] = useState<string | null>(null);
  useSingleKeys({ w: () => document.querySelector<HTMLButtonElement>('.sheet [data-why], [data-why]')?.click() });
  return { open, toggle: (key: string) => setOpen((was) => (was === key ? null : key)) };
}
