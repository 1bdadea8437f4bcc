import { LineChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useCallback } from 'react';
import { day } from '../format';
import { type Colour, GRID, HEIGHT, useChart } from './use-chart';

register([LineChart, GridComponent, TooltipComponent, MarkLineComponent, AriaComponent, SVGRenderer]);

export interface ChartStep {
  at: number;
  units: number;
}

/** A figure that changes in steps over time. What it shows must be said in words, and stand in a table, beside it. */
export default function StepsChart({ steps, until, label }: { steps: readonly ChartStep[]; until: number; label: string }) {
  const option = useCallback(
    (colour: Colour) => {
      const last = steps.at(-1);
      return {
        aria: { enabled: true, label: { description: label } },
        grid: GRID,
        tooltip: { trigger: 'axis', valueFormatter: (v: number) => `${v} may be promised` },
        xAxis: {
          type: 'time',
          axisLabel: { formatter: (at: number) => day(new Date(at)), hideOverlap: true },
          axisLine: { lineStyle: { color: colour('--color-ink') } },
        },
        yAxis: { type: 'value', minInterval: 1, splitLine: { lineStyle: { color: colour('--color-rule') } } },
        series: [
          {
            type: 'line',
            step: 'end',
            symbol: 'circle',
            symbolSize: 6,
            data: [...steps, ...(last ? [{ at: until, units: last.units }] : [])].map((s) => [s.at, s.units]),
            lineStyle: { color: colour('--color-ink'), width: 2.5 },
            itemStyle: { color: colour('--color-ink') },
            areaStyle: { color: colour('--color-shade') },
            markLine: {
              silent: true,
              symbol: 'none',
              label: { show: false },
              lineStyle: { color: colour('--color-ink'), type: 'solid', width: 1 },
              data: [{ yAxis: 0 }],
            },
          },
        ],
      };
    },
    [steps, until, label],
  );
  const box = useChart(option);
  return <div ref={box} role="img" aria-label={label} style={{ height: HEIGHT }} />;
}
