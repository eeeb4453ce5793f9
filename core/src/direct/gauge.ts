import type { LayerBody } from './layers.js';
import { columnPlace, type Missing } from './missing.js';

/** How far from the planned edge thickness is told, mm. */
export const GAUGED_MM = [0.5, 1, 2, 3, 4] as const;
/** Half the width of the stretch that is looked at about the middle, mm. House value. */
const HALF_MM = 0.5;

/** Thinner than this it is a film, and no layer that a probe tells, mm. House value. */
const FILM_MM = 0.4;

/** What a probe or a formed instrument must show before enamel is laid, at a height in the middle of what is filled. */
export interface Gauged {
  /** From the planned edge towards the gum, mm. */
  readonly fromEdgeMm: number;
  /** From the planned face to the dentin, to the shell, or to the tooth: how deep the probe stands, mm. */
  readonly enamelMm: number;
  /** Of the dentin there, mm; 0 where none is. */
  readonly dentinMm: number;
}

/** The thickness gauge: how much room is left for enamel, how far from the edge. Heights without composite are left out. */
export function gauged(m: Missing, layers: readonly LayerBody[]): Gauged[] {
  const { step } = m.grid;
  const edge = [...m.wants.keys()].reduce((z, c) => Math.min(z, columnPlace(m, c)[1]), Infinity);
  const thickOf = ({ front, behind, whole }: Missing['columns'][number]) =>
    [front, behind, whole].reduce((sum, t) => sum + (t ? t.to - t.from : 0), 0);
  const filled = m.columns.filter((c) => thickOf(c) > FILM_MM);
  const middle = filled.reduce((sum, { column }) => sum + columnPlace(m, column)[0], 0) / Math.max(1, filled.length);
  const of = (name: LayerBody['name']) => layers.find((l) => l.name === name)?.stretches;
  const [enamel, dentin] = [of('enamel'), of('dentin')];
  return GAUGED_MM.flatMap((fromEdgeMm) => {
    const own = m.columns.filter(({ column }) => {
      const [x, z] = columnPlace(m, column);
      return Math.abs(x - middle) <= HALF_MM && Math.abs(z - edge - fromEdgeMm) <= step;
    });
    const thick = (stretches: LayerBody['stretches'] | undefined) =>
      middleOf(own.map(({ column }) => stretches?.get(column)).map((t) => (t ? t.to - t.from : 0)));
    const enamelMm = thick(enamel);
    return enamelMm > 0 ? [{ fromEdgeMm, enamelMm, dentinMm: thick(dentin) }] : [];
  });
}

function middleOf(v: readonly number[]): number {
  const sorted = [...v].sort((a, b) => a - b);
  return sorted[sorted.length >> 1] ?? 0;
}
