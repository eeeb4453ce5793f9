import { LIVING, type Proposal, type RatioNorms, type ToothMeasure } from '@radiant/core';
import type { CustomSeriesRenderItemAPI } from 'echarts';
import { CustomChart, ScatterChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import { useToothLabel } from '../../data/case-context.js';
import { PALETTE } from '../../ui/palette.js';

echarts.use([ScatterChart, CustomChart, GridComponent, CanvasRenderer]);

/** Width over length of each tooth: as it is, as proposed, and the norm's band. */
export default function RatioChart({
  proposal,
  measures,
  model,
}: {
  proposal: Proposal;
  measures: readonly ToothMeasure[];
  /** The crowns that the school takes for its model. */
  model: RatioNorms;
}) {
  const box = useRef<HTMLDivElement>(null);
  const name = useToothLabel();
  useEffect(() => {
    if (!box.current) return;
    const chart = echarts.init(box.current);
    const watch = new ResizeObserver(() => chart.resize());
    watch.observe(box.current);
    const names = proposal.targets.map((t) => name(t.tooth));
    const ratioOf = (tooth: number) => measures.find((m) => m.tooth === tooth)?.ratio;
    const font = { fontFamily: 'Source Sans 3 Variable', fontSize: 12, color: PALETTE.ink2 };
    const drawn = proposal.targets.flatMap((t) => {
      const is = ratioOf(t.tooth);
      const { value, band } = LIVING.of[t.role];
      return [t.ratio.value, value - band, value + band, ...(is ? [is.value - is.pm, is.value + is.pm] : [])];
    });
    const reach = {
      min: 10 * Math.floor((Math.min(60, ...drawn) - 2) / 10),
      max: 10 * Math.ceil((Math.max(100, ...drawn) + 2) / 10),
    };
    chart.setOption({
      animation: false,
      grid: { left: 38, right: 6, top: 8, bottom: 22 },
      xAxis: {
        type: 'category',
        data: names,
        axisTick: { show: false },
        axisLine: { lineStyle: { color: PALETTE.hair } },
        axisLabel: font,
      },
      yAxis: {
        type: 'value',
        // Everything that is drawn lies within: a narrow tooth and one that is broader than long, with their errors.
        ...reach,
        interval: 10,
        axisLabel: { ...font, formatter: '{value} %' },
        splitLine: { lineStyle: { color: '#e9e5dd' } },
      },
      series: [
        {
          type: 'custom',
          silent: true,
          data: proposal.targets.map((t, i) => {
            const n = LIVING.of[t.role];
            return [i, n.value - n.band, n.value + n.band];
          }),
          renderItem: (_: unknown, api: CustomSeriesRenderItemAPI) => {
            const [x, top] = api.coord([api.value(0), api.value(2)]) as [number, number];
            const [, bottom] = api.coord([api.value(0), api.value(1)]) as [number, number];
            return {
              type: 'rect',
              shape: { x: x - 13, y: top, width: 26, height: bottom - top },
              style: { fill: '#e6e1d7' },
            };
          },
        },
        {
          type: 'custom',
          silent: true,
          data: proposal.targets.flatMap((t, i) => {
            const r = ratioOf(t.tooth);
            return r ? [[i, r.value - r.pm, r.value + r.pm]] : [];
          }),
          renderItem: (_: unknown, api: CustomSeriesRenderItemAPI) => {
            const [x, top] = api.coord([api.value(0), api.value(2)]) as [number, number];
            const [, bottom] = api.coord([api.value(0), api.value(1)]) as [number, number];
            return {
              type: 'line',
              shape: { x1: x - 4, y1: top, x2: x - 4, y2: bottom },
              style: { stroke: PALETTE.ink, lineWidth: 1 },
            };
          },
        },
        {
          type: 'custom',
          silent: true,
          data: model === LIVING ? [] : proposal.targets.map((t, i) => [i, model.of[t.role].value]),
          renderItem: (_: unknown, api: CustomSeriesRenderItemAPI) => {
            const [x, y] = api.coord([api.value(0), api.value(1)]) as [number, number];
            return {
              type: 'line',
              shape: { x1: x - 13, y1: y, x2: x + 13, y2: y },
              style: { stroke: PALETTE.plum, lineWidth: 1, lineDash: [4, 3] },
            };
          },
        },
        {
          type: 'scatter',
          silent: true,
          symbolSize: 7,
          symbolOffset: [-4, 0],
          itemStyle: { color: PALETTE.ink },
          data: proposal.targets.flatMap((t, i) => {
            const r = ratioOf(t.tooth);
            return r ? [[i, r.value]] : [];
          }),
        },
        {
          type: 'scatter',
          silent: true,
          symbol: 'diamond',
          symbolSize: 11,
          symbolOffset: [5, 0],
          itemStyle: { color: PALETTE.plum },
          data: proposal.targets.map((t, i) => [i, t.ratio.value]),
        },
      ],
    });
    return () => {
      watch.disconnect();
      chart.dispose();
    };
  }, [proposal, measures, model, name]);
  return (
    <figure>
      <figcaption className="text-note text-ink-2">
        w / l: <span className="text-ink">● is, ±</span> · <span className="text-plum">◆ proposed</span> · band:{' '}
        {LIVING.words}
        {model !== LIVING && <span className="text-plum"> · dashes: {model.words}</span>}
      </figcaption>
      <div
        ref={box}
        className="h-[190px]"
        role="img"
        aria-label="Width over length of each tooth, as it is and as proposed, with the band of living crowns"
      />
    </figure>
  );
}
