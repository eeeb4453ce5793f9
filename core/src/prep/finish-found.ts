import { vertexNormals } from '../geometry/mesh.js';
import type { Tree } from '../geometry/tree/build.js';
import { closestPoints } from '../geometry/tree/closest.js';
import { rayCaster } from '../geometry/tree/ray.js';
import { type SignedField, signedDistances } from '../geometry/tree/signed.js';
import { add, distance, dot, normalize, scale, sub, type Vec3 } from '../geometry/vec.js';
import type { TargetSurface } from '../reduction/target.js';
import { ANGLES, DIRECTIONS, NEAR_FINISH, NECK, NECK_ROWS, ROWS, TIP } from '../reduction/target-grid.js';
import type { Fdi } from '../teeth/notation.js';
import { LOOKED } from './finish-limits.js';
import { isSeen, type SeenField, seenDistances } from './seen.js';

/** Where a cut ends in one direction from the tooth's axis, against where it was to end. */
export interface FinishPlace {
  /** Index of the direction. */
  readonly at: number;
  /** Where it was to end, and where it ends; nothing where no end is found. */
  readonly wished: Vec3;
  readonly found?: Vec3;
  /** How far it ends from there towards the edge, mm; below 0 towards the root. */
  readonly highMm?: number;
  /** How deep the cut is at half a millimetre from its end, and how deep it was to be, mm. */
  readonly depthMm?: number;
  readonly wishedDepthMm?: number;
  /**
   * By how much it is cut deeper just inside its end than behind, beyond what was asked, mm: what stands outside such a
   * groove is a lip; below 0 where it deepens. Where it ends all around: how far its floor lies nearer the root than its
   * own rim. Nothing where the scan does not show it.
   */
  readonly lipMm?: number;
  /** The form that its profile has. */
  readonly form?: FoundForm;
  /**
   * Where the scan shows too little uncut tooth beyond it to say where it ends, or nothing at all there: it is not
   * found then, and not missing either.
   */
  readonly hidden?: true;
  /** Somebody has drawn it there. */
  readonly byHand?: true;
}

/** Where somebody has drawn the end of a cut: in one direction of a tooth, from the planned line towards the edge, mm. */
export interface FinishByHand {
  readonly tooth: Fdi;
  readonly at: number;
  readonly mm: number;
}

/** So much uncut tooth has to be seen beyond an end to know that it is one, mm. House value. */
const BEYOND_MM = 0.15;
/** So much of a direction has to be seen to call an end missing. House value. */
const MOSTLY_SEEN = 0.7;

/** The forms that a profile is told apart by. */
export type FoundForm = 'shoulder' | 'chamfer' | 'knife edge';

/** A cut begins where so much is gone, mm: more than two scans are off. House value. */
const BEGINS_MM = 0.12;
/** Where less than this was to be cut nobody can say where it ends, mm. House value. */
const SHALLOW_MM = 0.2;
/** And stays gone over so far, mm. */
const STAYS_MM = 0.3;
/** In front is what looks to the front by so much: the cosine of 50°. House value. */
const FRONT = 0.64;
const STEP_MM = 0.05;
/** A ledge is as wide as the cut is deep here, from its end, mm. */
const WIDTH_AT_MM = 0.5;
/** A groove is looked for so far inside an end, and the cut that it is told against so far, mm. House values. */
const LIP_MM = { groove: [0.2, 0.6], behind: [0.9, 1.2] } as const;
/** A floor is looked for so far inside an end that goes all around, in such steps, from so far off, mm. House values. */
const FLOOR_MM = { from: 0.05, to: 0.9, step: 0.07, off: 6 } as const;
/** What lies further in is the other side of the tooth, mm. */
const FAR_IN_MM = 2.5;
/** A profile that reaches so much of that depth at once is a shoulder; one with less than its share of what
 * was asked has no ledge. */
const SHOULDER = { atMm: 0.15, share: 0.75 } as const;
const KNIFE_SHARE = 0.5;

/**
 * The end of a cut all around, found by where the tooth as it was and as it was scanned part; the planned line is
 * looked for on the target in the same way, so that both are told by one rule. Directions in which nothing was to be
 * cut are left out.
 * @param scan the prepared tooth
 * @param beyond all of the scan that was picked as no tooth, and how far from the planned line the gum began, mm
 * @param byHand by direction how far from the planned line somebody has drawn the end, towards the edge, mm
 * @param around whether it is to end all around; else only in front, where it runs out at the sides
 */
export function finishFound(
  target: TargetSurface,
  scan: SeenField,
  planned: SignedField,
  around: boolean,
  beyond?: { readonly rest: Tree; readonly gumMm: number },
  byHand: ReadonlyMap<number, number> = new Map(),
): FinishPlace[] {
  if (target.finishLine.length === 0) return [];
  const columns = Array.from({ length: ANGLES }, (_, at) => at)
    .filter((at) => (around || -(DIRECTIONS[at] as Vec3)[1] > FRONT) && isCut(target, at))
    .map((at) => ({ at, places: alongColumn(target, at) }));
  const points = Float64Array.from(columns.flatMap((c) => c.places.flatMap((p) => [...p.place])));
  const [gone, wished] = [seenDistances(scan, points), signedDistances(planned, points)];
  if (scan.made && beyond)
    notPicked(
      gone,
      columns.flatMap((c) => c.places.map((p) => (isBetween(c.at) ? undefined : p))),
      beyond.gumMm,
      beyond.rest,
    );
  const lipIn = around ? floorFinder(target, scan) : grooveFinder(target, scan, planned);
  let first = 0;
  return columns.flatMap(({ at, places }): FinishPlace[] => {
    const own = {
      gone: gone.subarray(first, first + places.length),
      wished: wished.subarray(first, first + places.length),
    };
    first += places.length;
    const end = endOf(own.wished);
    if (end === undefined) return [];
    const line = places[end] as Along;
    const drawn = byHand.get(at);
    const is = drawn === undefined ? betweenSeen(own.gone, endOf(own.gone)) : nearestAlong(places, line.mm + drawn);
    const from = own.gone.findIndex((mm) => !Number.isNaN(mm));
    const hides =
      is === undefined
        ? own.gone.filter((mm) => !Number.isNaN(mm)).length < MOSTLY_SEEN * own.gone.length
        : from > 0 && (is - from) * STEP_MM < BEYOND_MM;
    if (hides && drawn === undefined) return [{ at, wished: line.place, hidden: true }];
    if (is === undefined) return [{ at, wished: line.place }];
    const here = places[is] as Along;
    const depthAt = (of: Float64Array, from: number, mm: number) =>
      of[Math.min(of.length - 1, from + Math.round(mm / STEP_MM))] as number;
    const depthMm = depthAt(own.gone, is, WIDTH_AT_MM);
    return [
      {
        at,
        wished: line.place,
        found: here.place,
        highMm: here.mm - line.mm,
        ...(drawn !== undefined && { byHand: true as const }),
        depthMm,
        wishedDepthMm: depthAt(own.wished, end, WIDTH_AT_MM),
        ...lipIn(at, places, is, end),
        form:
          depthMm < KNIFE_SHARE * depthAt(own.wished, end, WIDTH_AT_MM)
            ? 'knife edge'
            : depthAt(own.gone, is, SHOULDER.atMm) >= SHOULDER.share * depthMm
              ? 'shoulder'
              : 'chamfer',
      },
    ];
  });
}

/**
 * A lip in one direction, from where a cut ends and where it was to end, as indices of places along it.
 */
type LipIn = (at: number, places: readonly Along[], is: number, end: number) => { readonly lipMm?: number };

/** Depth along the way straight into the tooth as it was, from a place of it. */
type DepthAt = (at: number, from: Along) => number | undefined;

const normalsOf = new WeakMap<TargetSurface, Float64Array>();

/** In front: the deepest of the groove against the cut behind it, less the same of what was asked. */
function grooveFinder(target: TargetSurface, scan: SeenField, planned: SignedField): LipIn {
  const normals = normalsOf.get(target) ?? vertexNormals(target.before);
  normalsOf.set(target, normals);
  const inward = ({ row }: Along, at: number): Vec3 => {
    const i = 3 * (row * ANGLES + at);
    return [-(normals[i] as number), -(normals[i + 1] as number), -(normals[i + 2] as number)];
  };
  const depthIn = (tree: Tree): DepthAt => {
    const cast = rayCaster(tree);
    return (at, from) => {
      const hit = cast.first(from.place, inward(from, at))?.distance;
      return hit !== undefined && hit < FAR_IN_MM ? hit : undefined;
    };
  };
  const [is, wished] = [depthIn(scan.tree), depthIn(planned.tree)];
  const groove = (depth: DepthAt, at: number, places: readonly Along[], from: number) => {
    const within = ([a, b]: readonly [number, number]) =>
      places
        .slice(from + Math.round(a / STEP_MM), from + Math.round(b / STEP_MM) + 1)
        .filter((_, i) => i % 2 === 0)
        .flatMap((p) => depth(at, p) ?? []);
    const [inside, behind] = [within(LIP_MM.groove), within(LIP_MM.behind)];
    return inside.length === 0 || behind.length === 0 ? undefined : Math.max(...inside) - Math.min(...behind);
  };
  return (at, places, end, wishedEnd) => {
    const [own, asked] = [groove(is, at, places, end), groove(wished, at, places, wishedEnd)];
    return own === undefined || asked === undefined ? {} : { lipMm: own - Math.max(0, asked) };
  };
}

/**
 * All around: how far the floor of the ledge lies nearer the root than its own rim, by rays from the edge along the
 * tooth's axis. A ledge rises from its end to the wall; inside a lip it dips first.
 */
function floorFinder(target: TargetSurface, scan: SeenField): LipIn {
  const vertex = (i: number): Vec3 => target.before.positions.subarray(3 * i, 3 * i + 3) as unknown as Vec3;
  const [tip, neck] = [vertex(TIP), vertex(NECK)];
  const axis = normalize(sub(neck, tip));
  const [cast, seen] = [rayCaster(scan.tree), isSeen(scan)];
  return (_, places, own) => {
    const { place } = places[own] as Along;
    const off = sub(tip, place);
    const inward = normalize(sub(off, scale(axis, dot(off, axis))));
    const above = sub(place, scale(axis, FLOOR_MM.off));
    let [rim, dip]: [number, number | undefined] = [Infinity, undefined];
    for (let mm: number = FLOOR_MM.from; mm <= FLOOR_MM.to; mm += FLOOR_MM.step) {
      const hit = cast.first(add(above, scale(inward, mm)), axis);
      if (!hit || !seen(hit.face)) continue;
      rim = Math.min(rim, hit.distance);
      dip = Math.max(dip ?? 0, hit.distance - rim);
    }
    return dip === undefined ? {} : { lipMm: dip };
  };
}

/**
 * A ledge is a fold, and teeth are told from gum by folds: what lies beyond it may have been left with the gum. It is
 * uncut tooth all the same where it lies on the tooth as it was, at a place over which no gum lay. Between
 * teeth the papilla lay on it, so that nothing is told there.
 */
function notPicked(gone: Float64Array, places: readonly (Along | undefined)[], gumMm: number, rest: Tree): void {
  const own = Array.from(gone.keys()).filter((i) => Number.isNaN(gone[i]) && (places[i]?.mm ?? -Infinity) > gumMm);
  if (own.length === 0) return;
  const near = closestPoints(rest, Float64Array.from(own.flatMap((i) => [...(places[i] as Along).place])));
  own.forEach((i, k) => {
    if ((near.distances[k] as number) < BEGINS_MM) gone[i] = 0;
  });
}

/** The place along a direction that lies nearest to a length. */
const nearestAlong = (places: readonly Along[], mm: number): number =>
  places.reduce((best, p, i) => (Math.abs(p.mm - mm) < Math.abs((places[best] as Along).mm - mm) ? i : best), 0);

/** Where places before an end were not seen, it lies in their middle. */
function betweenSeen(gone: Float64Array, is: number | undefined): number | undefined {
  if (is === undefined) return undefined;
  let seen = is - 1;
  while (seen >= 0 && Number.isNaN(gone[seen])) seen--;
  return seen < 0 ? is : Math.round((is + seen) / 2);
}

interface Along {
  readonly place: Vec3;
  /** Along the column from the planned line, towards the edge. */
  readonly mm: number;
  /** The row of the grid that lies before it. */
  readonly row: number;
}

const vertexOf = ({ before }: TargetSurface, row: number, at: number): Vec3 => {
  const i = 3 * (row * ANGLES + at);
  return [before.positions[i] as number, before.positions[i + 1] as number, before.positions[i + 2] as number];
};

/** Whether a direction looks to the tooth beside. */
const isBetween = (at: number): boolean => {
  const [x, y] = DIRECTIONS[at] as Vec3;
  return Math.abs(x) > Math.abs(y);
};

/** Whether a direction's column is cut near its end. */
function isCut({ removedMm }: TargetSurface, at: number): boolean {
  for (let row = NECK_ROWS; row < NECK_ROWS + NEAR_FINISH.length + 4; row++)
    if ((removedMm[row * ANGLES + at] as number) > SHALLOW_MM) return true;
  return false;
}

/** Places on the tooth as it was, evenly from the root to the edge along a direction. */
function alongColumn(target: TargetSurface, at: number): Along[] {
  const out: Along[] = [];
  let mm = 0;
  for (let row = NECK_ROWS; row > 0 && mm > -LOOKED.root; row--) {
    mm -= distance(vertexOf(target, row, at), vertexOf(target, row - 1, at));
    if (row === 1 || mm <= -LOOKED.root) {
      fill(target, at, row - 1, mm, out);
      break;
    }
  }
  return out;
}

function fill(target: TargetSurface, at: number, fromRow: number, fromMm: number, out: Along[]): void {
  let [mm, next] = [fromMm, Math.max(fromMm, -LOOKED.root)];
  for (let row = fromRow; row + 1 < ROWS && mm < LOOKED.edge; row++) {
    const [p, q] = [vertexOf(target, row, at), vertexOf(target, row + 1, at)];
    const far = distance(p, q);
    for (; next <= mm + far && next <= LOOKED.edge; next += STEP_MM) {
      const t = far === 0 ? 0 : Math.max(0, (next - mm) / far);
      const place: Vec3 = [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1]), p[2] + t * (q[2] - p[2])];
      out.push({ mm: next, place, row });
    }
    mm += far;
  }
}

/** The first place from the root on from which more is gone than two scans are off. */
function endOf(gone: Float64Array): number | undefined {
  const stays = Math.round(STAYS_MM / STEP_MM);
  for (let i = 0; i + stays < gone.length; i++) {
    let all = true;
    for (let k = 0; all && k <= stays; k++) all = (gone[i + k] as number) > BEGINS_MM;
    if (all) return i;
  }
  return undefined;
}
