import type { ReactNode } from 'react';
import { Barcode } from './barcode';
import { Glyph } from './glyph';
import { useSheetFocus, useSheetKeys } from './sheet-keys';
import { Shown } from './states';

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
  const close = useSheetKeys(back);
  return (
    <Frame label={title} key={address}>
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
          <button type="button" onClick={close}>
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
    </Frame>
  );
}

/** The sheet itself: the keyboard goes to it when it opens. */
function Frame({ label, children }: { label: string; children: ReactNode }) {
  const frame = useSheetFocus();
  return (
    <aside className="sheet" aria-label={label}>
      <div className="sheet-in" ref={frame} tabIndex={-1}>
        {children}
      </div>
    </aside>
  );
}

/** A sheet whose record is read first: its keys work while it loads, and when it cannot be had. */
export function ShownSheet<T>({ back, ...shown }: { back: string } & Parameters<typeof Shown<T>>[0]) {
  const close = useSheetKeys(back);
  if (shown.query.data !== undefined) return <Shown {...shown} />;
  return (
    <Bare says={shown.query.error ? 'This record cannot be had' : 'The record is fetched'} close={close}>
      <Shown {...shown} />
    </Bare>
  );
}

/** The sheet of something that is not there, or not any more. */
export function NotThere({ says, back }: { says: string; back: string }) {
  const close = useSheetKeys(back);
  return (
    <Bare says={says} close={close}>
      <p className="mt-3">{says}</p>
    </Bare>
  );
}

function Bare({ says, close, children }: { says: string; close: () => void; children: ReactNode }) {
  return (
    <Frame label="Record">
      <h1 className="sr">{says}</h1>
      <div className="sheet-bar">
        <button type="button" className="ml-auto" onClick={close}>
          <Glyph name="shut" /> Close
        </button>
      </div>
      {children}
    </Frame>
  );
}

/** Ruled cells, caption over value. */
export function Waybill({ cells, columns }: { cells: { cap: string; value: ReactNode; note?: ReactNode }[]; columns?: string }) {
  return (
    <div className="waybill" style={{ gridTemplateColumns: columns ?? `repeat(auto-fit, minmax(min(100%, 120px), 1fr))` }}>
      {cells.map((c) => (
        <div key={c.cap}>
          <span className="cap">{c.cap}</span>
          <b>{c.value}</b>
          {c.note && <span className="note">{c.note}</span>}
        </div>
      ))}
    </div>
  );
}
