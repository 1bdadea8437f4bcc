import { LineChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { init, use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import { day } from '../format';

register([LineChart, GridComponent, TooltipComponent, MarkLineComponent, AriaComponent, SVGRenderer]);

export interface ChartStep {
  at: number;
  units: number;
}

const HEIGHT = 190;

/** A figure that changes in steps over time. What it shows must be said in words, and stand in a table, beside it. */
export default function StepsChart({ steps, until, label }: { steps: readonly ChartStep[]; until: number; label: string }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!box.current) return undefined;
    const ink = getComputedStyle(box.current);
    const colour = (name: string) => ink.getPropertyValue(name).trim();
    const chart = init(box.current, null, { renderer: 'svg' });
    const last = steps.at(-1);
    const points = [...steps, ...(last ? [{ at: until, units: last.units }] : [])].map((s) => [s.at, s.units]);
    chart.setOption({
      animation: false,
      aria: { enabled: true, label: { description: label } },
      grid: { left: 44, right: 12, top: 12, bottom: 26 },
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
          data: points,
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
    });
    const watch = new ResizeObserver(() => chart.resize());
    watch.observe(box.current);
    return () => {
      watch.disconnect();
      chart.dispose();
    };
  }, [steps, until, label]);
  return <div ref={box} role="img" aria-label={label} style={{ height: HEIGHT }} />;
}
