import {
  type ArchCurve,
  biteGrid,
  type Crown,
  type CrownSize,
  closing,
  crown,
  type Fdi,
  type Frame,
  heightField,
  LOWER_TEN,
  MEDIUM_ARCH,
  type Mesh,
  placeMesh,
  placeTeeth,
  type Stand,
  UPPER_TEN,
  type Vec3,
} from '@radiant/core';
import { brokenCrown } from './broken.js';
import { type GumTrait, gum } from './gum.js';
import { molarsBehind } from './molars.js';
import { oddCrown } from './odd-teeth.js';
import type { ToothTrait } from './patient.js';
import { floorOf } from './vault.js';

export interface PatientTooth {
  readonly tooth: Fdi;
  readonly trait: ToothTrait;
  readonly crown: Crown;
  readonly frame: Frame;
  /** The crown in the mouth's coordinates. */
  readonly mesh: Mesh;
  /** What was taken off it: how far places lie in what is gone (+) or in what stays (−), mm. */
  readonly cut?: (places: Float64Array) => Float64Array;
}

export interface JawRecipe {
  readonly traits: Readonly<Partial<Record<number, ToothTrait>>>;
  readonly missing: readonly Fdi[];
  /** How far the arches curve back, 1 as usual. */
  readonly archDepth?: number;
  /** Teeth that the library can't make: see `oddCrown`. */
  readonly odd?: { readonly seed: number; readonly mm: number };
}

interface Usual {
  readonly length: number;
  readonly width: number;
  readonly edgeUp: number;
  /** In front (+) of the arch curve. */
  readonly forward?: number;
}

/** Sizes of the scatter's middle by place in the quadrant, mm. House morphology. */
export const USUAL_UPPER: Readonly<Record<number, Usual>> = {
  1: { length: 10.6, width: 8.6, edgeUp: 0 },
  2: { length: 8.8, width: 6.6, edgeUp: 0.65 },
  3: { length: 10.2, width: 7.6, edgeUp: 0.05 },
  4: { length: 8.5, width: 7, edgeUp: 1 },
  5: { length: 7.8, width: 6.7, edgeUp: 1.55 },
};
export const USUAL_LOWER: Readonly<Record<number, Usual>> = {
  1: { length: 8.8, width: 5.4, edgeUp: 0 },
  2: { length: 9, width: 5.9, edgeUp: 0 },
  3: { length: 10, width: 6.8, edgeUp: -0.5, forward: -0.6 },
  4: { length: 8.4, width: 7, edgeUp: 0.3, forward: -0.8 },
  5: { length: 7.8, width: 7.1, edgeUp: 0.45, forward: 0.3 },
};

const LOWER_ARCH = { a: 0.026, b: 1.8e-5 };

const deeper = (arch: ArchCurve, by = 1): ArchCurve => ({ a: arch.a * by, b: arch.b * by });

/** The upper teeth in their places. */
export function upperJaw(jaw: JawRecipe): PatientTooth[] {
  return standing(UPPER_TEN, jaw, USUAL_UPPER, deeper(MEDIUM_ARCH, jaw.archDepth));
}

/** The molars behind them. */
export const upperMolars = (jaw: JawRecipe, row: readonly PatientTooth[]): PatientTooth[] =>
  molarsBehind(row, deeper(MEDIUM_ARCH, jaw.archDepth));

/**
 * The lower teeth and gum, the bite closed. They are set up as if they were an upper jaw and then turned over about the
 * line of sight, which takes up to down and right to left.
 * @param gumReachMm how far over the margin the gum of a short scan goes; all of it, molars' too, where nothing is said
 */
export function lowerJaw(
  jaw: JawRecipe,
  bite: { overbiteMm: number; overjetMm: number },
  trait?: GumTrait,
  gumReachMm?: number,
): LowerJaw {
  const asUpper = standing(LOWER_TEN, jaw, USUAL_LOWER, deeper(LOWER_ARCH, jaw.archDepth));
  // What only photographs show is made when it is first looked at.
  const back = once(() => molarsBehind(asUpper, deeper(LOWER_ARCH, jaw.archDepth)));
  const all = () => [...asUpper, ...back()].sort((a, b) => a.frame.origin[0] - b.frame.origin[0]);
  const over = (p: Vec3): Vec3 => [-p[0], p[1] + bite.overjetMm + EDGE_THICKNESS_MM, -p[2] + bite.overbiteMm];
  const turned = (m: Mesh): Mesh => {
    const positions = m.positions.slice();
    for (let i = 0; i < positions.length; i += 3)
      positions.set(over([positions[i], positions[i + 1], positions[i + 2]]), i);
    return { positions, triangles: m.triangles };
  };
  const axis = (v: Vec3): Vec3 => [-v[0], v[1], -v[2]];
  const tooth = (t: PatientTooth): PatientTooth => ({
    ...t,
    mesh: turned(t.mesh),
    frame: { origin: over(t.frame.origin), x: axis(t.frame.x), y: axis(t.frame.y), z: axis(t.frame.z) },
  });
  return {
    // Turned over, the row runs from left to right; the patient's right comes first here too.
    teeth: asUpper.map(tooth).reverse(),
    molars: once(() => back().map(tooth)),
    gum: once(() => turned(gumReachMm === undefined ? gum(all(), trait) : gum(asUpper, trait, gumReachMm))),
    within: once(() => turned(floorOf(all(), trait))),
  };
}

/** A lower jaw in the bite. */
export interface LowerJaw {
  readonly teeth: readonly PatientTooth[];
  /** First and second molars, patient's right first or last as they come. */
  readonly molars: () => readonly PatientTooth[];
  readonly gum: () => Mesh;
  /** The floor of the mouth with the tongue on it. */
  readonly within: () => Mesh;
}

/** Work that is done once, when it is first asked for. */
export function once<T>(work: () => T): () => T {
  let made: { readonly value: T } | undefined;
  return () => {
    made ??= { value: work() };
    return made.value;
  };
}

/** How far a closed bite may be off before it is settled, mm; more than this is meant to be open. */
const SETTLE_WITHIN_MM = 1.2;
/** Columns of the settling, mm. */
const SETTLE_STEP_MM = 0.1;

/** The lower jaw moved straight up or down until its first tooth meets the upper ones. */
export function settled(upper: readonly PatientTooth[], jaw: LowerJaw): LowerJaw {
  const grid = biteGrid([...upper, ...jaw.teeth], SETTLE_STEP_MM);
  const by = closing(heightField(upper, 'upper', grid), heightField(jaw.teeth, 'lower', grid));
  if (Math.abs(by) > SETTLE_WITHIN_MM) return jaw;
  const up = (p: Vec3): Vec3 => [p[0], p[1], p[2] + by];
  const lifted = (m: Mesh): Mesh => ({
    positions: m.positions.map((v, i) => (i % 3 === 2 ? v + by : v)),
    triangles: m.triangles,
  });
  const tooth = (t: PatientTooth) => ({
    ...t,
    mesh: lifted(t.mesh),
    frame: { ...t.frame, origin: up(t.frame.origin) },
  });
  return {
    teeth: jaw.teeth.map(tooth),
    molars: once(() => jaw.molars().map(tooth)),
    gum: once(() => lifted(jaw.gum())),
    within: once(() => lifted(jaw.within())),
  };
}

/** The upper edge is about so thick; the overjet is counted from its front. */
const EDGE_THICKNESS_MM = 0.4;

function standing(teeth: readonly Fdi[], jaw: JawRecipe, usual: Readonly<Record<number, Usual>>, arch: ArchCurve) {
  const present = teeth.filter((t) => !jaw.missing.includes(t));
  const stands: (Stand & { size: CrownSize })[] = present.map((tooth) => {
    const norm = usual[tooth % 10] as Usual;
    const t = jaw.traits[tooth] ?? {};
    const size: CrownSize = {
      lengthMm: t.lengthMm ?? norm.length,
      widthMm: t.widthMm ?? norm.width,
      facialVolumeMm: t.facialVolumeMm ?? 0,
      wearMm: t.wearMm ?? 0,
      ...(t.depthMm !== undefined && { depthMm: t.depthMm }),
    };
    return {
      tooth,
      size,
      // A turned tooth takes less of the arch; real contacts close up.
      widthMm: size.widthMm * Math.cos(((t.rotationDeg ?? 0) * Math.PI) / 180),
      gapMesialMm: t.gapMesialMm ?? 0,
      edgeUpMm: t.edgeUpMm ?? norm.edgeUp,
      rotationDeg: t.rotationDeg ?? 0,
      forwardMm: t.forwardMm ?? norm.forward ?? 0,
    };
  });
  const frames = placeTeeth(arch, stands);
  return stands
    .map(({ tooth, size }): PatientTooth => {
      const made = crown(tooth, size);
      const c = jaw.odd ? oddCrown(made, jaw.odd.seed, jaw.odd.mm) : made;
      const frame = frames.get(tooth) as Frame;
      const { broken } = jaw.traits[tooth] ?? {};
      const mesh = broken ? brokenCrown(c.mesh, tooth, broken) : c.mesh;
      return { tooth, trait: jaw.traits[tooth] ?? {}, crown: c, frame, mesh: placeMesh(mesh, frame) };
    })
    .sort((a, b) => a.frame.origin[0] - b.frame.origin[0]);
}
