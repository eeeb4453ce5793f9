import { toLocal } from '../geometry/frame.js';
import type { Vec3 } from '../geometry/vec.js';
import type { Px } from '../smile/calibration.js';
import type { PhotoMark } from '../smile/camera-match.js';
import type { LandmarkSet } from '../smile/landmarks.js';
import type { ViewPoints } from '../smile/views.js';
import { type Fdi, kindOf } from '../teeth/notation.js';
import type { ExistingArch, ExistingTooth } from './fit.js';

/** The places of a scanned tooth that are marked on photographs, in the mouth's coordinates. */
export interface ToothPlaces {
  readonly zenith: Vec3;
  readonly edge: Vec3;
  readonly mesial: Vec3;
  readonly distal: Vec3;
}

/** Within this of the lowest point counts as the edge, mm. */
const EDGE_MM = 0.25;
/**
 * The facial surface is seen up to about here before its axis; what lies behind is hidden by the neighbour. y in the
 * tooth’s frame, mm.
 */
const FACIAL_Y_MM = -0.22;

/** Zenith, middle of the edge, and the outermost points of the facial surface towards and away from the midline. */
export function toothPlaces(t: ExistingTooth): ToothPlaces {
  const { positions: p } = t.field.mesh;
  const at = (v: number): Vec3 => [p[v], p[v + 1], p[v + 2]];
  let [zenith, left, right, low] = [-1, -1, -1, Infinity];
  for (let v = 0; v < p.length; v += 3) {
    low = Math.min(low, p[v + 2]);
    if (toLocal(t.frame, at(v))[1] > FACIAL_Y_MM) continue;
    if (zenith < 0 || p[v + 2] > p[zenith + 2]) zenith = v;
    if (left < 0 || p[v] > p[left]) left = v;
    if (right < 0 || p[v] < p[right]) right = v;
  }
  const edge = [0, 0, low] as [number, number, number];
  let n = 0;
  for (let v = 0; v < p.length; v += 3) {
    if (p[v + 2] > low + EDGE_MM) continue;
    edge[0] += p[v];
    edge[1] += p[v + 1];
    n++;
  }
  const onRight = t.tooth < 20;
  return {
    zenith: at(zenith),
    edge: [edge[0] / n, edge[1] / n, low],
    mesial: at(onRight ? left : right),
    distal: at(onRight ? right : left),
  };
}

/**
 * How well each kind of place is held across and down the picture, mm: an outline's side is high or low as one looks at
 * it.
 */
export const HELD_MM = {
  zenith: [0.8, 0.15],
  edge: [1.5, 0.12],
  tip: [0.25, 0.12],
  mesial: [0.12, 1.5],
  distal: [0.12, 1.5],
} as const;

/** A tooth's width marked on the photograph from side to side, as for its scale. */
export interface MarkedWidth {
  readonly tooth: Fdi;
  readonly ends: readonly [Px, Px];
}

/**
 * Pairs of scanned places and their marks: of the retracted front view's outlines, or of another view's edges and
 * zeniths, and of the tooth by whose width the photograph is scaled.
 */
export function photoMarks(
  arch: ExistingArch,
  landmarks: LandmarkSet,
  points: ViewPoints,
  width?: MarkedWidth,
): PhotoMark[] {
  const out: PhotoMark[] = [];
  const put = (at: Vec3, px: Px | undefined, held: readonly [number, number]) => px && out.push({ at, px, sdMm: held });
  for (const [tooth, t] of arch.teeth) {
    const places = toothPlaces(t);
    const marked = landmarks[tooth];
    put(places.edge, marked?.edge ?? points[`edge-${tooth}`], edgeHeld(tooth));
    put(places.zenith, marked?.zenith ?? points[`zenith-${tooth}`], HELD_MM.zenith);
    put(places.mesial, marked?.mesial, HELD_MM.mesial);
    put(places.distal, marked?.distal, HELD_MM.distal);
  }
  const wide = width && arch.teeth.get(width.tooth);
  if (wide) {
    const { mesial, distal } = toothPlaces(wide);
    const [right, left] = [...width.ends].sort((a, b) => a[0] - b[0]) as [Px, Px];
    const [first, second] = mesial[0] < distal[0] ? [mesial, distal] : [distal, mesial];
    put(first, right, HELD_MM.mesial);
    put(second, left, HELD_MM.distal);
  }
  return out;
}

/** A canine ends in a tip, which is held along the arch too. */
const edgeHeld = (tooth: Fdi): readonly [number, number] => (kindOf(tooth) === 'canine' ? HELD_MM.tip : HELD_MM.edge);
