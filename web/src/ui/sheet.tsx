import type { ReactNode } from 'react';
import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { Barcode } from './barcode';
import { Glyph } from './glyph';

const typing = (e: KeyboardEvent) => e.target instanceof HTMLElement && e.target.matches('input, textarea, select');

/** A record beside its list. Escape closes it; up and down step through the list while it is open. */
export function Sheet({
  address,
  title,
  about,
  code,
  back,
  print,
  tools,
  children,
}: {
  address: string;
  title: string;
  about?: ReactNode;
  code?: string;
  back: string;
  print?: { href: string; says: string };
  tools?: ReactNode;
  children: ReactNode;
}) {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key === 'Escape' && !typing(e)) void navigate(back);
      if ((e.key === 'ArrowDown' || e.key === 'ArrowUp') && !typing(e)) {
        const links = [...document.querySelectorAll<HTMLElement>('.list [data-open]')];
        const at = links.findIndex((l) => l.getAttribute('aria-selected') === 'true' || l.getAttribute('aria-current') === 'true');
        const next = links[at + (e.key === 'ArrowDown' ? 1 : -1)];
        if (next) {
          e.preventDefault();
          next.click();
          next.scrollIntoView({ block: 'nearest' });
        }
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate, back]);
  return (
    <aside className="sheet" aria-label={title} key={address}>
      <div className="sheet-in">
        <div className="sheet-bar">
          <span>
            <Glyph name="link" /> <span className="code">{address}</span>
          </span>
          <span style={{ marginLeft: 'auto' }} className="flex gap-3">
            {print && (
              <a href={print.href} target="_blank" rel="noreferrer" data-print>
                <Glyph name="print" /> {print.says}
              </a>
            )}
            {tools}
            <button type="button" onClick={() => void navigate(back)}>
              <Glyph name="shut" /> Close
            </button>
          </span>
        </div>
        <div className="sheet-title">
          <h1>{title}</h1>
          {about && (
            <span className="note" style={{ paddingTop: 8 }}>
              {about}
            </span>
          )}
          {code && (
            <span style={{ marginLeft: 'auto' }}>
              <Barcode code={code} />
            </span>
          )}
        </div>
        {children}
      </div>
    </aside>
  );
}

/** Ruled cells, caption over value. */
export function Waybill({ cells, columns }: { cells: { cap: string; value: ReactNode; note?: ReactNode }[]; columns?: string }) {
  return (
    <div className="waybill" style={{ gridTemplateColumns: columns ?? `repeat(${cells.length}, minmax(0, 1fr))` }}>
      {cells.map((c) => (
        <div key={c.cap}>
          <span className="cap">{c.cap}</span>
          <b className="overflow-hidden text-ellipsis">{c.value}</b>
          {c.note && <span className="note overflow-hidden text-ellipsis">{c.note}</span>}
        </div>
      ))}
    </div>
  );
}
