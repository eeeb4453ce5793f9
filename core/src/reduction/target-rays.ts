import { crownZenith, type PlannedTooth } from '../contour/plan.js';
import { directionToParent, type Frame, shift, toLocal, toParent } from '../geometry/frame.js';
import { buildTree, refitTree, type Tree } from '../geometry/tree/build.js';
import { rayCaster } from '../geometry/tree/ray.js';
import type { SignedField } from '../geometry/tree/signed.js';
import type { Vec3 } from '../geometry/vec.js';
import { median } from '../working/middle.js';
import { offsetSheet, type Rings, ringsIn } from './offset-sheet.js';

/** How far out rays begin, mm. */
const OUT_MM = 14;
/** Nothing is told nearer to the axis, mm. House value. */
export const THINNEST_MM = 0.15;
/** The side of a tooth is followed upwards in such steps, mm. */
const SIDE_STEP_MM = { coarse: 0.3, fine: 0.05 } as const;
/** What looks towards the root more than a side does closes the neck: the cosine of 45° and a little. House value. */
const CLOSING = 0.75;

/** A ridge is looked for so far from the axis, in such steps, mm. */
const RIDGE_MM = 6;
const RIDGE_STEP_MM = 0.25;
/** A side that stands out by so much over its neck bulges, mm. House value. */
const BULGE_MM = 0.25;
/** Bulges are told for so many directions. */
const BULGE_DIRECTIONS = 64;

/** A place of a tooth, as shares of the crown's height and of the tooth's depth from the face. */
export interface AxisPlace {
  readonly height: number;
  readonly back: number;
  /** It stands at least so far behind the face, mm, at a height over the planned edge, mm. */
  readonly behind?: { readonly mm: number; readonly z: number };
  /** It stands in the middle of what is left when so much goes in front and behind, mm, at a height. */
  readonly between?: { readonly frontMm: number; readonly backMm: number; readonly z: number };
}

/** What a ray from outside to the axis meets: how far from the axis, how squarely, and how much it looks to the root. */
export interface Side {
  readonly r: number;
  readonly facing: number;
  readonly axial: number;
}

/**
 * A tooth and its planned crown as they are seen from the planned axis, moved across to the middle of the tooth. Heights
 * are mm over the planned edge; directions are unit vectors across the axis. Asked of one set of directions.
 */
export class TargetRays {
  readonly zenith: number;
  /** Where the middle of the tooth's depth lies, mm behind the axis; below 0 in front of it. */
  readonly middleMm: number;
  /** z along the planned crown's axis towards the root, 0 at its edge; x to the patient's left, y backward. */
  readonly frame: Frame;
  private readonly ownBulges: boolean[] = [];
  private firstSheet: Tree | undefined;
  private rings: Rings | undefined;
  private ownEdge: number | undefined;
  private ownPlanEdge: number | undefined;
  private ownEnds: readonly number[] | undefined;
  private ownGum: readonly number[] | undefined;
  /** What was met last on each ray of a grid, by the height at which it was asked. */
  private readonly met = new Map<number, { z: number; side: Side | undefined; plan?: number | undefined }>();
  /** How far the planned surface reaches, mm; nothing where there is none. */
  readonly plan: (u: Vec3, z: number) => number | undefined;
  private readonly tooth: (
    from: Vec3,
    along: Vec3,
    frame: Frame,
  ) => { at: number; facing: number; axial: number } | undefined;

  constructor(
    existing: SignedField,
    private readonly planned: PlannedTooth,
    /** Through which place of the tooth the axis goes: a height as a share of the crown's, and how far back. */
    axis: AxisPlace,
  ) {
    this.zenith = crownZenith(planned.crown)[2];
    const cast = rayCaster(existing.tree);
    const { faceNormals } = existing;
    this.tooth = (from, along, frame) => {
      const direction = directionToParent(frame, along);
      const hit = cast.first(toParent(frame, from), direction, 2 * OUT_MM);
      if (!hit) return undefined;
      const n = faceNormals.subarray(3 * hit.face, 3 * hit.face + 3);
      const with_ = (d: Vec3) => (n[0] as number) * d[0] + (n[1] as number) * d[1] + (n[2] as number) * d[2];
      return { at: hit.distance, facing: -with_(direction), axial: with_(frame.z) };
    };
    const through = this.through(axis);
    this.frame = shift(planned.frame, through);
    this.middleMm = this.middle(axis.height * this.zenith, axis.back)[1] - through[1];
    this.plan = this.sheet(() => 0);
  }

  private through({ height, back, behind, between }: AxisPlace): Vec3 {
    const [x, y, z] = this.middle(height * this.zenith, back);
    if (between) {
      const { frontMm, backMm } = between;
      const face = this.tooth([x, -OUT_MM, between.z], [0, 1, 0], this.planned.frame);
      const behind = this.tooth([x, OUT_MM, between.z], [0, -1, 0], this.planned.frame);
      return [x, face && behind ? (face.at - OUT_MM + frontMm + OUT_MM - behind.at - backMm) / 2 : y, z];
    }
    if (!behind) return [x, y, z];
    const hit = this.tooth([x, -OUT_MM, behind.z], [0, 1, 0], this.planned.frame);
    return [x, hit ? Math.max(y, hit.at - OUT_MM + behind.mm) : y, z];
  }

  /** A place within the tooth at a height: midway between its sides, and so far from its face to its back. */
  private middle(z: number, back: number): Vec3 {
    const { frame } = this.planned;
    const along = (d: Vec3, from: Vec3) => this.tooth(from, d, frame)?.at ?? OUT_MM;
    let [x, y] = [0, 0];
    for (let round = 0; round < 2; round++) {
      x = (along([1, 0, 0], [-OUT_MM, y, z]) - along([-1, 0, 0], [OUT_MM, y, z])) / 2;
      const [face, behind] = [along([0, 1, 0], [x, -OUT_MM, z]) - OUT_MM, OUT_MM - along([0, -1, 0], [x, OUT_MM, z])];
      y = face + back * (behind - face);
    }
    return [x, y, 0];
  }

  /** The planned surface moved inward, as it is met from outside. @param by how far, mm, at its places */
  sheet(by: (at: Vec3) => number): (u: Vec3, z: number) => number | undefined {
    this.rings ??= ringsIn(this.planned, this.frame);
    const mesh = offsetSheet(this.planned, this.rings, by);
    // Every sheet has the same triangles, not far from the first one's.
    this.firstSheet ??= buildTree(mesh);
    const own = rayCaster(refitTree(this.firstSheet, mesh));
    return (u, z) => {
      const hit = own.first([OUT_MM * u[0], OUT_MM * u[1], z], [-u[0], -u[1], 0], 2 * OUT_MM);
      return hit && OUT_MM - hit.distance;
    };
  }

  /** How far the tooth reaches. */
  side(u: Vec3, z: number): Side | undefined {
    const hit = this.tooth([OUT_MM * u[0], OUT_MM * u[1], z], [-u[0], -u[1], 0], this.frame);
    return (
      hit && {
        r: Math.max(THINNEST_MM, OUT_MM - hit.at),
        facing: Math.max(0.05, hit.facing),
        axial: hit.axial,
      }
    );
  }

  /** The same for a place of a grid, remembered for the next design. */
  sideAt(place: number, u: Vec3, z: number): Side | undefined {
    return this.at(place, u, z).side;
  }

  /** How far the planned surface reaches at a place of a grid, remembered too. */
  planAt(place: number, u: Vec3, z: number): number | undefined {
    const own = this.at(place, u, z);
    if (!('plan' in own)) own.plan = this.plan(u, z);
    return own.plan;
  }

  private at(place: number, u: Vec3, z: number) {
    const before = this.met.get(place);
    if (before?.z === z) return before;
    const own: { z: number; side: Side | undefined; plan?: number | undefined } = { z, side: this.side(u, z) };
    this.met.set(place, own);
    return own;
  }

  /** The tooth's lowest place over a point across the axis. */
  lowest(x: number, y: number): number | undefined {
    const hit = this.tooth([x, y, -OUT_MM], [0, 0, 1], this.frame);
    return hit && hit.at - OUT_MM;
  }

  /** How low the tooth reaches in the half plane of a direction: its edge or cusp there. */
  ridge(u: Vec3): number {
    let least = Infinity;
    for (let r = RIDGE_STEP_MM; r < RIDGE_MM; r += RIDGE_STEP_MM)
      least = Math.min(least, this.lowest(r * u[0], r * u[1]) ?? Infinity);
    return least === Infinity ? this.edge : least;
  }

  /** Whether the planned surface stands further out somewhere than at the neck: a bulge in this direction. */
  bulges(u: Vec3): boolean {
    const key = Math.round((turned(Math.atan2(u[1], u[0])) / (2 * Math.PI)) * BULGE_DIRECTIONS) % BULGE_DIRECTIONS;
    let known = this.ownBulges[key];
    if (known === undefined) {
      const neck = this.plan(u, 0.95 * this.zenith) ?? 0;
      let most = 0;
      for (let share = 0.3; share < 0.8; share += 0.1) most = Math.max(most, this.plan(u, share * this.zenith) ?? 0);
      known = most - neck > BULGE_MM;
      this.ownBulges[key] = known;
    }
    return known;
  }

  /** The tooth's own edge. */
  get edge(): number {
    this.ownEdge ??= this.lookForEdge();
    return this.ownEdge;
  }

  private lookForEdge(): number {
    const half = this.planned.crown.size.widthMm / 2;
    let lowest = Infinity;
    for (let x = -0.6 * half; x <= 0.6 * half; x += 0.1 * half)
      for (let y = -3; y <= 3; y += 0.25) lowest = Math.min(lowest, this.lowest(x, y) ?? Infinity);
    return lowest;
  }

  /** The planned edge as it was brushed, over the one of the form: the middle one of three places across. */
  get planEdge(): number {
    this.ownPlanEdge ??= brushedEdge(this.planned);
    return this.ownPlanEdge;
  }

  /** Where the tooth's own side ends in each direction, without single rays that slipped off. */
  ends(directions: readonly Vec3[]): readonly number[] {
    if (!this.ownEnds) {
      const raw = directions.map((u) => this.end(u));
      const n = raw.length;
      this.ownEnds = raw.map((_, k) => median([-2, -1, 0, 1, 2].map((d) => raw[(k + d + n) % n] as number)));
    }
    return this.ownEnds;
  }

  private end(u: Vec3): number {
    let end = this.edge + 0.4 * (this.zenith - this.edge);
    for (const step of [SIDE_STEP_MM.coarse, SIDE_STEP_MM.fine])
      for (let z = end + step; z <= this.zenith + 1.5; z += step) {
        const met = this.side(u, z);
        if (!met || met.axial > CLOSING) break;
        end = z;
      }
    return end;
  }

  /**
   * The gum line in each direction: the planned crown's first ring, which goes down to the papillae, carried over to the
   * tooth that is there by where it stands between the middle and the sides.
   */
  gum(directions: readonly Vec3[]): readonly number[] {
    this.ownGum ??= this.gumLine(directions);
    return this.ownGum;
  }

  private gumLine(directions: readonly Vec3[]): number[] {
    const { crown, mesh } = this.planned;
    const ring = Array.from({ length: crown.ringSize }, (_, k) =>
      toLocal(this.frame, mesh.positions.subarray(3 * k, 3 * k + 3) as unknown as Vec3),
    );
    const reach = (axis: 0 | 1) => {
      const [least, most] = [Math.min(...ring.map((p) => p[axis])), Math.max(...ring.map((p) => p[axis]))];
      return { middle: (most + least) / 2, half: (most - least) / 2 };
    };
    const [across, through] = [reach(0), reach(1)];
    const known = ring
      .map(([x, y, z]) => ({
        a: turned(Math.atan2(-(y - through.middle) / through.half, (x - across.middle) / across.half)),
        z,
      }))
      .sort((p, q) => p.a - q.a);
    const r = (u: Vec3) => this.side(u, 0.7 * this.zenith)?.r ?? 1;
    const own = { across: (r([1, 0, 0]) + r([-1, 0, 0])) / 2, through: (r([0, 1, 0]) + r([0, -1, 0])) / 2 };
    return directions.map((u) => {
      const a = turned(Math.atan2(-u[1] / own.through, u[0] / own.across));
      const at = known.findIndex((p) => p.a >= a);
      const q = known[Math.max(0, at)] as (typeof known)[number];
      const p = known[(at > 0 ? at : known.length) - 1] as (typeof known)[number];
      return p.z + (q.z - p.z) * (turned(a - p.a) / (turned(q.a - p.a) || 1));
    });
  }
}

/** The lowest places of a planned crown in three parts across. */
function brushedEdge({ crown, mesh, frame }: PlannedTooth): number {
  const low = [Infinity, Infinity, Infinity];
  for (let i = 0; i < mesh.positions.length; i += 3) {
    const [x, , z] = toLocal(frame, mesh.positions.subarray(i, i + 3) as unknown as Vec3);
    const part = Math.round((x / crown.size.widthMm) * 5) + 1;
    if (part >= 0 && part <= 2) low[part] = Math.min(low[part] as number, z);
  }
  return median(low.filter(Number.isFinite));
}

const turned = (a: number) => (a + 2 * Math.PI) % (2 * Math.PI);
