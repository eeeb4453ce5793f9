import { COMMON_PRACTICE, type Source } from '../working/working.js';
import type { Design, RestorationKind } from './design.js';
import { withThickness } from './own-thickness.js';

/** What a restoration is made of, and the least thickness in which it is made, mm: over face, sides and back, and at the edge. */
export interface Material {
  readonly id: string;
  readonly name: string;
  readonly least: Partial<Readonly<Record<RestorationKind, { readonly face: number; readonly edge: number }>>>;
  readonly source: Source;
}

/** The materials of the front teeth. Thicknesses are common practice with no source; the maker's sheet comes first. */
export const MATERIALS = [
  {
    id: 'feldspathic',
    name: 'layered feldspathic ceramic',
    least: { veneer: { face: 0.3, edge: 1 } },
    source: COMMON_PRACTICE,
  },
  {
    id: 'pressed',
    name: 'pressed glass-ceramic',
    least: { veneer: { face: 0.4, edge: 1.2 }, crown: { face: 1, edge: 1.5 } },
    source: COMMON_PRACTICE,
  },
  {
    id: 'milled',
    name: 'milled glass-ceramic',
    least: { veneer: { face: 0.5, edge: 1.5 }, crown: { face: 1, edge: 1.5 } },
    source: COMMON_PRACTICE,
  },
  {
    id: 'zirconia',
    name: 'translucent zirconia',
    least: { veneer: { face: 0.5, edge: 1 }, crown: { face: 0.7, edge: 1.2 } },
    source: COMMON_PRACTICE,
  },
  {
    id: 'composite',
    name: 'milled composite',
    least: { veneer: { face: 0.5, edge: 1 }, crown: { face: 1, edge: 1.5 } },
    source: COMMON_PRACTICE,
  },
] as const satisfies readonly Material[];
export type MaterialId = (typeof MATERIALS)[number]['id'];

/** The materials in which a restoration of a kind is made. */
export const materialsFor = (kind: RestorationKind): Material[] =>
  (MATERIALS as readonly Material[]).filter((m) => m.least[kind]);

/** A design as thick as a material needs at least: thinner places are raised, all others stay. */
export function inMaterial(design: Design, material: Material): Design {
  const least = material.least[design.kind];
  if (!least) return design;
  const { cervical, middle, incisal } = design.needs;
  const raised = (mm: number) => Math.max(mm, least.face);
  return withThickness(design, {
    cervical: raised(cervical),
    middle: raised(middle),
    incisal: raised(incisal),
    edgeMm: design.edge.kind === 'thickness' ? Math.max(design.edge.mm, least.edge) : null,
    belowGumMm: design.finish.belowGumMm,
    ...(design.around && { sidesMm: raised(design.around.proximalMm), palatalMm: raised(design.around.palatalMm) }),
  });
}
