import { COLUMN_MM, type Fdi, isUpper, LAYERS, type LayersThrough, type SectionRow } from '@radiant/core';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';
import { LAYER_COLOURS, TOOTH_COLOUR } from './layer-colours.js';

const MARGIN_MM = 0.6;

/** A section from front to back through tooth and layers, to scale; the face looks to the left. */
export function LayerSection({
  section,
  tooth,
  words,
  frame,
}: {
  section: LayersThrough;
  tooth: Fdi;
  words: string;
  /** What all sections of a tooth are drawn in, mm, so that they stand beside each other alike. */
  frame: { readonly from: number; readonly to: number; readonly edge: number; readonly neck: number };
}) {
  const up = isUpper(tooth);
  const at = (z: number) => (up ? -z : z);
  const top = up ? -frame.neck : frame.edge;
  const thickest = [...section.rows]
    .flatMap((r) => r.layers.map((l) => ({ ...l, z: r.z, mm: l.to - l.from })))
    .reduce<{ name: string; mm: number } | undefined>((a, b) => (a && a.mm >= b.mm ? a : b), undefined);
  const line = (of: (r: SectionRow) => number | undefined) => {
    let d = '';
    let pen = false;
    for (const r of section.rows) {
      const v = of(r);
      if (v === undefined) {
        pen = false;
        continue;
      }
      d += `${pen ? 'L' : 'M'}${v.toFixed(2)} ${at(r.z).toFixed(2)}`;
      pen = true;
    }
    return d;
  };
  return (
    <figure className="flex min-h-0 min-w-0 flex-1 flex-col">
      <figcaption className="text-note text-ink-2">{words}</figcaption>
      <svg
        viewBox={`${frame.from - MARGIN_MM} ${top - MARGIN_MM} ${frame.to - frame.from + 2 * MARGIN_MM} ${frame.neck - frame.edge + 2 * MARGIN_MM}`}
        className="min-h-0 w-full flex-1"
        role="img"
        aria-label={`Section ${words}${thickest ? `; thickest is ${LAYERS[thickest.name as keyof typeof LAYERS]}, ${number(thickest.mm, 1)} mm` : ''}`}
      >
        {section.rows.map((r) => (
          <g key={r.z}>
            {r.tooth && (
              <rect
                x={r.tooth.from}
                y={at(r.z) - COLUMN_MM / 2}
                width={r.tooth.to - r.tooth.from}
                height={COLUMN_MM * 1.06}
                fill={TOOTH_COLOUR}
              />
            )}
            {r.layers.map((l) => (
              <rect
                key={l.name}
                x={l.from}
                y={at(r.z) - COLUMN_MM / 2}
                width={l.to - l.from}
                height={COLUMN_MM * 1.06}
                fill={LAYER_COLOURS[l.name]}
              />
            ))}
          </g>
        ))}
        <g fill="none" strokeLinejoin="round">
          <path d={line((r) => r.tooth?.from)} stroke={PALETTE.ink} strokeWidth={0.05} />
          <path d={line((r) => r.tooth?.to)} stroke={PALETTE.ink} strokeWidth={0.05} />
          <path d={line((r) => r.planned?.from)} stroke={PALETTE.plum} strokeWidth={0.08} />
          <path d={line((r) => r.planned?.to)} stroke={PALETTE.plum} strokeWidth={0.08} />
        </g>
        <g stroke={PALETTE.ink2} strokeWidth={0.05}>
          <path d={`M${frame.to - 1} ${top + frame.neck - frame.edge + 0.35}h1m0 -0.12v0.24m-1 -0.24v0.24`} />
        </g>
        <text
          x={frame.to - 0.5}
          y={top + frame.neck - frame.edge + 0.22}
          fontSize={0.42}
          textAnchor="middle"
          fill={PALETTE.ink2}
        >
          1 mm
        </text>
      </svg>
    </figure>
  );
}
