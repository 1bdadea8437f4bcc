import type { BoxPlan } from '@vectrum/core/cartons';
import { useEffect, useState } from 'react';
import type { Asked } from './box-plan.worker';

/**
 * Boxes for goods and how these lie in them, worked out beside the page; better answers replace the first. Null until there is one, and
 * where a size is not known.
 */
export function useBoxPlan(asked: Asked): BoxPlan | null {
  const text = JSON.stringify(asked);
  const [plan, setPlan] = useState<{ for: string; plan: BoxPlan | null }>({ for: '', plan: null });
  useEffect(() => {
    const worker = new Worker(new URL('./box-plan.worker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<BoxPlan | null>) => setPlan({ for: text, plan: data });
    worker.postMessage(JSON.parse(text));
    return () => worker.terminate();
  }, [text]);
  return plan.for === text ? plan.plan : null;
}
