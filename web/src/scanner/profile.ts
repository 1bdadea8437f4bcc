/** What this device's scanner puts around its codes, as a test card has shown; nothing of it where none was read. */
export interface ScannerProfile {
  /** Keys that it sends for a separator, as `nameOf` names them. */
  separators: readonly string[];
  /** Text before and behind each code. */
  prefix: string;
  suffix: string;
  /** The longest pause between two of its keys, in milliseconds. */
  gapMs: number;
  /** Whether a separator came through, so that its absence means something. */
  separatorsSeen: boolean;
}

export const UNKNOWN_SCANNER: ScannerProfile = { separators: [], prefix: '', suffix: '', gapMs: 0, separatorsSeen: false };
const KEPT = 'vectrum.scanner';

let known: ScannerProfile | undefined;

/** The profile of this device's scanner. */
export function scannerProfile(): ScannerProfile {
  known ??= read();
  return known;
}

function read(): ScannerProfile {
  try {
    const kept: unknown = JSON.parse(window.localStorage.getItem(KEPT) ?? 'null');
    return isProfile(kept) ? kept : UNKNOWN_SCANNER;
  } catch {
    return UNKNOWN_SCANNER;
  }
}

const isProfile = (kept: unknown): kept is ScannerProfile =>
  typeof kept === 'object' &&
  kept !== null &&
  Object.entries(UNKNOWN_SCANNER).every(([name, like]) => typeof (kept as Record<string, unknown>)[name] === typeof like);

/** Keeps what a test card has shown. Two scanners at one device each add their separators. */
export function keepScannerProfile(profile: ScannerProfile | null): void {
  if (profile === null) {
    known = UNKNOWN_SCANNER;
    window.localStorage.removeItem(KEPT);
    return;
  }
  known = { ...profile, separators: [...new Set([...scannerProfile().separators, ...profile.separators])] };
  window.localStorage.setItem(KEPT, JSON.stringify(known));
}
