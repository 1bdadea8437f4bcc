import { useCallback, useEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { inField } from './single-keys';

interface OpenSheet {
  close: () => void;
}
/** Sheets that stand open, the newest last: only that one hears keys. */
const open: OpenSheet[] = [];
/** The row that a sheet was closed to, until the list has the room again. */
let backTo: HTMLElement | null = null;

const rows = () => [...document.querySelectorAll<HTMLElement>('.list [data-open]')];
const isOpen = (row: HTMLElement) => row.getAttribute('aria-selected') === 'true' || row.getAttribute('aria-current') === 'true';

/** Opens the row above or below the one that is open in the list. */
function step(by: 1 | -1): boolean {
  const all = rows();
  const next = all[all.findIndex(isOpen) + by];
  next?.click();
  next?.scrollIntoView({ block: 'nearest' });
  return next !== undefined;
}

function onKey(e: KeyboardEvent): void {
  // What lies above the sheet, a menu or a list of choices, hears it first.
  if (e.defaultPrevented) return;
  if (e.key === 'Escape' && inField(e) && e.target instanceof HTMLElement) e.target.closest<HTMLElement>('.sheet-in')?.focus();
  else if (inField(e)) return;
  else if (e.key === 'Escape') open.at(-1)?.close();
  else if ((e.key === 'ArrowDown' || e.key === 'ArrowUp') && step(e.key === 'ArrowDown' ? 1 : -1)) e.preventDefault();
}

/** Puts the keyboard where the closed sheet was opened from: on its row, or on the list where the row is gone. */
function goBack(): void {
  const row = backTo;
  backTo = null;
  if (open.length > 0 || !row) return;
  const inside = row.matches('[tabindex]') ? row : row.querySelector<HTMLElement>('a, [role="gridcell"]');
  const target = row.isConnected && inside ? inside : document.querySelector<HTMLElement>('.list');
  target?.focus({ preventScroll: true });
  row.scrollIntoView({ block: 'nearest' });
}

/**
 * Escape goes back to the list and to the row that is open; up and down step through it. For as long as the record stands open, loaded
 * or not. Returns what closes it.
 */
export function useSheetKeys(back: string): () => void {
  const navigate = useNavigate();
  const close = useCallback(() => {
    backTo = rows().find(isOpen) ?? document.querySelector<HTMLElement>('.list');
    void navigate(back);
  }, [navigate, back]);
  useEffect(() => {
    const sheet = { close };
    if (open.length === 0) window.addEventListener('keydown', onKey);
    open.push(sheet);
    return () => {
      open.splice(open.indexOf(sheet), 1);
      if (open.length === 0) window.removeEventListener('keydown', onKey);
      if (backTo) window.setTimeout(goBack);
    };
  }, [close]);
  return close;
}

/** Whether a sheet gives way to another one at this moment. */
let isReplaced = false;

/**
 * Takes the keyboard to a sheet when it opens from the list. Where one follows another, the keyboard stays where it was: in the list, or
 * in the sheet; and what is in a field, or at something outside the list, is left there.
 */
export function useSheetFocus(): React.RefObject<HTMLDivElement | null> {
  const sheet = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const at = document.activeElement;
    if (!at || at === document.body || (!isReplaced && at.closest('.list [data-open]'))) sheet.current?.focus({ preventScroll: true });
    return () => {
      isReplaced = true;
      window.setTimeout(() => (isReplaced = false));
    };
  }, []);
  return sheet;
}
