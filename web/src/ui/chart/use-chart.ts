import { init, type EChartsCoreOption } from 'echarts/core';
import { type RefObject, useEffect, useRef } from 'react';

/** A colour of the page that the chart stands on, by its token. */
export type Colour = (token: string) => string;

/**
 * A chart that fills its box, drawn anew when `option` is another, and as wide as the box whenever that changes. What it shows must be
 * said in words, and stand in a table, beside it. `option` must be kept (useCallback), since each new one draws.
 */
export function useChart(option: (colour: Colour) => EChartsCoreOption): RefObject<HTMLDivElement | null> {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!box.current) return undefined;
    const ink = getComputedStyle(box.current);
    const chart = init(box.current, null, { renderer: 'svg' });
    chart.setOption({
      animation: false,
      textStyle: { fontFamily: ink.fontFamily },
      ...option((token) => ink.getPropertyValue(token).trim()),
    });
    const watch = new ResizeObserver(() => chart.resize());
    watch.observe(box.current);
    return () => {
      watch.disconnect();
      chart.dispose();
    };
  }, [option]);
  return box;
}

/** The room around a chart's axes. */
export const GRID = { left: 44, right: 12, top: 12, bottom: 26 } as const;
/** How high a chart is, in pixels. */
export const HEIGHT = 190;
