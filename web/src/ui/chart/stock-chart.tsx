import { LineChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import { use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useCallback } from 'react';
import { day } from '../format';
import { type Colour, GRID, HEIGHT, useChart } from './use-chart';

register([LineChart, GridComponent, TooltipComponent, MarkLineComponent, AriaComponent, SVGRenderer]);

export interface StockDay {
  day: string;
  stock: number;
  low: number;
  high: number;
}

/** Stock day by day with the band that nine of ten cases lie in; a second line where something else is asked for. */
export default function StockChart({
  usual,
  other,
  point,
  label,
}: {
  usual: readonly StockDay[];
  /** As it would be otherwise; null where nothing else was asked. */
  other: readonly StockDay[] | null;
  /** The point to order at; null where there is none. */
  point: number | null;
  label: string;
}) {
  const option = useCallback(
    (colour: Colour) => {
      const line = { type: 'line', symbol: 'none' };
      const shown = other ?? usual;
      return {
        aria: { enabled: true, label: { description: label } },
        grid: GRID,
        tooltip: { trigger: 'axis', valueFormatter: (v: number) => String(Math.round(v)) },
        xAxis: {
          type: 'category',
          data: usual.map((d) => day(d.day)),
          axisLabel: { hideOverlap: true },
          axisLine: { lineStyle: { color: colour('--color-ink') } },
        },
        yAxis: { type: 'value', minInterval: 1, splitLine: { lineStyle: { color: colour('--color-rule') } } },
        series: [
          { ...line, name: 'at least', stack: 'band', data: shown.map((d) => d.low), lineStyle: { opacity: 0 } },
          {
            ...line,
            name: 'band',
            stack: 'band',
            data: shown.map((d) => d.high - d.low),
            lineStyle: { opacity: 0 },
            areaStyle: { color: colour('--color-shade') },
            tooltip: { show: false },
          },
          {
            ...line,
            name: other ? 'as it is' : 'stock',
            data: usual.map((d) => d.stock),
            lineStyle: {
              color: colour(other ? '--color-ink-3' : '--color-ink'),
              width: other ? 1.5 : 2.5,
              type: other ? 'dashed' : 'solid',
            },
            ...(point === null
              ? {}
              : {
                  markLine: {
                    silent: true,
                    symbol: 'none',
                    label: { formatter: 'order at', position: 'insideEndTop' },
                    lineStyle: { color: colour('--color-ink-3'), type: 'dotted', width: 1 },
                    data: [{ yAxis: point }],
                  },
                }),
          },
          ...(other
            ? [{ ...line, name: 'what if', data: other.map((d) => d.stock), lineStyle: { color: colour('--color-ink'), width: 2.5 } }]
            : []),
        ],
      };
    },
    [usual, other, point, label],
  );
  const box = useChart(option);
  return <div ref={box} role="img" aria-label={label} style={{ height: HEIGHT }} />;
}
