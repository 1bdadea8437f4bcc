const STORE = 'vectrum.unsent:';

interface Unsent {
  person: number;
  value: unknown;
}

/** What a person has chosen under a name in this tab and the server has not acknowledged; undefined where that is nothing. */
export function unsentAt(name: string, person: number): unknown {
  try {
    const kept = JSON.parse(window.sessionStorage.getItem(STORE + name) ?? 'null') as Unsent | null;
    return kept?.person === person ? kept.value : undefined;
  } catch {
    return undefined;
  }
}

/** Keeps a choice until the server has it, so that loading the page anew meanwhile undoes nothing. */
export function keepUnsent(name: string, person: number, value: unknown): void {
  try {
    window.sessionStorage.setItem(STORE + name, JSON.stringify({ person, value } satisfies Unsent));
  } catch {
    // A full store: it is sent all the same.
  }
}

/** The server has a choice: it is forgotten here, unless another was made since. */
export function wasSent(name: string, person: number, value: unknown): void {
  if (JSON.stringify(unsentAt(name, person)) === JSON.stringify(value)) window.sessionStorage.removeItem(STORE + name);
}
