import {
  bounds,
  CaseEngine,
  type Fdi,
  hypot,
  type Mesh,
  onlyAdded,
  readScan,
  restorationOf,
  vertexNormals,
} from '@radiant/core';
import type { RowOrder } from './dentist.js';
import { gum } from './gum.js';
import type { Patient } from './patient.js';
import { GUM_REACH_MM, INTRAORAL_SCANNER, type ScannerSetting, scan, scanOf } from './scanner.js';

/** Provisionals in place of cut teeth, and where one was ground behind in the bite, mm. */
export type WornOrder = Pick<RowOrder, 'plan' | 'choice'> & {
  readonly ground?: Readonly<Partial<Record<Fdi, number>>>;
};

/** So far from the edge a place behind is ground, and so far around, mm. */
const GROUND = { fromEdgeMm: 3.5, aroundMm: 1.8 } as const;

/** A crown ground behind: places that look to the palate move inward, most in the middle. In its arch's own frame. */
export function groundBehind(crown: Mesh, mm: number): Mesh {
  const normals = vertexNormals(crown);
  const { min, max } = bounds(crown);
  const [x, z] = [(min[0] + max[0]) / 2, min[2] + GROUND.fromEdgeMm];
  return {
    triangles: crown.triangles,
    positions: crown.positions.map((at, i) => {
      const v = 3 * Math.floor(i / 3);
      const away = hypot(crown.positions[v] - x, crown.positions[v + 2] - z) / GROUND.aroundMm;
      const behind = normals[v + 1] > 0.3;
      return behind && away < 1 ? at - mm * Math.sqrt(1 - away * away) * normals[i] : at;
    }),
  };
}

/** What a simulated scanner gives of a patient's upper jaw with the planned contour in place as provisionals. */
export function scanOfWorn(patient: Patient, { plan, choice, ground = {} }: WornOrder, s: ScannerSetting): Uint8Array {
  const engine = new CaseEngine();
  engine.take(readScan(scan(patient, INTRAORAL_SCANNER)));
  engine.setPlan(plan);
  const worn = new Set(engine.teeth('upper').filter((t) => !onlyAdded(restorationOf(t, choice).design)));
  const teeth = patient.teeth.map((t) => {
    if (!worn.has(t.tooth)) return t;
    const { mesh } = engine.crown(t.tooth);
    const mm = ground[t.tooth];
    return { ...t, mesh: mm ? groundBehind(mesh, mm) : mesh };
  });
  return scanOf(teeth, gum(patient.teeth, patient.recipe.gum, GUM_REACH_MM), s);
}
