import type { DirectTold } from '@radiant/core';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';
import { LAYER_COLOURS, TOOTH_COLOUR } from './layer-colours.js';

const MARGIN_MM = 0.8;

/** A worn edge from above: the worn face, the dentin in it that is troughed, and the walls that stay. */
export function EdgeMap({ worn }: { worn: NonNullable<DirectTold['worn']> }) {
  const { rows } = worn;
  const [first, last] = [rows[0], rows.at(-1)];
  if (!first || !last) return null;
  const from = rows.reduce((a, r) => Math.min(a, r.facet.from), Infinity);
  const to = rows.reduce((a, r) => Math.max(a, r.facet.to), -Infinity);
  const step = rows.length > 1 ? (last.y - first.y) / (rows.length - 1) : 0.1;
  const stripes = (of: (r: (typeof rows)[number]) => { from: number; to: number } | undefined, fill: string) =>
    rows.flatMap((r) => {
      const s = of(r);
      return s
        ? [<rect key={r.y} x={s.from} y={r.y - step / 2} width={s.to - s.from} height={step * 1.4} fill={fill} />]
        : [];
    });
  return (
    <figure className="mt-1 mb-3">
      <figcaption className="mb-1 text-note text-ink-2">
        The worn edge from above, facial up
        {worn.wallMm === undefined
          ? ': walls of this thickness leave no dentin to trough.'
          : `: dark is the dentin that is troughed${worn.marked ? ' as it is marked; the thinnest wall has' : ', within walls of'} ${number(worn.wallMm, 1)} mm.`}
      </figcaption>
      <svg
        viewBox={`${from - MARGIN_MM} ${first.y - MARGIN_MM} ${to - from + 2 * MARGIN_MM} ${last.y - first.y + 2 * MARGIN_MM}`}
        className="w-full rounded-lg bg-bench"
        role="img"
        aria-label={`Worn edge from above: ${number(worn.facetMm2, 1)} mm² worn, ${number(worn.islandMm2, 1)} mm² of it dentin within the walls`}
      >
        {stripes((r) => r.facet, TOOTH_COLOUR)}
        {stripes((r) => r.island, LAYER_COLOURS['dentin-behind'])}
        <path
          d={`M${to - 1} ${last.y + 0.45}h1m0 -0.1v0.2m-1 -0.2v0.2`}
          stroke={PALETTE.leaf}
          strokeWidth={0.04}
          fill="none"
        />
        <text x={to - 0.5} y={last.y + 0.36} fontSize={0.3} textAnchor="middle" fill={PALETTE.leaf}>
          1 mm
        </text>
      </svg>
    </figure>
  );
}
