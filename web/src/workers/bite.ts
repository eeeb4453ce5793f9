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
  /** Vertical space under every vertex of the upper teeth, mm; NaN where no lower tooth stands below. */
  readonly maps: readonly (readonly [Fdi, Float32Array])[];
  /** Of the centrals in the closed bite, as they are and as planned. */
  readonly overlap: { readonly before: readonly CentralOverlap[]; readonly planned: readonly CentralOverlap[] };
}

export interface CentralOverlap extends Overlap {
  readonly tooth: Fdi;
}

/** Steps on the way to a place, so that its steepness is known. */
const WAY_MM = 3;

/** The two rows of teeth as height fields, made anew only for what has changed. */
export class Bite {
  private readonly lower: readonly JawTooth[];
  private readonly grid: ColumnGrid;
  private readonly lowerField: HeightField;
  private existingField: HeightField | undefined;
  private planned: { readonly key: string; readonly field: HeightField } | undefined;

  constructor(
    private readonly arch: ExistingArch,
    scan: SegmentedScan,
  ) {
    this.lower = [...scan.teeth].map(([tooth, mesh]) => ({ tooth, mesh }));
    this.grid = biteGrid([...this.existing(), ...this.lower]);
    this.lowerField = heightField(this.lower, 'lower', this.grid);
  }

  private existing(): JawTooth[] {
    return [...this.arch.teeth].map(([tooth, t]) => ({ tooth, mesh: t.field.mesh }));
  }

  /** The upper row as it is, or with the planned crowns in their places. */
  row(planned: ReadonlyMap<Fdi, PlannedTooth> | undefined): JawTooth[] {
    return this.existing().map((t) => planned?.get(t.tooth) ?? t);
  }

  private field(planned: ReadonlyMap<Fdi, PlannedTooth> | undefined, key: string): HeightField {
    if (!planned) {
      this.existingField ??= heightField(this.existing(), 'upper', this.grid);
      return this.existingField;
    }
    if (this.planned?.key !== key) this.planned = { key, field: heightField(this.row(planned), 'upper', this.grid) };
    return this.planned.field;
  }

  /** The closed bite of every upper tooth that stands over a lower one. */
  closed(planned: ReadonlyMap<Fdi, PlannedTooth> | undefined, key: string): ToothClearance[] {
    return clearances(this.field(planned, key), this.lowerField, [0, 0, 0]);
  }

  /** @param key says whether the planned crowns are still the same */
  at(wish: BiteWish, planned: ReadonlyMap<Fdi, PlannedTooth> | undefined, key: string): BiteView {
    const own = wish.which === 'planned' ? planned : undefined;
    const upper = this.field(own, key);
    const way = (toMm: number, stepMm: number): Movement =>
      wish.guidance === 'teeth'
        ? onTheTeeth(upper, this.lowerField, wish.direction, toMm, stepMm)
        : alongAngle(upper, this.lowerField, wish.direction, wish.guidance, toMm, stepMm);
    const here = way(wish.alongMm, wish.alongMm || 1).steps.at(-1);
    if (!here) throw new Error('A movement has at least one step.');
    const lead = leadOf(wish.direction, here);
    const row = this.row(own);
    return {
      shift: here.shift,
      dropMm: here.dropMm,
      angleDeg: way(WAY_MM, WAY_MM).angleDeg,
      teeth: here.teeth,
      ...lead,
      maps: row.map((t) => [t.tooth, spaceOver(this.lowerField, t.mesh, here.shift)] as const),
      overlap: { before: this.overlaps(undefined), planned: this.overlaps(planned) },
    };
  }

  private overlaps(planned: ReadonlyMap<Fdi, PlannedTooth> | undefined): CentralOverlap[] {
    const row = this.row(planned);
    return (
      [
        [11, 41],
        [21, 31],
      ] as const
    ).flatMap(([tooth, below]) => {
      const [u, l] = [row.find((t) => t.tooth === tooth), this.lower.find((t) => t.tooth === below)];
      return u && l ? [{ tooth, ...overlapOf(u.mesh, l.mesh) }] : [];
    });
  }
}
