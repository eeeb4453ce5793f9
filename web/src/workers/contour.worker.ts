import {
  type AlignedTooth,
  alignedFirst,
  type Contact,
  type ContourPlan,
  type CutFrom,
  contactLeftOf,
  contourDifference,
  contourDifferenceQuick,
  crown,
  crownSize,
  type DesignId,
  designOf,
  type ExistingArch,
  existingArch,
  type Fdi,
  type Frame,
  firstContour,
  frameToArch,
  inMouth,
  type Jaw,
  jawOf,
  type LandmarkSet,
  type Mesh,
  madeRoom,
  mirroredStroke,
  type NarrowedSide,
  type PhotoOnScan,
  PLANNABLE,
  type PlannedTooth,
  type Px,
  photoOnScan,
  plannedTooth,
  planOfExisting,
  Refusal,
  readScan,
  requireStroke,
  Sculptor,
  type SectionLine,
  type SegmentedScan,
  type Stroke,
  section,
  setContacts,
  type ToothClearance,
  type ToothPlan,
  type ToothReduction,
  type ToothSection,
  takenIn,
  toothReduction,
  toothSection,
  UPPER_SIX,
  type ViewPoints,
  type VolumeChange,
  volumeChange,
} from '@radiant/core';
import { expose, transfer } from 'comlink';
import { Bite, type BiteView, type BiteWish } from './bite.js';
import { buffers, type DrawableMesh, drawable } from './drawable.js';
import { type LaidSmile, laidSmile, type PhotoWish } from './smile-picture.js';

export interface ExistingSummary {
  readonly tooth: Fdi;
  readonly lengthMm: number;
  readonly widthMm: number;
  readonly wearMm: number;
  readonly rotationDeg: number;
  readonly fitMm: number;
}

export interface ArchView {
  readonly teeth: readonly { readonly tooth: Fdi; readonly mesh: DrawableMesh }[];
  readonly gum: DrawableMesh;
  readonly existing: readonly ExistingSummary[];
}

/** A planned crown with the distance of each vertex from the tooth that is there, mm: + added, − removed. */
export interface PlannedView {
  readonly tooth: Fdi;
  readonly mesh: DrawableMesh;
  readonly differenceMm: Float32Array;
  readonly mostAddedMm: number;
  readonly mostRemovedMm: number;
  /** Volume against the tooth that is there; only where the map is a full one. */
  readonly volume?: VolumeChange;
}

/** A jaw to be looked at: its teeth are measured when they are asked for. */
export type JawView = Pick<ArchView, 'teeth' | 'gum'>;

/** Lines of one plane through everything, in the plane's own coordinates, mm. */
export interface CutView {
  readonly existing: readonly SectionLine[];
  readonly planned: readonly SectionLine[];
  readonly lower: readonly SectionLine[];
}

let scan: SegmentedScan | undefined;
let arch: ExistingArch | undefined;

function need(): ExistingArch {
  if (!arch) throw new Error('The scan is not loaded.');
  return arch;
}

let lowerScan: SegmentedScan | undefined;
let lowerArch: ExistingArch | undefined;

/** The arch of a jaw as it is; of the lower one nothing until its scan is there, or where its teeth can't be measured. */
function archOf(jaw: Jaw): ExistingArch | undefined {
  if (jaw === 'upper') return need();
  if (!lowerArch && lowerScan) lowerArch = measured(lowerScan);
  return lowerArch;
}

function archFor(tooth: Fdi): ExistingArch {
  const own = archOf(jawOf(tooth));
  if (!own) throw new Error('The scan of the lower jaw is not loaded.');
  return own;
}

function measured(of: SegmentedScan): ExistingArch {
  try {
    return existingArch(of);
  } catch (error) {
    throw new Error(error instanceof Refusal ? error.message : 'The teeth of the scan can’t be measured.');
  }
}

function summary(of: ExistingArch): ExistingSummary[] {
  return [...of.teeth.values()].map(({ tooth, lengthMm, widthMm, wearMm, rotationDeg, fitMm }) => ({ tooth, lengthMm, widthMm, wearMm, rotationDeg, fitMm }));
}

const sculptor = new Sculptor();
let bite: Bite | undefined;

async function fetched(url: string): Promise<Uint8Array> {
  const response = await fetch(url);
  if (!response.ok) throw new Error('The scan can’t be fetched.');
  return new Uint8Array(await response.arrayBuffer());
}

function read(bytes: Uint8Array, needs?: readonly Fdi[]): SegmentedScan {
  try {
    return readScan(bytes, needs);
  } catch (error) {
    throw new Error(error instanceof Refusal ? error.message : 'The scan can’t be read.');
  }
}

/** The teeth of a plan that stand in the scan of their jaw. */
const teethOf = (plan: ContourPlan): Fdi[] => PLANNABLE.filter((t) => plan[t] && archOf(jawOf(t))?.teeth.has(t));

/** Of one jaw alone. */
const ofJaw = (planned: ReadonlyMap<Fdi, PlannedTooth>, jaw: Jaw) => new Map([...planned].filter(([t]) => jawOf(t) === jaw));

/** All crowns of a plan; the same object again while the plan is the same. */
let held: { readonly key: string; readonly planned: ReadonlyMap<Fdi, PlannedTooth> } | undefined;
function allOf(plan: ContourPlan): { readonly key: string; readonly planned: ReadonlyMap<Fdi, PlannedTooth> } {
  const key = JSON.stringify(plan);
  if (held?.key !== key) held = { key, planned: new Map(teethOf(plan).map((t) => [t, plannedTooth(archFor(t), plan, t)])) };
  return held;
}

const service = {
  /** Fetches and reads a scan and finds its teeth. Rejects with a sentence. */
  async load(url: string): Promise<ArchView> {
    scan = read(await fetched(url), []);
    arch = measured(scan);
    bite = lowerScan && new Bite(arch, lowerScan);
    held = undefined;
    const teeth = [...scan.teeth].map(([tooth, mesh]) => ({ tooth, mesh: drawable(mesh) }));
    const gum = drawable(scan.rest);
    return transfer({ teeth, gum, existing: summary(arch) }, [...teeth.flatMap((t) => buffers(t.mesh)), ...buffers(gum)]);
  },

  /** A first contour for the given targets. */
  first(targets: readonly (readonly [Fdi, { lengthMm: number; widthMm: number; zenithUpMm?: number }])[]): ContourPlan {
    return firstContour(need(), new Map(targets));
  },

  /** The teeth as they are, as a contour. */
  existing(): ContourPlan {
    return planOfExisting(need());
  },

  /** @param quick for a first drawing while a slider moves: the map from a quarter of the vertices */
  planned(plan: ContourPlan, tooth: Fdi, quick: boolean): PlannedView {
    const own = archFor(tooth);
    const p = plannedTooth(own, plan, tooth, sculptor.sculpt);
    const d = (quick ? contourDifferenceQuick : contourDifference)(own, p);
    const mesh = drawable(inMouth(p).mesh);
    const volume = quick ? undefined : volumeChange(own, p);
    const differenceMm = Float32Array.from(d);
    let mostAddedMm = 0;
    let mostRemovedMm = 0;
    for (const v of differenceMm) {
      if (v > mostAddedMm) mostAddedMm = v;
      if (-v > mostRemovedMm) mostRemovedMm = -v;
    }
    return transfer({ tooth, mesh, differenceMm, mostAddedMm, mostRemovedMm, ...(volume && { volume }) }, [
      ...buffers(mesh),
      differenceMm.buffer as ArrayBuffer,
    ]);
  },

  /** A further tooth taken into the plan as it stands. */
  takenIn(plan: ContourPlan, tooth: Fdi): ToothPlan {
    return takenIn(archFor(tooth), plan, tooth);
  },

  /** Why a stroke can't be taken, or nothing. */
  troubleOf(plan: ContourPlan, tooth: Fdi, stroke: Stroke): string | undefined {
    const own = plan[tooth];
    if (!own) return 'This tooth is not in the plan.';
    try {
      requireStroke(crown(tooth, crownSize(own)), own.strokes ?? [], stroke);
      return undefined;
    } catch (error) {
      if (error instanceof Refusal) return error.message;
      throw error;
    }
  },

  /** The stroke for the tooth of the other side. */
  mirrored(tooth: Fdi, stroke: Stroke): Stroke {
    return mirroredStroke(crown(tooth, { lengthMm: 10, widthMm: 8, facialVolumeMm: 0 }), stroke);
  },

  /** The contact on the left of one tooth of the row, so that other questions can come in between. */
  contactOf(plan: ContourPlan, right: Fdi): Contact | undefined {
    const own = archOf(jawOf(right));
    return own && contactLeftOf(own, allOf(plan).planned, right);
  },

  setContacts(plan: ContourPlan, tightMm: number): { plan: ContourPlan; left: readonly [Fdi, Fdi][] } {
    const upper = setContacts(need(), plan, tightMm);
    const lower = teethOf(plan).some((t) => jawOf(t) === 'lower') && archOf('lower');
    if (!lower) return upper;
    const both = setContacts(lower, upper.plan, tightMm);
    return { plan: both.plan, left: [...upper.left, ...both.left] };
  },

  alignedFirst(plan: ContourPlan): AlignedTooth[] {
    return alignedFirst(need(), plan);
  },

  madeRoom(plan: ContourPlan, tightMm: number): { plan: ContourPlan; narrowed: readonly NarrowedSide[] } {
    return madeRoom(need(), plan, tightMm);
  },

  /** Fetches and reads the scan of the lower jaw. Rejects with a sentence. */
  async loadLower(url: string): Promise<JawView> {
    lowerScan = read(await fetched(url), []);
    lowerArch = undefined;
    held = undefined;
    if (arch) bite = new Bite(arch, lowerScan);
    const teeth = [...lowerScan.teeth].map(([tooth, mesh]) => ({ tooth, mesh: drawable(mesh) }));
    const gum = drawable(lowerScan.rest);
    return transfer({ teeth, gum }, [...teeth.flatMap((t) => buffers(t.mesh)), ...buffers(gum)]);
  },

  /** The lower teeth measured. Rejects with a sentence. */
  measuredLower(): ExistingSummary[] {
    const own = archOf('lower');
    return own ? summary(own) : [];
  },

  /** The closed bite of the planned teeth; nothing without a lower jaw. */
  closedBite(plan: ContourPlan): { planned: ToothClearance[]; existing: ToothClearance[] } | undefined {
    const { key, planned } = allOf(plan);
    return bite && { planned: bite.closed(planned, key), existing: bite.closed(undefined, '') };
  },

  bite(plan: ContourPlan, wish: BiteWish): BiteView | undefined {
    const { key, planned } = allOf(plan);
    const view = bite?.at(wish, planned, key);
    return (
      view &&
      transfer(
        view,
        view.maps.map(([, m]) => m.buffer as ArrayBuffer),
      )
    );
  },

  /** The plan laid into a photograph, or the sentence why it can't be. */
  inPhoto(plan: ContourPlan, wish: PhotoWish): LaidSmile | { readonly sentence: string } {
    try {
      const up = new Map(
        teethOf(plan)
          .filter((t) => jawOf(t) === 'upper')
          .map((t) => [t, plan[t]?.zenithUpMm ?? 0] as const),
      );
      return laidSmile(need(), (scan as SegmentedScan).rest, ofJaw(allOf(plan).planned, 'upper'), up, wish);
    } catch (error) {
      if (error instanceof Refusal) return { sentence: error.message };
      throw error;
    }
  },

  /** The photograph matched with the scan, or the sentence why it can't be. */
  onPhoto(landmarks: LandmarkSet, points: ViewPoints, size: Px, fromScan: LandmarkSet): PhotoOnScan | { readonly sentence: string } {
    try {
      return photoOnScan(need(), landmarks, points, size, fromScan);
    } catch (error) {
      if (error instanceof Refusal) return { sentence: error.message };
      throw error;
    }
  },

  /** Everything that a plane in the mouth's coordinates meets. */
  cut(plan: ContourPlan, plane: Frame): CutView {
    const lines = (meshes: Iterable<Mesh>) => [...meshes].flatMap((m) => section(m, plane));
    return {
      existing: lines([...need().teeth.values()].map((t) => t.field.mesh)),
      planned: lines([...allOf(plan).planned.values()].map((p) => inMouth(p).mesh)),
      lower: lines(lowerScan?.teeth.values() ?? []),
    };
  },

  /** Frame of a tooth as planned, or as it stands, in the mouth's coordinates. */
  frameOf(plan: ContourPlan, tooth: Fdi): Frame | undefined {
    const frame = allOf(plan).planned.get(tooth)?.frame ?? archOf(jawOf(tooth))?.teeth.get(tooth)?.frame;
    return frame && frameToArch(jawOf(tooth), frame);
  },

  reduce(plan: ContourPlan, design: DesignId, from: CutFrom): ToothReduction[] {
    return UPPER_SIX.filter((t) => plan[t]).map((t) => toothReduction(need(), plan, t, designOf(design), from));
  },

  section(plan: ContourPlan, tooth: Fdi, design: DesignId): ToothSection {
    const e = need().teeth.get(tooth);
    if (!e) throw new Error(`The scan has no tooth ${tooth}.`);
    return toothSection(e.field.mesh, plannedTooth(need(), plan, tooth), designOf(design));
  },
};

export type ContourService = typeof service;
expose(service);
