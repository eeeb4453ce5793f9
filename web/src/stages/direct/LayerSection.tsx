import { COLUMN_MM, type Fdi, isUpper, type LayersThrough, layerWords, type SectionRow } from '@radiant/core';
import { number } from '../../ui/format.js';
import { PALETTE } from '../../ui/palette.js';
import { CORE_COLOUR, LAYER_COLOURS, TOOTH_COLOUR } from './layer-colours.js';

const MARGIN_MM = 0.9;
/** Dimensions stand so far from the edge, mm; thinner than a film none is written. */
const DIMENSIONED_MM = [1, 2.5] as const;
const FILM_MM = 0.12;

/** What is dimensioned: enamel in front and the shell behind, at two heights. */
const dimensions = (rows: readonly SectionRow[], edge: number) =>
  DIMENSIONED_MM.flatMap((mm) => {
    const z = edge + mm;
    const row = rows.find((r) => Math.abs(r.z - z) <= COLUMN_MM / 2 + 1e-6);
    return (row?.layers ?? [])
      .filter((l) => (l.name === 'enamel' || l.name === 'shell') && l.to - l.from > FILM_MM)
      .map((l) => ({ ...l, z }));
  });

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
    .reduce<{ name: SectionRow['layers'][number]['name']; mm: number } | undefined>(
      (a, b) => (a && a.mm >= b.mm ? a : b),
      undefined,
    );
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
        aria-label={`Section ${words}${thickest ? `; thickest is ${layerWords(thickest.name)}, ${number(thickest.mm, 1)} mm` : ''}`}
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
                fill={l.name === 'core' ? CORE_COLOUR : LAYER_COLOURS[l.name]}
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
        {dimensions(section.rows, frame.edge).map((d) => (
          <g key={`${d.z} ${d.name}`}>
            <path
              d={`M${d.from} ${at(d.z)}H${d.to}M${d.from} ${at(d.z) - 0.12}v0.24M${d.to} ${at(d.z) - 0.12}v0.24`}
              stroke={PALETTE.ink}
              strokeWidth={0.035}
            />
            <text
              x={d.name === 'shell' ? d.to + 0.15 : d.from - 0.15}
              y={at(d.z) + 0.14}
              fontSize={0.4}
              textAnchor={d.name === 'shell' ? 'start' : 'end'}
              fill={PALETTE.ink}
            >
              {number(d.to - d.from, 2)}
            </text>
          </g>
        ))}
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
