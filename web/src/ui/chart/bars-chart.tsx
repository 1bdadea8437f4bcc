import { BarChart } from 'echarts/charts';
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components';
import { init, use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';

register([BarChart, GridComponent, TooltipComponent, AriaComponent, SVGRenderer]);

export interface ChartBar {
  name: string;
  value: number;
}

const HEIGHT = 190;

/** A figure for each of a few names. What it shows must be said in words, and stand in a table, beside it. */
export default function BarsChart({
  bars,
  label,
  unit = '',
  most,
}: {
  bars: readonly ChartBar[];
  label: string;
  unit?: string;
  most?: number;
}) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!box.current) return undefined;
    const ink = getComputedStyle(box.current);
    const colour = (name: string) => ink.getPropertyValue(name).trim();
    const chart = init(box.current, null, { renderer: 'svg' });
    chart.setOption({
      animation: false,
      aria: { enabled: true, label: { description: label } },
      grid: { left: 44, right: 12, top: 12, bottom: 26 },
      tooltip: { trigger: 'axis', valueFormatter: (v: number) => `${v}${unit}` },
      xAxis: {
        type: 'category',
        data: bars.map((b) => b.name),
        axisLabel: { hideOverlap: true },
        axisLine: { lineStyle: { color: colour('--color-ink') } },
      },
      yAxis: { type: 'value', ...(most === undefined ? {} : { max: most }), splitLine: { lineStyle: { color: colour('--color-rule') } } },
      series: [{ type: 'bar', data: bars.map((b) => b.value), barMaxWidth: 36, itemStyle: { color: colour('--color-ink') } }],
    });
    const watch = new ResizeObserver(() => chart.resize());
    watch.observe(box.current);
    return () => {
      watch.disconnect();
      chart.dispose();
    };
  }, [bars, label, unit, most]);
  return <div ref={box} role="img" aria-label={label} style={{ height: HEIGHT }} />;
}
