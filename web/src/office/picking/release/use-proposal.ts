import { useCallback, useEffect, useRef, useState } from 'react';
import type { Asked, Proposed } from './proposal.worker';

/** Groups orders in a worker and hears of each improvement until it is done or told to stop; what was best by then stays. */
export function useProposal(onBetter: (rounds: number[][]) => void): { busy: boolean; start: (asked: Asked) => void; stop: () => void } {
  const [busy, setBusy] = useState(false);
  const worker = useRef<Worker | null>(null);
  const heard = useRef(onBetter);
  useEffect(() => {
    heard.current = onBetter;
  });
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setBusy(false);
  }, []);
  useEffect(() => stop, [stop]);
  const start = useCallback(
    (asked: Asked) => {
      stop();
      const own = new Worker(new URL('./proposal.worker.ts', import.meta.url), { type: 'module' });
      worker.current = own;
      setBusy(true);
      own.onmessage = ({ data }: MessageEvent<Proposed>) => {
        heard.current(data.rounds);
        if (data.isLast) stop();
      };
      own.onerror = stop;
      own.postMessage(asked);
    },
    [stop],
  );
  return { busy, start, stop };
}
