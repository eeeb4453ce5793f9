import { THICKNESSES, type ThirdMatch, VISIBLE } from '@radiant/core';
import { LineChart } from 'echarts/charts';
import { GridComponent, MarkAreaComponent, MarkLineComponent, MarkPointComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import { PALETTE } from '../../ui/palette.js';

echarts.use([LineChart, GridComponent, MarkAreaComponent, MarkLineComponent, MarkPointComponent, CanvasRenderer]);

/** Differences are drawn up to here at most, and at least to there, ΔE00. */
const DRAWN = { least: 4, most: 12 } as const;

/** Stand for the line of what is tried, and for that of cutting deeper. */
const TRIED = 'tried';
const DEEPER = 'deeper';

/** The chosen ceramic made thicker by cutting for it: the stump changes with every tenth; where it turns is marked. */
function deeperLine({ deeper }: ThirdMatch, top: number) {
  const own = deeper?.middle;
  const at = own?.turnsAt;
  return {
    id: DEEPER,
    type: 'line' as const,
    silent: true,
    showSymbol: false,
    z: 4,
    lineStyle: { color: PALETTE.plum, width: 1.5, type: 'dashed' as const },
    data: own?.curve.map((p) => [p.ceramicMm, Math.min(top, p.dE)]) ?? [],
    ...(at && {
      markPoint: {
        silent: true,
        symbol: 'circle',
        symbolSize: 9,
        itemStyle: { color: PALETTE.stop },
        label: { formatter: 'turns', position: 'top', color: PALETTE.ink2 },
        data: [{ coord: [at.ceramicMm, Math.min(top, at.dE)] }],
      },
    }),
  };
}

/** How far each ceramic is from the wanted colour over its thickness; the chosen one stands out. */
export default function ThicknessChart({
  match,
  chosen,
  tried,
}: {
  match: ThirdMatch;
  chosen: string;
  /** A thickness that is looked at beside the planned one, mm. */
  tried: number | undefined;
}) {
  const box = useRef<HTMLDivElement>(null);
  const drawn = useRef<echarts.ECharts>(undefined);
  useEffect(() => {
    if (!box.current) return;
    const chart = echarts.init(box.current);
    drawn.current = chart;
    const watch = new ResizeObserver(() => chart.resize());
    watch.observe(box.current);
    const { least, most } = DRAWN;
    const worst = Math.max(...match.candidates.flatMap((c) => c.curve.map((p) => p.dE)));
    const top = Math.min(most, Math.max(least, 2 * Math.ceil(worst / 2)));
    const font = { fontFamily: 'Source Sans 3 Variable', fontSize: 12, color: PALETTE.ink2 };
    chart.setOption({
      animation: false,
      grid: { left: 44, right: 16, top: 26, bottom: 40 },
      xAxis: {
        type: 'value',
        min: THICKNESSES[0],
        max: THICKNESSES.at(-1),
        interval: 0.2,
        name: 'thickness of the ceramic, mm',
        nameLocation: 'middle',
        nameGap: 26,
        nameTextStyle: font,
        axisLabel: { ...font, formatter: (v: number) => v.toFixed(1) },
        splitLine: { show: false },
        axisLine: { lineStyle: { color: PALETTE.hair } },
      },
      yAxis: {
        type: 'value',
        min: 0,
        max: top,
        interval: top > 6 ? 2 : 1,
        axisLabel: font,
        splitLine: { lineStyle: { color: '#e9e5dd' } },
      },
      series: [TRIED, DEEPER, ...match.candidates].map((c) => {
        if (c === DEEPER) return deeperLine(match, top);
        if (typeof c === 'string') return { id: 'tried', type: 'line', silent: true, data: [] };
        const own = c.ceramic === chosen;
        return {
          type: 'line',
          silent: true,
          showSymbol: false,
          smooth: false,
          z: own ? 3 : 2,
          lineStyle: { color: own ? PALETTE.plum : '#b9b3a8', width: own ? 2.5 : 1 },
          data: c.curve.map((p) => [p.mm, Math.min(top, p.dE)]),
          ...(own && {
            markArea: {
              silent: true,
              itemStyle: { color: '#e3ecf4' },
              data: [[{ yAxis: 0 }, { yAxis: VISIBLE.notTaken }]],
            },
            markLine: {
              silent: true,
              symbol: 'none',
              label: { ...font, formatter: 'as planned', position: 'end' },
              lineStyle: { color: PALETTE.plum, type: 'dashed', width: 1 },
              data: [{ xAxis: match.ceramicMm }],
            },
          }),
        };
      }),
    });
    return () => {
      watch.disconnect();
      drawn.current = undefined;
      chart.dispose();
    };
  }, [match, chosen]);
  // What is tried is one line more: nothing else is drawn anew while a hand moves it.
  // biome-ignore lint/correctness/useExhaustiveDependencies: a chart drawn anew has lost the line
  useEffect(() => {
    drawn.current?.setOption({
      series: [
        {
          id: 'tried',
          markLine: {
            silent: true,
            symbol: 'none',
            animation: false,
            label: { show: false },
            lineStyle: { color: PALETTE.ink, type: 'solid', width: 1.5 },
            data: tried === undefined ? [] : [{ xAxis: tried }],
          },
        },
      ],
    });
  }, [tried, match, chosen]);
  return (
    <div
      ref={box}
      role="img"
      aria-label={match.candidates
        .map((c) => `${c.name}: ${c.planned.dE.toFixed(1)} at ${c.planned.mm.toFixed(2)} mm`)
        .join('; ')}
      className="h-full w-full"
    />
  );
}
