import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import { inField } from './single-keys';

interface OpenSheet {
  close: () => void;
}
/** Sheets that stand open, the newest last: only that one hears keys. */
const open: OpenSheet[] = [];

/** Opens the row above or below the one that is open in the list. */
function step(by: 1 | -1): boolean {
  const rows = [...document.querySelectorAll<HTMLElement>('.list [data-open]')];
  const at = rows.findIndex((r) => r.getAttribute('aria-selected') === 'true' || r.getAttribute('aria-current') === 'true');
  const next = rows[at + by];
  next?.click();
  next?.scrollIntoView({ block: 'nearest' });
  return next !== undefined;
}

function onKey(e: KeyboardEvent): void {
  if (inField(e)) return;
  if (e.key === 'Escape') open.at(-1)?.close();
  else if ((e.key === 'ArrowDown' || e.key === 'ArrowUp') && step(e.key === 'ArrowDown' ? 1 : -1)) e.preventDefault();
}

/** Escape goes back to the list; up and down step through it. For as long as the record stands open, loaded or not. */
export function useSheetKeys(back: string): void {
  const navigate = useNavigate();
  useEffect(() => {
    const sheet = { close: () => void navigate(back) };
    if (open.length === 0) window.addEventListener('keydown', onKey);
    open.push(sheet);
    return () => {
      open.splice(open.indexOf(sheet), 1);
      if (open.length === 0) window.removeEventListener('keydown', onKey);
    };
  }, [navigate, back]);
}
