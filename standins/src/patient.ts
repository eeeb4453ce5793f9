import {
  type Crown,
  type CrownSize,
  crown,
  type Fdi,
  type Frame,
  MEDIUM_ARCH,
  type Mesh,
  placeMesh,
  placeTeeth,
  ringVertex,
  type Stand,
  toParent,
  UPPER_TEN,
  type Vec3,
} from '@radiant/core';
import { gum } from './gum.js';
import { random } from './random.js';

/** How one tooth of the patient departs from a regular arch. */
export interface ToothTrait extends Partial<CrownSize> {
  readonly rotationDeg?: number;
  readonly gapMesialMm?: number;
  readonly edgeUpMm?: number;
  readonly forwardMm?: number;
}

/** One seed and a few traits make a whole, consistent patient. Lengths in mm. */
export interface PatientRecipe {
  readonly seed: number;
  readonly traits: Readonly<Partial<Record<number, ToothTrait>>>;
}

export interface PatientTooth {
  readonly tooth: Fdi;
  readonly crown: Crown;
  readonly frame: Frame;
  /** The crown in the mouth's coordinates. */
  readonly mesh: Mesh;
}

/** The virtual patient's upper jaw. Everything about it is known, so what is measured can be checked against it. */
export interface Patient {
  readonly recipe: PatientRecipe;
  readonly teeth: readonly PatientTooth[];
  readonly gum: Mesh;
}

const USUAL: Readonly<Record<number, { length: number; width: number; edgeUp: number }>> = {
  1: { length: 10.6, width: 8.6, edgeUp: 0 },
  2: { length: 9.1, width: 6.6, edgeUp: 0.7 },
  3: { length: 10.2, width: 7.6, edgeUp: 0.05 },
  4: { length: 8.5, width: 7, edgeUp: 0.9 },
  5: { length: 7.8, width: 6.7, edgeUp: 1.3 },
};

/** *Avocet*: a small upper right lateral, worn centrals, the left lateral turned. 34 years. */
export const AVOCET: PatientRecipe = {
  seed: 2411,
  traits: {
    13: { wearMm: 0.12, gapMesialMm: 0.3 },
    12: { widthMm: 5.4, lengthMm: 8.3, gapMesialMm: 0.7, edgeUpMm: 1.1, forwardMm: -0.25 },
    11: { lengthMm: 9.9, widthMm: 8.55, wearMm: 0.8, edgeUpMm: 0.7 },
    21: { lengthMm: 9.2, widthMm: 8.5, wearMm: 1.4, edgeUpMm: 1.45 },
    22: { rotationDeg: 9, lengthMm: 8.9, edgeUpMm: 1.05 },
    23: { wearMm: 0.3, lengthMm: 9.8, edgeUpMm: 0.4 },
    14: { gapMesialMm: 0 },
  },
};

/** A recipe whose seed scatters every tooth a little, for tests on patients that are not the demo's. */
export function scatteredRecipe(seed: number): PatientRecipe {
  const r = random(seed);
  const traits: Record<number, ToothTrait> = {};
  for (const t of UPPER_TEN) {
    const usual = USUAL[t % 10] as { length: number; width: number; edgeUp: number };
    const wear = t % 10 <= 3 ? Math.max(0, r.normal(0.5)) : 0;
    traits[t] = {
      widthMm: usual.width + r.normal(0.3),
      lengthMm: usual.length - wear + r.normal(0.4),
      wearMm: wear,
      edgeUpMm: usual.edgeUp + wear,
      rotationDeg: r.normal(4),
      facialVolumeMm: r.normal(0.15),
    };
  }
  return { seed, traits };
}

/** Makes the patient. Deterministic. */
export function makePatient(recipe: PatientRecipe): Patient {
  const stands: (Stand & { size: CrownSize })[] = UPPER_TEN.map((tooth) => {
    const usual = USUAL[tooth % 10] as { length: number; width: number; edgeUp: number };
    const t = recipe.traits[tooth] ?? {};
    const size: CrownSize = {
      lengthMm: t.lengthMm ?? usual.length,
      widthMm: t.widthMm ?? usual.width,
      facialVolumeMm: t.facialVolumeMm ?? 0,
      wearMm: t.wearMm ?? 0,
    };
    return {
      tooth,
      size,
      // A turned tooth takes less of the arch; real contacts close up.
      widthMm: size.widthMm * Math.cos(((t.rotationDeg ?? 0) * Math.PI) / 180),
      gapMesialMm: t.gapMesialMm ?? 0,
      edgeUpMm: t.edgeUpMm ?? usual.edgeUp,
      rotationDeg: t.rotationDeg ?? 0,
      forwardMm: t.forwardMm ?? 0,
    };
  });
  const frames = placeTeeth(MEDIUM_ARCH, stands);
  const teeth = stands.map(({ tooth, size }): PatientTooth => {
    const c = crown(tooth, size);
    const frame = frames.get(tooth) as Frame;
    return { tooth, crown: c, frame, mesh: placeMesh(c.mesh, frame) };
  });
  let sheet: Mesh | undefined;
  return {
    recipe,
    teeth,
    // Most questions are about the teeth alone; the gum is made when first looked at.
    get gum() {
      sheet ??= gum(teeth);
      return sheet;
    },
  };
}

/** The four places that are marked on a photograph, in the mouth's coordinates, mm. */
export interface TruePoints {
  readonly zenith: Vec3;
  readonly edge: Vec3;
  readonly mesial: Vec3;
  readonly distal: Vec3;
}

/**
 * The tooth's landmarks as an observer in front sees them: highest point of the facial neck line, lowest point of the
 * edge, and the facial surface's outermost points towards and away from the midline (what lies behind is hidden by the
 * neighbours).
 */
export function truePoints(tooth: PatientTooth): TruePoints {
  const { mesh, crown: c } = tooth;
  const at = (i: number): Vec3 => [mesh.positions[3 * i] as number, mesh.positions[3 * i + 1] as number, mesh.positions[3 * i + 2] as number];
  const half = c.ringSize / 2;
  let zenith = at(0);
  for (let k = 0; k <= half; k++) if (at(k)[2] > zenith[2]) zenith = at(k);
  let left = zenith;
  let right = zenith;
  for (let r = 0; r < c.rings; r++) {
    for (let k = 0; k <= half; k++) {
      const p = at(ringVertex(c, r, k));
      if (p[0] > left[0]) left = p;
      if (p[0] < right[0]) right = p;
    }
  }
  let edge = zenith;
  for (let i = 0; i < mesh.positions.length / 3; i++) if ((mesh.positions[3 * i + 2] as number) < edge[2]) edge = at(i);
  const onRight = tooth.tooth < 20;
  return { zenith, edge, mesial: onRight ? left : right, distal: onRight ? right : left };
}

/** A point of the tooth's own frame, in the mouth's coordinates. */
export function inMouth(tooth: PatientTooth, p: Vec3): Vec3 {
  return toParent(tooth.frame, p);
}
