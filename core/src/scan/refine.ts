import { frameToArch, meshToArch, quadrantOf, turnedOver } from '../contour/arch.js';
import { type Frame, nested, toLocal } from '../geometry/frame.js';
import { directionsInFrame, type Mesh, meshInFrame } from '../geometry/mesh.js';
import { cross, hypot, normalize, scale, type Vec3 } from '../geometry/vec.js';
import type { Fdi, Jaw } from '../teeth/notation.js';
import { frameFromClicks, levelled, type MouthProposal, mouthFrame } from './mouth-frame.js';
import { type LookedAt, lookAtJaw, rowAsTold, type Told } from './own-scan.js';
import { vectorArea } from './repair.js';
import { placeOnRow, rowCurve, rowSight } from './row.js';

/** A jaw laid into the mouth by its own shape, looked at. */
export interface LaidByShape {
  /** The mouth's frame in the scan's coordinates. */
  readonly frame: Frame;
  readonly symmetry: number;
  readonly look: LookedAt;
}

/**
 * Lays a repaired jaw into the mouth: first by its outline, then by the rooms of its teeth, so that the middle lies
 * between its centrals and the same teeth of both sides lie across from each other.
 * @param found the frame by its outline, where it is known already
 * @param missing teeth that are known to be missing
 * @throws Refusal of `mouthFrame`
 */
export function laidByShape(
  m: Mesh,
  jaw: Jaw,
  found: MouthProposal = mouthFrame(m, jaw),
  missing?: ReadonlySet<Fdi>,
): LaidByShape {
  return { ...laidFrom(m, jaw, found.frame, missing), symmetry: found.symmetry };
}

/**
 * How far what is clicked may be off the teeth's own middle, or their edges' plane, and still be meant so, mm and
 * degrees. House values.
 */
const CLICKED = { mm: 1.5, deg: 3 } as const;

/**
 * Lays a repaired jaw by three clicked places. What is a slip of the hand off the teeth's own middle and level is
 * brought to them; what is further off was meant.
 * @param places in the scan's coordinates: between the edges of the centrals, the same tooth's tip on the patient's
 *   right and left
 * @throws Refusal `points-coincide`
 */
export function laidByClicks(
  m: Mesh,
  jaw: Jaw,
  places: readonly [Vec3, Vec3, Vec3],
  missing?: ReadonlySet<Fdi>,
): Omit<LaidByShape, 'symmetry'> {
  const clicked = frameFromClicks(...places, jaw, vectorArea(m));
  const frame = levelled(m, jaw, clicked);
  const [middle, right, left] = places.map((p) => {
    const own = toLocal(frame, p);
    return jaw === 'upper' ? own : turnedOver(own);
  }) as [Vec3, Vec3, Vec3];
  const canines = new Map(
    [[quadrantOf(jaw, 'right') + 3, right] as const, [quadrantOf(jaw, 'left') + 3, left] as const].filter(
      ([tooth]) => !missing?.has(tooth),
    ),
  );
  return laidFrom(m, jaw, frame, missing, CLICKED, { middle, teeth: canines });
}

/**
 * Looks at a jaw in a frame that is about right, and brings the frame to the rooms of its teeth where they are no
 * further off than given.
 * @param missing teeth that are known to be missing
 */
export function laidFrom(
  m: Mesh,
  jaw: Jaw,
  frame: Frame,
  missing?: ReadonlySet<Fdi>,
  most: { readonly mm: number; readonly deg: number } = MOST,
  told?: Told,
): Omit<LaidByShape, 'symmetry'> {
  return laidAs(lookAtJaw(meshInFrame(m, frame), jaw, missing, told), frame, most);
}

function laidAs(look: LookedAt, frame: Frame, most = MOST): Omit<LaidByShape, 'symmetry'> {
  const by = nearerFrame(look, most);
  if (!by) return { frame, look };
  return { frame: nested(frame, asMouth(look.jaw, by)), look: lookedAnew(look, by) };
}

/** A turn of the arch's own frame as the mouth's coordinates have it: a lower arch is looked at turned over. */
function asMouth(jaw: Jaw, by: Frame): Frame {
  const f = frameToArch(jaw, by);
  return jaw === 'upper' ? f : { origin: f.origin, x: scale(f.x, -1), y: f.y, z: scale(f.z, -1) };
}

/** More than this is no refinement: the outline or the rooms are wrong, and a person looks at it. House limits. */
const MOST = { mm: 5, deg: 10 };

/**
 * Where the rooms of the teeth say that the mouth lies, in the arch's own frame as it is. Nothing without both centrals
 * and a pair behind.
 */
export function nearerFrame(
  look: LookedAt,
  most: { readonly mm: number; readonly deg: number } = MOST,
): Frame | undefined {
  const { jaw, row, teeth } = look;
  const room = (side: 'right' | 'left', position: number) => teeth.get(quadrantOf(jaw, side) + position);
  const [right, left] = [room('right', 1), room('left', 1)];
  if (!right || !left) return undefined;
  const [mx, my] = placeOnRow(row, (right.to + left.from) / 2);
  let [dx, dy] = [0, 0];
  for (const position of [2, 3, 4]) {
    const [r, l] = [room('right', position), room('left', position)];
    if (!r || !l) continue;
    const [a, b] = [placeOnRow(row, (r.from + r.to) / 2), placeOnRow(row, (l.from + l.to) / 2)];
    dx += b[0] - a[0];
    dy += b[1] - a[1];
  }
  if (dx <= 0) return undefined;
  const far = hypot(dx, dy);
  const [c, s] = [dx / far, dy / far];
  const edge = Math.min(right.edgeMm, left.edgeMm);
  if (hypot(mx, my, edge) > most.mm || Math.abs(Math.atan2(s, c)) > (most.deg * Math.PI) / 180) return undefined;
  const level = rollOf(look);
  const x = normalize([c, s, level]);
  const z = normalize(cross(x, [-s, c, 0]));
  return { origin: [mx, my, edge], x, y: cross(z, x), z };
}

/** Sides that are so nearly level are left as the plane of all edges has them: a tangent. House value. */
const LEVEL = Math.tan((1.2 * Math.PI) / 180);

/**
 * How much higher the edges of the one side stand than those of the same teeth of the other, for each mm between them:
 * what lies against the cusps of one side tips the plane of all that stands. By the median of the pairs; 0 where they
 * are level, or too few.
 */
function rollOf({ jaw, row, teeth }: LookedAt): number {
  const slopes = [2, 3, 4, 5].flatMap((position) => {
    const [r, l] = [teeth.get(quadrantOf(jaw, 'right') + position), teeth.get(quadrantOf(jaw, 'left') + position)];
    if (!r || !l) return [];
    const [a, b] = [placeOnRow(row, (r.from + r.to) / 2), placeOnRow(row, (l.from + l.to) / 2)];
    return [(l.edgeMm - r.edgeMm) / (b[0] - a[0] || 1)];
  });
  slopes.sort((a, b) => a - b);
  const own = slopes.length < 3 ? 0 : (slopes[slopes.length >> 1] as number);
  return Math.abs(own) < LEVEL ? 0 : own;
}

/** The same jaw in another frame: its folds stay, its row and rooms are found again. */
export function lookedAnew(look: LookedAt, by: Frame): LookedAt {
  const mesh = meshInFrame(look.mesh, by);
  const whole = { ...look.whole, mesh: look.whole.thinned ? meshInFrame(look.whole.mesh, by) : mesh };
  const smooth = { mesh: meshInFrame(look.smooth.mesh, by), normals: directionsInFrame(look.smooth.normals, by) };
  const row = rowCurve(smooth.mesh);
  const told = {
    teeth: new Map([...look.told.teeth].map(([t, p]) => [t, toLocal(by, p)])),
    ...(look.told.middle && { middle: toLocal(by, look.told.middle) }),
  };
  const sight = rowSight(smooth.mesh, smooth.normals, row);
  return { ...look, whole, mesh, smooth, row, told, ...rowAsTold(sight, row, look.jaw, look.missing, told) };
}

/** The jaw as it was looked at, in the mouth's coordinates. */
export const inMouthOf = ({ jaw, whole }: LookedAt): Mesh => meshToArch(jaw, whole.mesh);
