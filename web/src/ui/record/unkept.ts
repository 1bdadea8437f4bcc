import { useEffect, useRef } from 'react';

/** What was typed into a form and not kept, with what the form began from. */
export interface Draft {
  version: number | undefined;
  base: Record<string, unknown>;
  typed: Record<string, unknown>;
}

const STORE = 'vectrum.draft:';
const WRITER = 'vectrum.writer';
const open = new Set<() => boolean>();

/** Whether a form stands open with something that is not kept. */
export const anythingUnkept = (): boolean => [...open].some((isUnkept) => isUnkept());

/** A form that can be left half-written; `isUnkept` is asked when somebody is about to go. */
export function useUnkept(isUnkept: () => boolean): void {
  const asked = useRef(isUnkept);
  useEffect(() => {
    asked.current = isUnkept;
  });
  useEffect(() => {
    const mine = () => asked.current();
    open.add(mine);
    return () => void open.delete(mine);
  }, []);
}

/** What was written under an address in this tab before it was loaded anew. */
export function draftAt(address: string): Draft | null {
  try {
    return JSON.parse(window.sessionStorage.getItem(STORE + address) ?? 'null') as Draft | null;
  } catch {
    return null;
  }
}

/** Keeps what is being written for a reload of this tab; null forgets it. A full store keeps nothing, and harms nothing. */
export function keepDraftAt(address: string, draft: Draft | null): void {
  try {
    if (draft === null) window.sessionStorage.removeItem(STORE + address);
    else window.sessionStorage.setItem(STORE + address, JSON.stringify(draft));
  } catch {
    // The form itself still has it.
  }
}

/** Says who writes in this tab: what another person had written is forgotten. */
export function draftsAreOf(personId: number): void {
  const of = window.sessionStorage.getItem(WRITER);
  if (of === String(personId)) return;
  if (of !== null) forgetDrafts();
  window.sessionStorage.setItem(WRITER, String(personId));
}

/** Forgets everything half-written in this tab: whoever comes next shall not see it. */
export function forgetDrafts(): void {
  for (const name of Object.keys(window.sessionStorage)) if (name.startsWith(STORE)) window.sessionStorage.removeItem(name);
}
