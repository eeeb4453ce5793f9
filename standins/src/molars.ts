import {
  type ArchCurve,
  alongArch,
  type CrownSize,
  crown,
  type Fdi,
  hypot,
  placeMesh,
  standingFrame,
  usualDepth,
} from '@radiant/core';
import type { PatientTooth } from './jaw.js';

/** Sizes of the molars, mm; `edgeUp` as in the rest of the row. House morphology. */
const UPPER = {
  6: { length: 6.6, width: 10, edgeUp: 1.9 },
  7: { length: 6.2, width: 9.2, edgeUp: 2.3 },
} as const;
const LOWER = {
  6: { length: 6.8, width: 10.8, edgeUp: 0.55 },
  7: { length: 6.4, width: 10.2, edgeUp: 0.6 },
} as const;

/** In such steps across the place of the second premolar along the arch is looked for, and how far to the side, mm. */
const STEP_MM = 0.05;
const FAR_MM = 40;

/** How far along the arch curve a tooth stands, mm from the middle, to the side where x grows positive. */
function alongOf(arch: ArchCurve, t: PatientTooth): number {
  const [x, y] = t.frame.origin;
  const depth = (at: number) => arch.a * at * at + arch.b * at ** 4;
  let best = 0;
  let least = Number.POSITIVE_INFINITY;
  let along = 0;
  for (let at = 0; at < FAR_MM; at += STEP_MM) {
    const d = hypot(at - Math.abs(x), depth(at) - y);
    if (d < least) {
      least = d;
      best = along;
    }
    along += hypot(STEP_MM, depth(at + STEP_MM) - depth(at));
  }
  return x < 0 ? -best : best;
}

/**
 * The first and second molars behind a standing row, in the row's own frame: seen on photographs, not reached by the
 * short scans of the front.
 */
export function molarsBehind(row: readonly PatientTooth[], arch: ArchCurve): PatientTooth[] {
  const made: PatientTooth[] = [];
  for (const quadrant of [10, 20, 30, 40]) {
    const last = row
      .filter((t) => Math.trunc(t.tooth / 10) * 10 === quadrant)
      .sort((a, b) => a.tooth - b.tooth)
      .at(-1);
    if (!last) continue;
    const sizes = quadrant < 30 ? UPPER : LOWER;
    let at = alongOf(arch, last);
    let half = last.crown.size.widthMm / 2;
    for (const place of [6, 7] as const) {
      const tooth: Fdi = quadrant + place;
      const { length, width, edgeUp } = sizes[place];
      at += Math.sign(at) * (half + width / 2 + 0.05);
      half = width / 2;
      const size: CrownSize = {
        lengthMm: length,
        widthMm: width,
        facialVolumeMm: 0,
        wearMm: 0,
        depthMm: usualDepth(tooth, width),
      };
      const c = crown(tooth, size);
      const frame = standingFrame(tooth, alongArch(arch, at), edgeUp);
      made.push({ tooth, trait: {}, crown: c, frame, mesh: placeMesh(c.mesh, frame) });
    }
  }
  return made;
}
