import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';

const GATHER_MS = 120;

/**
 * Listens to the server's events: each new line of the tape makes what is shown fresh again. Returns whether the line
 * to the server stands.
 */
export function useLive(): boolean {
  const client = useQueryClient();
  const [up, setUp] = useState(true);
  useEffect(() => {
    let timer: number | undefined;
    const source = new EventSource('/api/live');
    source.onopen = () => setUp(true);
    source.onerror = () => setUp(false);
    source.addEventListener('tape', () => {
      timer ??= window.setTimeout(() => {
        timer = undefined;
        void client.invalidateQueries({
          predicate: (q) => !['codebook', 'me'].includes(String(q.queryKey[0])),
        });
      }, GATHER_MS);
    });
    return () => {
      window.clearTimeout(timer);
      source.close();
    };
  }, [client]);
  return up;
}
