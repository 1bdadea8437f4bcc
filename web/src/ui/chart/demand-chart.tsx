import { BarChart, LineChart } from 'echarts/charts';
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components';
import { use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useCallback } from 'react';
import { day } from '../format';
import { type Colour, GRID, HEIGHT, useChart } from './use-chart';

register([BarChart, LineChart, GridComponent, TooltipComponent, AriaComponent, SVGRenderer]);

export interface PastWeek {
  monday: string;
  units: number;
}
export interface ComingWeek {
  monday: string;
  mean: number;
  low: number;
  high: number;
}

/** Weeks that were, as bars; weeks to come, as a line with the band that nine of ten lie in. It stands beside its sentence and its table. */
export default function DemandChart({ past, coming, label }: { past: readonly PastWeek[]; coming: readonly ComingWeek[]; label: string }) {
  const option = useCallback(
    (colour: Colour) => {
      const before = past.map(() => null);
      const line = { type: 'line', symbol: 'none' };
      return {
        aria: { enabled: true, label: { description: label } },
        grid: GRID,
        tooltip: { trigger: 'axis', valueFormatter: (v: number | null) => (v === null ? '' : String(Math.round(v))) },
        xAxis: {
          type: 'category',
          data: [...past, ...coming].map((w) => day(w.monday)),
          axisLabel: { hideOverlap: true },
          axisLine: { lineStyle: { color: colour('--color-ink') } },
        },
        yAxis: { type: 'value', minInterval: 1, splitLine: { lineStyle: { color: colour('--color-rule') } } },
        series: [
          {
            name: 'asked for',
            type: 'bar',
            data: past.map((w) => w.units),
            itemStyle: { color: colour('--color-ink-2') },
            barCategoryGap: '20%',
          },
          // The band is the room between two lines: the lower is not seen, the upper stands on it.
          { ...line, name: 'at least', stack: 'band', data: [...before, ...coming.map((w) => w.low)], lineStyle: { opacity: 0 } },
          {
            ...line,
            name: 'band',
            stack: 'band',
            data: [...before, ...coming.map((w) => w.high - w.low)],
            lineStyle: { opacity: 0 },
            areaStyle: { color: colour('--color-shade') },
            tooltip: { show: false },
          },
          {
            ...line,
            name: 'expected',
            data: [...before, ...coming.map((w) => w.mean)],
            lineStyle: { color: colour('--color-ink'), width: 2.5 },
          },
        ],
      };
    },
    [past, coming, label],
  );
  const box = useChart(option);
  return <div ref={box} role="img" aria-label={label} style={{ height: HEIGHT }} />;
}
