import { BarChart } from 'echarts/charts';
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components';
import { use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useCallback } from 'react';
import { type Colour, GRID, HEIGHT, useChart } from './use-chart';

register([BarChart, GridComponent, TooltipComponent, AriaComponent, SVGRenderer]);

export interface ChartBar {
  name: string;
  value: number;
}

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
  const option = useCallback(
    (colour: Colour) => ({
      aria: { enabled: true, label: { description: label } },
      grid: GRID,
      tooltip: { trigger: 'axis', valueFormatter: (v: number) => `${v}${unit}` },
      xAxis: {
        type: 'category',
        data: bars.map((b) => b.name),
        axisLabel: { hideOverlap: true },
        axisLine: { lineStyle: { color: colour('--color-ink') } },
      },
      yAxis: { type: 'value', ...(most === undefined ? {} : { max: most }), splitLine: { lineStyle: { color: colour('--color-rule') } } },
      series: [{ type: 'bar', data: bars.map((b) => b.value), barMaxWidth: 36, itemStyle: { color: colour('--color-ink') } }],
    }),
    [bars, label, unit, most],
  );
  const box = useChart(option);
  return <div ref={box} role="img" aria-label={label} style={{ height: HEIGHT }} />;
}
