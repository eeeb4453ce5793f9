import { deltaE00, type Lab, VISIBLE } from '../colour/lab.js';
import { type Optics, over, sheetOf } from '../colour/layer.js';
import type { Spectrum } from '../colour/spectrum.js';
import { colourOver, type Layer, layersOf, type Made } from './appearance.js';

/**
 * What lies under a layer, from what both look like under the surface.
 * @returns values below 0 where the layer by itself is brighter than both: it can't be that layer
 */
export function beneath(both: Spectrum, optics: Optics, mm: number): Spectrum {
  const { R, T } = sheetOf(optics, mm);
  return both.map((seen, i) => {
    const [r, t] = [R[i] as number, T[i] as number];
    return (seen - r) / (t * t + r * (seen - r));
  });
}

/** A tooth as it is before it is cut: how it looks under its surface, and how much enamel lies over its dentin. */
export interface ToothColour {
  readonly surface: Spectrum;
  readonly enamel: Optics;
  readonly enamelMm: number;
  /** What is taken for the dentin; told from the surface through the enamel where left out. */
  readonly dentin?: Spectrum;
}

/** The stump that is left when so much has gone: with every tenth less enamel lies over the dentin, until there is none. */
export function stumpAfter({ surface, enamel, enamelMm, dentin: taken }: ToothColour, cutMm: number): Spectrum {
  const left = enamelMm - cutMm;
  if (taken) return likeTheSurface(surface, enamel, enamelMm, taken, left);
  const dentin = beneath(surface, enamel, enamelMm).map((v) => Math.min(1, Math.max(0, v)));
  return left > 0 ? over(sheetOf(enamel, left), dentin) : dentin;
}

/**
 * A stump over dentin that is taken for what it is: as much of the difference to what was read is kept as enamel is left.
 */
function likeTheSurface(surface: Spectrum, enamel: Optics, enamelMm: number, dentin: Spectrum, left: number): Spectrum {
  if (left <= 0) return dentin;
  const whole = over(sheetOf(enamel, enamelMm), dentin);
  const now = over(sheetOf(enamel, left), dentin);
  return now.map((r, i) => Math.min(1, r * ((surface[i] as number) / (whole[i] as number)) ** (left / enamelMm)));
}

/** How it looks when so much was cut for ceramic. */
export interface AtDepth {
  readonly cutMm: number;
  readonly ceramicMm: number;
  readonly stump: Spectrum;
  readonly lab: Lab;
  readonly dE: number;
}

/** Cutting deeper and deeper for thicker ceramic, and what comes of it. */
export interface Deeper {
  readonly curve: readonly AtDepth[];
  /** Where it comes nearest to what is wanted. */
  readonly best: AtDepth;
  /** Where cutting deeper first makes it worse, though it is not good enough there; nothing where it never does. */
  readonly turnsAt?: AtDepth;
}

/** Worse by less than this is no turn, ΔE00. House value. */
const TURN = 0.3;
const STEP_MM = 0.05;

/**
 * The circle of a dark stump: thicker ceramic hides more, but the enamel that goes for it had lightened the stump.
 * @param addedMm what the plan adds before the tooth: ceramic that costs no tooth
 * @param toMm how deep is looked, mm
 */
export function deeper(
  tooth: ToothColour,
  ceramic: Made,
  under: readonly Layer[],
  wanted: Lab,
  addedMm: number,
  toMm: number,
): Deeper {
  const curve = Array.from({ length: Math.floor(toMm / STEP_MM + 1e-9) + 1 }, (_, i): AtDepth => {
    const cutMm = i * STEP_MM;
    const stump = stumpAfter(tooth, cutMm);
    const ceramicMm = cutMm + addedMm;
    const lab = colourOver([...layersOf(ceramic, ceramicMm), ...under], stump);
    return { cutMm, ceramicMm, stump, lab, dE: deltaE00(lab, wanted) };
  });
  const best = curve.reduce((a, b) => (b.dE < a.dE ? b : a));
  let lowest = curve[0] as AtDepth;
  for (const at of curve) {
    if (at.dE < lowest.dE) lowest = at;
    else if (at.dE > lowest.dE + TURN && lowest.dE > VISIBLE.notTaken) return { curve, best, turnsAt: lowest };
  }
  return { curve, best };
}
