import {
  alongAngle,
  biteGrid,
  type ColumnGrid,
  clearances,
  type Direction,
  type ExistingArch,
  type Fdi,
  type HeightField,
  heightField,
  inMouth,
  type JawShift,
  type JawTooth,
  leadOf,
  type Movement,
  type Overlap,
  onTheTeeth,
  overlapOf,
  type PlannedTooth,
  type SegmentedScan,
  spaceOver,
  spaceUnder,
  type ToothClearance,
} from '@radiant/core';

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
  /** Vertical space under every vertex of the upper teeth and over every one of the lower, mm; NaN where no tooth stands across. */
  readonly maps: readonly (readonly [Fdi, Float32Array])[];
  /** Of the centrals in the closed bite, as they are and as planned. */
  readonly overlap: { readonly before: readonly CentralOverlap[]; readonly planned: readonly CentralOverlap[] };
}

export interface CentralOverlap extends Overlap {
  readonly tooth: Fdi;
}

/** Steps on the way to a place, so that its steepness is known. */
const WAY_MM = 3;

/** Both rows of teeth in the mouth's coordinates and the sides with which they bite. */
interface Rows {
  readonly key: string;
  readonly upper: readonly JawTooth[];
  readonly lower: readonly JawTooth[];
  readonly upperField: HeightField;
  readonly lowerField: HeightField;
}

/** The two rows of teeth, as they are and with planned crowns in their places; made anew only for what has changed. */
export class Bite {
  private readonly existing: Rows;
  private readonly grid: ColumnGrid;
  private planned: Rows | undefined;

  /** @param arch the upper one */
  constructor(arch: ExistingArch, scan: SegmentedScan) {
    const upper = [...arch.teeth].map(([tooth, t]) => ({ tooth, mesh: t.field.mesh }));
    const lower = [...scan.teeth].map(([tooth, mesh]) => ({ tooth, mesh }));
    this.grid = biteGrid([...upper, ...lower]);
    this.existing = { key: '', upper, lower, upperField: heightField(upper, 'upper', this.grid), lowerField: heightField(lower, 'lower', this.grid) };
  }

  /** @param key says whether the planned crowns are still the same */
  private rows(planned: ReadonlyMap<Fdi, PlannedTooth> | undefined, key: string): Rows {
    if (!planned) return this.existing;
    if (this.planned?.key !== key) this.planned = this.withCrowns(planned, key);
    return this.planned;
  }

  private withCrowns(planned: ReadonlyMap<Fdi, PlannedTooth>, key: string): Rows {
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
      key,
      upper,
      lower,
      upperField: upper === now.upper ? now.upperField : heightField(upper, 'upper', this.grid),
      lowerField: lower === now.lower ? now.lowerField : heightField(lower, 'lower', this.grid),
    };
  }

  /** The closed bite of every tooth of either jaw that stands over or under another. */
  closed(planned: ReadonlyMap<Fdi, PlannedTooth> | undefined, key: string): ToothClearance[] {
    const { upperField, lowerField } = this.rows(planned, key);
    return [...clearances(upperField, lowerField, [0, 0, 0]), ...clearances(upperField, lowerField, [0, 0, 0], 'lower')];
  }

  /** @param key says whether the planned crowns are still the same */
  at(wish: BiteWish, planned: ReadonlyMap<Fdi, PlannedTooth> | undefined, key: string): BiteView {
    const rows = this.rows(wish.which === 'planned' ? planned : undefined, key);
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
      overlap: { before: overlaps(this.existing), planned: overlaps(this.rows(planned, key)) },
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
