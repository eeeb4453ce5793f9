import type { ExistingArch } from '../contour/fit.js';
import { inMouth, type PlannedTooth } from '../contour/plan.js';
import type { SegmentedScan } from '../contour/scan.js';
import type { ColumnGrid } from '../geometry/columns.js';
import { type Bounds, bounds, type Mesh } from '../geometry/mesh.js';
import { type SignedField, signedDistances, signedField } from '../geometry/tree/signed.js';
import { hypot, type Vec3 } from '../geometry/vec.js';
import { biteGrid, type HeightField, heightField, type JawTooth } from '../occlusion/heights.js';
import { type LeadBack, leadBack } from '../occlusion/lead-back.js';
import {
  alongAngle,
  clearances,
  type Direction,
  type JawShift,
  leadOf,
  type Movement,
  onTheTeeth,
  spaceOver,
  spaceUnder,
  type ToothClearance,
} from '../occlusion/movement.js';
import { type Overlap, overlapOf } from '../occlusion/overlap.js';
import { FAR_MM } from '../reduction/bite-room.js';
import { type Fdi, jawOf } from '../teeth/notation.js';

/** How the jaw is led: by its teeth, or along an angle in degrees. */
export type Guidance = 'teeth' | number;

export interface BiteWish {
  readonly which: 'planned' | 'existing';
  readonly direction: Direction;
  readonly alongMm: number;
  readonly guidance: Guidance;
}

/** The bite at one place of a movement. */
export interface BiteView {
  readonly shift: JawShift;
  readonly dropMm: number;
  /** Steepness of the whole way of 3 mm. */
  readonly angleDeg: number;
  readonly teeth: readonly ToothClearance[];
  readonly touching: readonly Fdi[];
  readonly othersMm: number | undefined;
  readonly lifts: boolean;
  /**
   * Vertical space under every vertex of the upper teeth and over every one of the lower, mm; NaN where no tooth stands
   * across.
   */
  readonly maps: readonly (readonly [Fdi, Float32Array])[];
  /** Of the centrals in the closed bite, as they are and as planned. */
  readonly overlap: { readonly before: readonly CentralOverlap[]; readonly planned: readonly CentralOverlap[] };
}

export interface CentralOverlap extends Overlap {
  readonly tooth: Fdi;
}

/** Steps on the way to a place, so that its steepness is known. */
const WAY_MM = 3;
/** On the way of a preparation the bite is looked at so often. */
const WAY_STEP_MM = 1.5;
/** Teeth further off than this are not met, mm. */
const NEAR_MM = 6;
/** Further off than this in the closed bite nothing comes within FAR_MM on its way, mm. */
const BEYOND_MM = FAR_MM + 2 * WAY_MM;

const fields = new WeakMap<Mesh, SignedField>();

/** The field of a tooth across, made once. */
function fieldOf(mesh: Mesh): SignedField {
  const known = fields.get(mesh) ?? signedField(mesh);
  fields.set(mesh, known);
  return known;
}

const middleOf = ({ min, max }: Bounds): Vec3 => [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2];

/** How far a place lies from a box, mm; 0 within it. */
function boxDistance({ min, max }: Bounds, x: number, y: number, z: number): number {
  const out = (v: number, k: 0 | 1 | 2) => Math.max(0, min[k] - v, v - max[k]);
  return hypot(out(x, 0), out(y, 1), out(z, 2));
}

/** Whether two surfaces' boxes come near each other. */
function near(a: Mesh, b: Mesh): boolean {
  const [p, q] = [bounds(a), bounds(b)];
  return ([0, 1, 2] as const).every((k) => p.min[k] < q.max[k] + NEAR_MM && q.min[k] < p.max[k] + NEAR_MM);
}

/** Both rows of teeth in the mouth's coordinates and the sides with which they bite. */
interface Rows {
  readonly upper: readonly JawTooth[];
  readonly lower: readonly JawTooth[];
  readonly upperField: HeightField;
  readonly lowerField: HeightField;
  /** Where the jaw comes by on its ways, led by these teeth; worked out when first asked. */
  ways?: readonly JawShift[];
}

/** The two rows of teeth, as they are and with planned crowns in their places; made anew only for what has changed. */
export class Bite {
  private readonly existing: Rows;
  private readonly grid: ColumnGrid;
  private planned: { readonly of: ReadonlyMap<Fdi, PlannedTooth>; readonly rows: Rows } | undefined;

  /** @param arch the upper one */
  constructor(arch: ExistingArch, scan: SegmentedScan) {
    const upper = [...arch.teeth].map(([tooth, t]) => ({ tooth, mesh: t.field.mesh }));
    const lower = [...scan.teeth].map(([tooth, mesh]) => ({ tooth, mesh }));
    this.grid = biteGrid([...upper, ...lower]);
    this.existing = {
      upper,
      lower,
      upperField: heightField(upper, 'upper', this.grid),
      lowerField: heightField(lower, 'lower', this.grid),
    };
  }

  /** The rows with planned crowns in them: made again when another map of crowns is given. */
  private rows(planned: ReadonlyMap<Fdi, PlannedTooth> | undefined): Rows {
    if (!planned) return this.existing;
    if (this.planned?.of !== planned) this.planned = { of: planned, rows: this.withCrowns(planned) };
    return this.planned.rows;
  }

  private withCrowns(planned: ReadonlyMap<Fdi, PlannedTooth>): Rows {
    const now = this.existing;
    const crowned = (row: readonly JawTooth[]) =>
      row.some((t) => planned.has(t.tooth))
        ? row.map((t) => {
            const own = planned.get(t.tooth);
            return own ? { tooth: t.tooth, mesh: inMouth(own).mesh } : t;
          })
        : row;
    const [upper, lower] = [crowned(now.upper), crowned(now.lower)];
    return {
      upper,
      lower,
      upperField: upper === now.upper ? now.upperField : heightField(upper, 'upper', this.grid),
      lowerField: lower === now.lower ? now.lowerField : heightField(lower, 'lower', this.grid),
    };
  }

  /** The closed bite of every tooth of either jaw that stands over or under another. */
  closed(planned: ReadonlyMap<Fdi, PlannedTooth> | undefined): ToothClearance[] {
    const { upperField, lowerField } = this.rows(planned);
    return [
      ...clearances(upperField, lowerField, [0, 0, 0]),
      ...clearances(upperField, lowerField, [0, 0, 0], 'lower'),
    ];
  }

  /**
   * How far every vertex of a tooth that is put in the place of its planned crown stays from the teeth across, mm, below
   * 0 within them: in the closed bite, and the least of it on the way to the front and to both sides, led by the planned
   * teeth. Beyond FAR_MM they say only that it
   * stays beyond.
   */
  room(tooth: Fdi, mesh: Mesh, planned: ReadonlyMap<Fdi, PlannedTooth>): { closed: Float32Array; moved: Float32Array } {
    const rows = this.rows(planned);
    const upper = jawOf(tooth) === 'upper';
    const { upperField, lowerField } = rows;
    // Only teeth near enough to be met at all.
    const middle = middleOf(bounds(mesh));
    const fields = (upper ? rows.lower : rows.upper)
      .filter((t) => near(t.mesh, mesh))
      .map((t) => fieldOf(t.mesh))
      .sort((a, b) => boxDistance(a.box, ...middle) - boxDistance(b.box, ...middle));
    const way = upper ? -1 : 1;
    const away = ([x, y, z]: JawShift, of: Uint32Array): Float32Array => {
      const shift = [way * x, way * y, way * z] as const;
      const at = (v: number, k: 0 | 1 | 2) => (mesh.positions[3 * v + k] as number) + shift[k];
      const least = new Float32Array(of.length).fill(BEYOND_MM);
      for (const f of fields) {
        // A tooth whose box lies further off than another tooth can't be the nearest.
        const near = Uint32Array.from(of.keys()).filter(
          (i) =>
            boxDistance(f.box, at(of[i] as number, 0), at(of[i] as number, 1), at(of[i] as number, 2)) <
            (least[i] as number),
        );
        const points = Float64Array.from({ length: 3 * near.length }, (_, n) =>
          at(of[near[Math.floor(n / 3)] as number] as number, (n % 3) as 0 | 1 | 2),
        );
        for (const [n, d] of signedDistances(f, points).entries()) {
          const i = near[n] as number;
          if (d < (least[i] as number)) least[i] = d;
        }
      }
      return least;
    };
    const all = Uint32Array.from({ length: mesh.positions.length / 3 }, (_, v) => v);
    const closed = away([0, 0, 0], all);
    const moved = Float32Array.from(closed);
    rows.ways ??= (['forward', 'right', 'left'] as const).flatMap((direction) =>
      onTheTeeth(upperField, lowerField, direction, WAY_MM, WAY_STEP_MM).steps.map((s) => s.shift),
    );
    for (const shift of rows.ways) {
      const travel = Math.hypot(...shift);
      // What can't come nearer than anybody asks about on this way is left as it is.
      const met = all.filter((v) => (closed[v] as number) - travel < FAR_MM);
      for (const [i, mm] of away(shift, met).entries()) {
        const v = met[i] as number;
        if (mm < (moved[v] as number)) moved[v] = mm;
      }
    }
    return { closed, moved };
  }

  /** What the canines of each side need so that the back teeth part. */
  leadBack(partMm: number, planned: ReadonlyMap<Fdi, PlannedTooth> | undefined): LeadBack[] {
    const { upperField, lowerField } = this.rows(planned);
    return (['right', 'left'] as const).flatMap((to) => leadBack(upperField, lowerField, to, partMm) ?? []);
  }

  /** The bite at one place of a movement, 3 mm of it for its steepness. */
  at(wish: BiteWish, planned: ReadonlyMap<Fdi, PlannedTooth> | undefined): BiteView {
    const rows = this.rows(wish.which === 'planned' ? planned : undefined);
    const { upperField, lowerField } = rows;
    const way = (toMm: number, stepMm: number): Movement =>
      wish.guidance === 'teeth'
        ? onTheTeeth(upperField, lowerField, wish.direction, toMm, stepMm)
        : alongAngle(upperField, lowerField, wish.direction, wish.guidance, toMm, stepMm);
    const here = way(wish.alongMm, wish.alongMm || 1).steps.at(-1);
    if (!here) throw new Error('A movement has at least one step.');
    const lead = leadOf(wish.direction, here);
    return {
      shift: here.shift,
      dropMm: here.dropMm,
      angleDeg: way(WAY_MM, WAY_MM).angleDeg,
      teeth: here.teeth,
      ...lead,
      maps: [
        ...rows.upper.map((t) => [t.tooth, spaceOver(lowerField, t.mesh, here.shift)] as const),
        ...rows.lower.map((t) => [t.tooth, spaceUnder(upperField, t.mesh, here.shift)] as const),
      ],
      overlap: { before: overlaps(this.existing), planned: overlaps(this.rows(planned)) },
    };
  }
}

function overlaps({ upper, lower }: Rows): CentralOverlap[] {
  return (
    [
      [11, 41],
      [21, 31],
    ] as const
  ).flatMap(([tooth, below]) => {
    const [u, l] = [upper.find((t) => t.tooth === tooth), lower.find((t) => t.tooth === below)];
    return u && l ? [{ tooth, ...overlapOf(u.mesh, l.mesh) }] : [];
  });
}
