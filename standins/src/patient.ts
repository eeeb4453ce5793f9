import {
  type CrownSize,
  type Fdi,
  isUpper,
  type Mesh,
  ringVertex,
  toParent,
  UPPER_TEN,
  usualDepth,
  type Vec3,
} from '@radiant/core';
import { type GumTrait, gum } from './gum.js';
import {
  type JawRecipe,
  lowerJaw,
  once,
  type PatientTooth,
  settled,
  USUAL_LOWER,
  USUAL_UPPER,
  upperJaw,
  upperMolars,
} from './jaw.js';
import { random } from './random.js';
import { vaultOf } from './vault.js';

export type { PatientTooth } from './jaw.js';

/** How one tooth of the patient departs from a regular arch. */
export interface ToothTrait extends Partial<CrownSize> {
  readonly rotationDeg?: number;
  readonly gapMesialMm?: number;
  readonly edgeUpMm?: number;
  readonly forwardMm?: number;
  /** A corner that has broken off, straight: so far up from the edge and in from the side, mm; null for whole again. */
  readonly broken?: { readonly corner: 'mesial' | 'distal'; readonly upMm: number; readonly inMm: number } | null;
  /** White-brown patches in the enamel, 0–1. */
  readonly mottled?: number;
  /** A dark root and stump shining through, 0–1. */
  readonly dark?: number;
  /** Lighter (+) or darker (−) than the patient's other teeth, in steps of a shade guide. */
  readonly lighter?: number;
}

/** The patient's lips and face. mm over the planned edge of the upper centrals. */
export interface FaceTrait {
  /** How much of the upper centrals shows at rest. */
  readonly restDisplayMm: number;
  /** Level of the upper lip's border in full smile. */
  readonly smileLipUpMm: number;
  /** From corner to corner, at rest and in full smile. */
  readonly restWidthMm: number;
  readonly smileWidthMm: number;
  /** The lower lip's border in full smile below the planned edge, in the middle. */
  readonly smileLipDownMm: number;
  /** Pupil to pupil. */
  readonly pupilsMm: number;
  /** The facial midline to the patient's left of the dental midline. */
  readonly midlineMm: number;
  /** Cant of the lips, patient's left corner up, degrees. */
  readonly cantDeg: number;
  /** From 0, fair, to 1, deep. */
  readonly skin: number;
  /** 0 dark, 0.5 brown, 1 grey. */
  readonly hair: number;
  /** How far down the hair falls, as a height over the planned edge: to the jaw, or behind the shoulders. */
  readonly hairToMm: number;
}

export const USUAL_FACE: FaceTrait = {
  restDisplayMm: 2.4,
  smileLipUpMm: 9.6,
  restWidthMm: 50,
  smileWidthMm: 66,
  smileLipDownMm: 0.9,
  pupilsMm: 63,
  midlineMm: 0,
  cantDeg: 0,
  skin: 0.3,
  hair: 0.3,
  hairToMm: -130,
};

/** One seed and a few traits make a whole, consistent patient. Lengths in mm. */
export interface PatientRecipe {
  readonly seed: number;
  readonly traits: Readonly<Partial<Record<number, ToothTrait>>>;
  readonly missing?: readonly Fdi[];
  /** How far the arches curve back, 1 as usual: narrow ones more, broad ones less. */
  readonly archDepth?: number;
  /** How far the teeth depart from any form that the library has: see `oddCrown`. */
  readonly oddMm?: number;
  readonly overbiteMm?: number;
  readonly overjetMm?: number;
  readonly gum?: GumTrait;
  readonly face?: Partial<FaceTrait>;
  /** Traits of the teeth that are restored later, over those above; whole teeth may come in that were missing. */
  readonly planned?: {
    readonly traits: Readonly<Partial<Record<number, ToothTrait>>>;
    readonly gum?: GumTrait;
    readonly present?: readonly Fdi[];
  };
}

/** The virtual patient. Everything about it is known, so what is measured can be checked against it. */
export interface Patient {
  readonly recipe: PatientRecipe;
  readonly face: FaceTrait;
  /** Upper teeth, patient's right first. */
  readonly teeth: readonly PatientTooth[];
  /** The molars of both jaws: on photographs, behind what a short scan reaches. */
  readonly molars: readonly PatientTooth[];
  readonly lowerMolars: readonly PatientTooth[];
  readonly gum: Mesh;
  /** The vault of the palate, and the floor of the mouth with the tongue on it. */
  readonly vault: Mesh;
  readonly floor: Mesh;
  /** Lower teeth and gum in the bite, teeth together. */
  readonly lower: readonly PatientTooth[];
  readonly lowerGum: Mesh;
  /** The lower gum as far as a scanner reaches, mm over the margins. */
  lowerGumTo(reachMm: number): Mesh;
}

/** States of the mouth that the devices see. */
export type MouthState = 'before' | 'mock-up' | 'prepared' | 'provisional' | 'final';

/** A recipe whose seed scatters every tooth a little, for tests on patients that are not the demo's. */
export function scatteredRecipe(seed: number): PatientRecipe {
  const r = random(seed);
  const traits: Record<number, ToothTrait> = {};
  for (const t of UPPER_TEN) {
    const usual = USUAL_UPPER[t % 10] as { length: number; width: number; edgeUp: number };
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

/**
 * The same patient later: what is planned stands on the teeth. Lightness differs by what it is made of. Prepared teeth
 * are cut from the patient as it was: see `prepared`.
 */
export function inState(recipe: PatientRecipe, state: MouthState): PatientRecipe {
  if (state === 'before' || state === 'prepared' || !recipe.planned) return recipe;
  const { traits, gum: later, present = [] } = recipe.planned;
  const lighter = { 'mock-up': 0.4, provisional: 0.7, final: 1.2 }[state];
  const restored = Object.fromEntries(
    Object.entries(traits).map(([tooth, t]) => {
      const was = recipe.traits[Number(tooth)];
      const usual = (isUpper(Number(tooth)) ? USUAL_UPPER : USUAL_LOWER)[Number(tooth) % 10] as { width: number };
      // What is made wider does not become deeper for it.
      const depthMm = usualDepth(Number(tooth), was?.widthMm ?? usual.width);
      return [tooth, { ...was, depthMm, mottled: 0, dark: 0, wearMm: 0, broken: null, lighter, ...t }];
    }),
  );
  return {
    ...recipe,
    traits: { ...recipe.traits, ...restored },
    missing: (recipe.missing ?? []).filter((t) => !present.includes(t)),
    ...(later && { gum: later }),
  };
}

/** Makes the patient. Deterministic. */
export function makePatient(recipe: PatientRecipe): Patient {
  const { traits, missing = [], archDepth = 1, oddMm = 0 } = recipe;
  const jaw: JawRecipe = { traits, missing, archDepth, ...(oddMm > 0 && { odd: { seed: recipe.seed, mm: oddMm } }) };
  const teeth = upperJaw(jaw);
  const bite = { overbiteMm: recipe.overbiteMm ?? 2.6, overjetMm: recipe.overjetMm ?? 1.8 };
  const molars = once(() => upperMolars(jaw, teeth));
  const row = once(() => [...teeth, ...molars()].sort((a, b) => a.frame.origin[0] - b.frame.origin[0]));
  const sheet = once(() => gum(row(), recipe.gum));
  const vault = once(() => vaultOf(row(), recipe.gum));
  const lower = once(() => settled(teeth, lowerJaw(jaw, bite, recipe.gum)));
  // Most questions are about the upper teeth alone; the rest is made when first looked at.
  return {
    recipe,
    face: { ...USUAL_FACE, ...recipe.face },
    teeth,
    get molars() {
      return molars();
    },
    get gum() {
      return sheet();
    },
    get vault() {
      return vault();
    },
    get lowerMolars() {
      return lower().molars();
    },
    get floor() {
      return lower().within();
    },
    get lower() {
      return lower().teeth;
    },
    get lowerGum() {
      return lower().gum();
    },
    lowerGumTo: (reachMm) => settled(teeth, lowerJaw(jaw, bite, recipe.gum, reachMm)).gum(),
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
  const at = (i: number): Vec3 => [mesh.positions[3 * i], mesh.positions[3 * i + 1], mesh.positions[3 * i + 2]];
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
  for (let i = 0; i < mesh.positions.length / 3; i++) if (mesh.positions[3 * i + 2] < edge[2]) edge = at(i);
  const onRight = tooth.tooth < 20;
  return { zenith, edge, mesial: onRight ? left : right, distal: onRight ? right : left };
}

/** A point of the tooth's own frame, in the mouth's coordinates. */
export function inMouth(tooth: PatientTooth, p: Vec3): Vec3 {
  return toParent(tooth.frame, p);
}
