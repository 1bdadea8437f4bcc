import { useEffect, useRef } from 'react';

type Taker = (code: string) => void;

/** Pages that want scans for themselves, the newest first; without any, a scan opens the record of its code. */
const takers: Taker[] = [];

export const claimedBy = (): Taker | undefined => takers.at(-1);

/** Takes scans for as long as the page stands, in the place of the field at the top. */
export function useScanClaim(onScan: Taker): void {
  const handler = useRef(onScan);
  useEffect(() => {
    handler.current = onScan;
  });
  useEffect(() => {
    const taker: Taker = (code) => handler.current(code);
    takers.push(taker);
    return () => {
      takers.splice(takers.indexOf(taker), 1);
    };
  }, []);
}
