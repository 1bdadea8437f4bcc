import { createContext, useContext, useEffect } from 'react';
import type { How } from '@vectrum/core/scan';

export type ScanHandler = (code: string, how: How) => void;

/** The shell catches scans and hands them to the page that is open. */
export const ScanContext = createContext<{ set: (handler: ScanHandler | null) => void; scan: ScanHandler }>({
  set: () => undefined,
  scan: () => undefined,
});

export function usePageScan(handler: ScanHandler): void {
  const { set } = useContext(ScanContext);
  useEffect(() => {
    set(handler);
    return () => set(null);
  }, [handler, set]);
}
