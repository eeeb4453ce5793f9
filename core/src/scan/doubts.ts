import { archSide } from '../contour/arch.js';
import { crown } from '../contour/crown.js';
import { bounds, triangleArea, vertexDistance } from '../geometry/mesh.js';
import type { Fdi } from '../teeth/notation.js';
import { edgeOf, otherSide, STEPS } from './crown-edge.js';
import { numberDoubts } from './number-doubts.js';
import type { LookedAt } from './own-scan.js';
import type { PickedCrown } from './picked-crown.js';
import type { ToothRoom } from './row.js';

/** Something about a picked tooth that wants looking at. */
export interface Doubt {
  readonly tooth: Fdi;
  readonly about: 'gum' | 'contact' | 'face' | 'corner' | 'length' | 'room' | 'unlike' | 'cusp';
  /** In words; another tooth stands as `{11}`. */
  readonly sentence: string;
}

/**
 * What can't be told surely about picked teeth: borders along which the surface does not fold, what stands on a face,
 * and crowns that are not whole.
 * @param tooth of each triangle, 0 for gum
 */
export function doubtsOf(
  look: LookedAt,
  tooth: Uint8Array,
  crowns: ReadonlyMap<Fdi, PickedCrown>,
  teeth: ReadonlyMap<Fdi, ToothRoom>,
): Doubt[] {
  return [
    ...borderDoubts(look, tooth, teeth),
    ...faceDoubts(look, tooth, crowns),
    ...edgeDoubts(crowns, edgesOf(look, tooth)),
    ...numberDoubts(look, tooth, crowns, teeth),
  ].sort((p, q) => p.tooth - q.tooth);
}

/** Numbers are told to be looked at where others are nearly as likely. House value. */
const UNSURE = 2.5;

/** Of each side, the central with it, so many teeth make a row that can be planned on. House limit. */
const A_SIDE = 2;

/** Whether what was found is a row of teeth with both sides at all: a sentence where it hardly is. */
export function rowDoubt(
  teeth: readonly Fdi[],
  doubts: readonly Doubt[],
  sure = Infinity,
  missing: ReadonlySet<Fdi> = new Set(),
): string | undefined {
  if (teeth.length === 0)
    return 'No tooth is found in it. Palate or gum alone is nothing to plan on; if there are teeth, orient it with three clicks.';
  const faint = new Set(doubts.filter((d) => d.about === 'gum').map((d) => d.tooth)).size;
  if (2 * faint > teeth.length) {
    const which =
      faint < teeth.length
        ? `${faint} of the ${teeth.length} teeth found have no`
        : faint > 1
          ? `None of the ${faint} teeth found has a`
          : 'The one tooth found has no';
    return `${which} clear line to the gum: it may be no row of teeth, or lie wrongly. Orient it with three clicks.`;
  }
  const [right, left] = (['right', 'left'] as const).map((side) => teeth.filter((t) => archSide(t) === side));
  const whole = [right, left].every((side) => (side?.length ?? 0) >= A_SIDE && side?.some((t) => t % 10 === 1));
  if (whole) {
    if (sure < UNSURE)
      return 'Which tooth is which can’t be told surely: another numbering fits nearly as well. Look at the numbers.';
    const alone = teeth.find((t) => !teeth.includes(otherSide(t)) && !missing.has(otherSide(t)));
    return alone === undefined
      ? undefined
      : `{${otherSide(alone)}} is not found, {${alone}} on the other side is: missing, not scanned, or another number? Look at the numbers.`;
  }
  return 'Both centrals and a tooth behind each are not all found, and a front is planned on both sides. If they are there, orient it with three clicks; else scan both sides.';
}

/** A border that folds less than this is hardly seen, 1/mm. House limit. */
const FAINT_FOLD = 0.8;
/** Edges longer than this can't show a fold so sharply, mm: on them it is faint the less. House value. */
const SHOWS_MM = 0.4;
/** A border of which so much is faint is told: to the gum, and to a neighbour. House limits. */
const FAINT_SHARE = { gum: 0.35, contact: 0.3 } as const;

function borderDoubts(look: LookedAt, tooth: Uint8Array, teeth: ReadonlyMap<Fdi, ToothRoom>): Doubt[] {
  const { across } = look.adjacency;
  const toGum = new Map<Fdi, [number, number]>();
  const toTooth = new Map<string, [number, number]>();
  const count = <K>(m: Map<K, [number, number]>, key: K, faint: boolean) => {
    const own = m.get(key) ?? [0, 0];
    own[0]++;
    if (faint) own[1]++;
    m.set(key, own);
  };
  for (let k = 0; k < across.length; k++) {
    const [t, other] = [(k / 3) | 0, across[k]];
    if (other <= t || tooth[t] === tooth[other]) continue;
    const v = look.mesh.triangles[k];
    const w = look.mesh.triangles[3 * t + ((k + 1) % 3)];
    const shown = Math.min(1, SHOWS_MM / vertexDistance(look.mesh.positions, v, w));
    const faint = Math.max(look.concavity[v], look.concavity[w]) < FAINT_FOLD * shown;
    const [a, b] = [tooth[t], tooth[other]];
    if (a === 0 || b === 0) count(toGum, a || b, faint);
    else count(toTooth, `${Math.min(a, b)} ${Math.max(a, b)}`, faint);
  }
  const doubts: Doubt[] = [];
  for (const t of teeth.keys()) {
    const own = toGum.get(t);
    if (!own) doubts.push({ tooth: t, about: 'gum', sentence: 'no border to the gum was found' });
    else if (own[1] > FAINT_SHARE.gum * own[0])
      doubts.push({
        tooth: t,
        about: 'gum',
        sentence: `${Math.round((100 * own[1]) / own[0])} % of its border to the gum is hardly seen`,
      });
  }
  for (const [pair, own] of toTooth) {
    const [a, b] = pair.split(' ').map(Number) as [number, number];
    if (own[0] > 12 && own[1] > FAINT_SHARE.contact * own[0])
      doubts.push({ tooth: a, about: 'contact', sentence: `can hardly be told from {${b}} where they touch` });
  }
  return doubts;
}

/**
 * The middle of a face, as shares of the width and of the length: away from neck, edge and neighbours nothing folds
 * inward.
 */
const FACE = { from: 0.15, to: 0.85, top: 0.8 } as const;
/** A face folds inward where it does by so much, 1/mm. */
const FACE_FOLD = 0.8;
/**
 * So much of a face folding inward is told: without brackets it is up to 7 % on the virtual jaws, with them from 12 %.
 * House limit.
 */
const FACE_SHARE = 0.095;

/** The chewing surface folds inward of itself: behind the facial cusp, so far out as a share, no face is. House value. */
const BEHIND_CUSP = 0.58;

function faceDoubts(look: LookedAt, tooth: Uint8Array, crowns: ReadonlyMap<Fdi, PickedCrown>): Doubt[] {
  const folds = new Uint8Array(look.concavity.length);
  for (const c of crowns.values()) {
    const out = c.tooth % 10 > 3 ? BEHIND_CUSP * c.outward.reduce((most, o) => Math.max(most, o), 0) : 0;
    c.vertices.forEach((v, i) => {
      const [u, h] = [c.across[i] / c.widthMm, c.height[i] / c.lengthMm];
      const onFace = u > FACE.from && u < FACE.to && h > FACE.from && h < FACE.top && c.outward[i] > out;
      if (onFace && look.concavity[v] > FACE_FOLD) folds[v] = 1;
    });
  }
  const mm2 = new Float64Array(256);
  const { triangles } = look.mesh;
  for (let t = 0; t < tooth.length; t++) {
    let folding = 0;
    for (let c = 0; c < 3; c++) folding += folds[triangles[3 * t + c]];
    if (folding > 0) mm2[tooth[t]] = mm2[tooth[t]] + (triangleArea(look.mesh, 3 * t) * folding) / 3;
  }
  return [...crowns.values()]
    .filter((c) => mm2[c.tooth] > FACE_SHARE * c.widthMm * c.lengthMm)
    .map((c) => ({
      tooth: c.tooth,
      about: 'face',
      sentence: 'a bracket or the like on its face: what is under it was not seen',
    }));
}

/**
 * A corner that ends so much short of the usual form is told, mm: whole teeth of the virtual jaws stay under 0.6. House
 * limit.
 */
const CORNER_MM = 1.2;
/** And so much of it on one corner: where both are short alike the tooth is round, worn or prepared. House value. */
const ONE_CORNER = 0.65;
/** A crown so much shorter than its fellow is told, mm. House limit. */
export const SHORT_MM = 2;

/** On edges longer than can be shown sharply a limit is so many times what they are longer wider. House value. */
const COARSE = 2;

/** How long the edges of each tooth's triangles are, mm, by their mean area. */
function edgesOf(look: LookedAt, tooth: Uint8Array): (tooth: Fdi) => number {
  const [mm2, count] = [new Float64Array(256), new Float64Array(256)];
  for (let t = 0; t < tooth.length; t++) {
    mm2[tooth[t]] = mm2[tooth[t]] + triangleArea(look.mesh, 3 * t);
    count[tooth[t]] = count[tooth[t]] + 1;
  }
  return (n) => Math.sqrt((4 / Math.sqrt(3)) * (mm2[n] / Math.max(1, count[n])));
}

/**
 * Front teeth whose edge is not what the usual form of their kind has, and crowns much shorter than the same tooth of
 * the other side.
 * @param edgeMm how long the edges of a tooth's triangles are, mm: what ends between two places is told that much worse
 */
export function edgeDoubts(crowns: ReadonlyMap<Fdi, PickedCrown>, edgeMm: (tooth: Fdi) => number = () => 0): Doubt[] {
  const doubts: Doubt[] = [];
  for (const c of crowns.values()) {
    const fellow = crowns.get(otherSide(c.tooth));
    const short = fellow ? fellow.lengthMm - c.lengthMm : 0;
    const loose = COARSE * Math.max(0, edgeMm(c.tooth) - SHOWS_MM);
    if (short > SHORT_MM + loose)
      doubts.push({
        tooth: c.tooth,
        about: 'length',
        sentence: `${short.toFixed(1)} mm shorter than {${otherSide(c.tooth)}}: broken, worn or under the gum?`,
      });
    if (c.tooth % 10 > 3) continue;
    const off = edgeOff(c);
    const [low, high] = [(off[0] + off[1]) / 2, (off[STEPS - 1] + off[STEPS - 2]) / 2];
    // A tooth that leans to a side has one corner up and the other down, as much as its middle says.
    const middle = (off[STEPS / 2 - 1] + off[STEPS / 2]) / 2;
    // A step without a point of a coarse scan tells nothing.
    const lost = low + high - 2 * middle;
    if (!Number.isFinite(lost) || lost <= CORNER_MM + loose || Math.max(low, high) - middle < ONE_CORNER * lost)
      continue;
    const mesial = high > low === (archSide(c.tooth) === 'right');
    doubts.push({
      tooth: c.tooth,
      about: 'corner',
      sentence: `its ${mesial ? 'mesial' : 'distal'} corner ends ${Math.max(low, high).toFixed(1)} mm short of the usual form: broken?`,
    });
  }
  return doubts;
}

/** How much higher each step of the edge lies over the lowest one than in the usual form, mm. */
function edgeOff(c: PickedCrown): number[] {
  const own = edgeOf(c.across, c.height, c.widthMm);
  const usual = usualEdge(c.tooth);
  return own.map((h, k) => h - Math.min(...own) - usual[k] * c.lengthMm);
}

const usualEdges = new Map<Fdi, readonly number[]>();

/** The library form's edge over its lowest step, as a share of its length. */
function usualEdge(tooth: Fdi): readonly number[] {
  const known = usualEdges.get(tooth);
  if (known) return known;
  const size = { lengthMm: 10, widthMm: 8, facialVolumeMm: 0 };
  const { mesh } = crown(tooth, size);
  const b = bounds(mesh);
  const n = mesh.positions.length / 3;
  const across = Float64Array.from({ length: n }, (_, i) => mesh.positions[3 * i] - b.min[0]);
  const height = Float64Array.from({ length: n }, (_, i) => mesh.positions[3 * i + 2]);
  const low = edgeOf(across, height, b.max[0] - b.min[0]);
  const edge = low.map((h) => (h - Math.min(...low)) / size.lengthMm);
  usualEdges.set(tooth, edge);
  return edge;
}
