import { existingArch } from '../contour/fit.js';
import { type FromWaxUp, planFromWaxUp } from '../contour/plan.js';
import { hasToothNumbers, readScan, type SegmentedScan } from '../contour/scan.js';
import { Refusal, type RefusalCode } from '../errors.js';
import { readMesh } from '../formats/any-mesh.js';
import { writePly } from '../formats/ply.js';
import { type Frame, inverse, nested, toParent, turn, WORLD } from '../geometry/frame.js';
import { bounds, type Mesh, mergeMeshes, meshInFrame, placeMesh } from '../geometry/mesh.js';
import { sheetDistances, signedField } from '../geometry/tree/signed.js';
import { hypot, type Vec3 } from '../geometry/vec.js';
import { restingOn } from '../occlusion/resting.js';
import { openJaw } from '../scan/base.js';
import { asSegmented } from '../scan/closed-tooth.js';
import { jawLike } from '../scan/jaw-like.js';
import { type FrameMatrix, matrixInto, mouthBy } from '../scan/kept-frame.js';
import { type Ground, groundOf, layOnto, startFromPlaces } from '../scan/lay-onto.js';
import { mouthFrame } from '../scan/mouth-frame.js';
import { type LookedAt, lookAtJaw } from '../scan/own-scan.js';
import { inMouthOf, laidByClicks, laidByShape } from '../scan/refine.js';
import { type Repair, type RepairKind, repaired } from '../scan/repair.js';
import { toldByFirst } from '../scan/told-by-first.js';
import type { Fdi, Jaw } from '../teeth/notation.js';
import { Picking } from './picking.js';

/** How far the work on a file has got. */
export type Progress = (what: string, share: number) => void;

/** What a file turned out to hold. */
export interface Opened {
  readonly format: string;
  readonly triangles: number;
  readonly repairs: readonly Repair[];
  /**
   * Longest side of the scan, in the file's own unit, and what a millimetre is by it: 1 unless the size says otherwise.
   */
  readonly widest: number;
  readonly unitMm: number;
  /** Which jaw it looks like: a palate fills the room within the arch. */
  readonly jaw: Jaw;
}

/** A coarse copy of a jaw as it would be laid, to be looked at while the work on it goes on. */
export interface Glimpse {
  readonly jaw: Jaw;
  readonly mesh: Mesh;
}

/** The jaw in the mouth's coordinates. */
export interface Laid {
  readonly mesh: Mesh;
  /** Of each vertex, 0–1 each of red, green, blue, where the scanner gave colours. */
  readonly colours?: Float32Array;
  /** How alike the two sides are about the midline, 0–1; 1 where it was not laid by its own shape. */
  readonly symmetry: number;
  /** Where it was laid on another scan: how well, and how far off each vertex is, mm. */
  readonly on?: {
    readonly share: number;
    readonly p95Mm: number;
    /** Of teeth, and of gum and palate, what lies as it lay. */
    readonly teethShare?: number;
    readonly gumShare?: number;
    readonly doubt?: string;
    readonly offMm: Float64Array;
  };
  /** Where a hand put it on the upper jaw: which teeth it touches, and how far the centrals' edges overlap, mm. */
  readonly bite?: { readonly touching: readonly Fdi[]; readonly overlapMm: number };
}

/**
 * Where a hand puts a lower jaw on the upper one: its centrals' edges behind the upper ones', to the patient's left,
 * turned to the left.
 */
export interface ByHand {
  readonly overjetMm: number;
  readonly leftMm: number;
  readonly turnDeg: number;
}

/** Between the centrals' edges, the same tooth's tip on the patient's right, and on the left. */
export type ThreePlaces = readonly [Vec3, Vec3, Vec3];

/** The working copy of a jaw: its file, and how well the library's forms lie on its teeth. */
export interface WorkingCopy {
  readonly bytes: Uint8Array;
  /** Takes the points of the file that it was made from into its own coordinates, the mouth's. */
  readonly frame: FrameMatrix;
  readonly fits: readonly {
    readonly tooth: Fdi;
    readonly fitMm: number;
    readonly widthMm: number;
    readonly lengthMm: number;
  }[];
}

/** A case's scan that others are laid on, and its surface as ground. */
export interface FirstScan {
  readonly scan: SegmentedScan;
  readonly ground: Ground;
}

/** Reads a case's scan to lay others on. @throws Refusal of `readScan` */
export function firstScan(bytes: Uint8Array): FirstScan {
  const scan = readScan(bytes, []);
  const teeth = [...scan.teeth.values()];
  const toothTriangles = teeth.reduce((n, m) => n + m.triangles.length / 3, 0);
  return { scan, ground: groundOf(mergeMeshes([...teeth, scan.rest]), toothTriangles) };
}

/**
 * A jaw's longest side lies between these, mm; what is smaller by ten or a thousand, or larger, is told in another
 * unit. House limits.
 */
const JAW_SPAN_MM = { least: 25, most: 160 };
const UNITS_MM = [1, 10, 1000, 25.4, 0.001];
/** In which of the units the longest side is that of a jaw, mm. House limits. */
const LIKELY_SPAN_MM = { least: 40, most: 90 };
/** How far apart the edges begin before a hand closes the jaws, mm. */
const OPEN_MM = 3;
/**
 * A jaw laid by the other's frame lies about where its own shape would have it: within so many degrees and mm. House
 * limits.
 */
const TOGETHER = { deg: 20, mm: 15 };

/** What is done to a surface and makes it look like another jaw. */
const OTHERWISE: ReadonlySet<RepairKind> = new Set(['inside-out', 'base']);

const NO_ROW = 'No row of teeth can be found in the scan.';

/** Work on a file that may be anything: whatever else goes wrong in it is a refusal too, with its cause. */
function orRefuse<T>(code: RefusalCode, sentence: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw new Refusal(code, sentence, error);
  }
}

/**
 * A jaw from any scanner on its way to numbered teeth: opened and mended, laid into the mouth, picked apart, made a
 * working copy.
 */
export class RawJaw {
  private mended: Mesh;
  /** What the file's unit was told to be, mm. */
  private unitMm = 1;
  private readonly colours: Float32Array | undefined;
  /** Where a lower jaw lies by its own shape, once it was put on by hand. */
  private shaped: Frame | undefined;
  private jaw: Jaw = 'upper';
  private frame: Frame | undefined;
  private inMouth: Mesh | undefined;
  private hand: Picking | undefined;
  readonly opened: Opened;
  /** Teeth that the case's record calls missing: their numbers are passed over when the jaw is laid. */
  missing: ReadonlySet<Fdi> = new Set();

  /**
   * Reads and mends a scan.
   * @param seen is shown it before it is mended; nothing where it is not in millimetres or no jaw
   * @throws Refusal of `readMesh`; `scan-numbered` where its teeth are told apart already
   */
  constructor(bytes: Uint8Array, told: Progress, mend = true, seen?: (glimpse: Glimpse) => void) {
    if (isNumbered(bytes))
      throw new Refusal('scan-numbered', 'This scan’s teeth are told apart already: it is used as it is.');
    const read = readMesh(bytes);
    // Looked at and mended as large as it is: in metres all of it would be one place.
    const unitMm = unitBy(span(read.mesh));
    const raw = scaled(read.mesh, unitMm);
    const first = jawLike(raw);
    if (unitMm === 1 && first.seen) seen?.({ jaw: first.jaw, mesh: first.seen });
    told(mend ? 'Mending' : 'Looking', 0.4);
    const done = mend ? openJaw(repaired(raw)) : { mesh: raw, repairs: [] };
    this.mended = scaled(done.mesh, 1 / unitMm);
    // Colours belong to the points of the file; mending moves none while none is joined.
    this.colours = read.colours && read.colours.length === this.mended.positions.length ? read.colours : undefined;
    const widest = span(this.mended);
    const like = done.repairs.some((r) => OTHERWISE.has(r.kind)) ? jawLike(done.mesh) : first;
    const triangles = read.mesh.triangles.length / 3;
    this.opened = {
      format: read.format,
      triangles,
      repairs: done.repairs,
      widest,
      unitMm,
      jaw: like.jaw,
    };
  }

  /** The teeth of the jaw as it lies. @throws Refusal `scan-not-laid` */
  get picking(): Picking {
    if (!this.hand) throw new Refusal('scan-not-laid', 'The scan does not lie in the mouth yet.');
    return this.hand;
  }

  /**
   * Lays the scan into the mouth by its own shape. @param unitMm millimetres of the file's unit @throws Refusal
   * `no-jaw`
   */
  lay(as: Jaw, unitMm: number): Laid {
    if (unitMm !== 1) {
      this.mended = scaled(this.mended, unitMm);
      this.unitMm *= unitMm;
      this.shaped = undefined;
    }
    this.jaw = as;
    return orRefuse('no-jaw', NO_ROW, () => {
      const found = laidByShape(this.mended, as, undefined, this.missing);
      this.frame = found.frame;
      return this.laid({ symmetry: found.symmetry, look: found.look });
    });
  }

  /**
   * Lays it on the case's scan of the same jaw, by what is the same on both.
   * @param places the same three places on this scan as it lies now and on the case's; without them it begins from
   *   its own shape
   * @throws Refusal `no-jaw`, `points-coincide`
   */
  layOn(as: Jaw, { ground, scan }: FirstScan, places?: readonly [own: ThreePlaces, first: ThreePlaces]): Laid {
    this.jaw = as;
    const was = this.frame;
    return orRefuse('no-jaw', 'It can’t be laid on the first scan.', () => {
      const [a, b, c] = places?.[0] ?? [];
      const start =
        was && places && a && b && c
          ? startFromPlaces([toParent(was, a), toParent(was, b), toParent(was, c)], places[1])
          : inverse(mouthFrame(this.mended, as).frame);
      const found = layOnto(this.mended, ground, start);
      this.frame = inverse(found.frame);
      const { share, p95Mm, teethShare, gumShare, doubt } = found;
      const apart = teethShare !== undefined && gumShare !== undefined && { teethShare, gumShare };
      const laid = this.laid({ symmetry: 1, ...(!doubt && { first: scan }) });
      return {
        ...laid,
        on: {
          share,
          p95Mm,
          ...apart,
          ...(doubt && { doubt }),
          offMm: sheetDistances(signedField(ground.mesh, ground.tree), laid.mesh.positions),
        },
      };
    });
  }

  /**
   * Lays it as the other jaw of the same sitting was laid: by the bite as it was scanned.
   * @param other how the other jaw's scan was taken into the mouth, where its record knows it
   * @throws Refusal `scan-no-frame`, `no-jaw`
   */
  layByBite(as: Jaw, other: FrameMatrix | null | undefined): Laid {
    const found = other ? mouthBy(other) : undefined;
    if (!found)
      throw new Refusal(
        'scan-no-frame',
        'The other jaw’s scan does not say how it was laid: only one whose teeth were picked out here does.',
      );
    const shape = orRefuse('no-jaw', NO_ROW, () => mouthFrame(this.mended, as).frame);
    if (!liesTogether(shape, found))
      throw new Refusal(
        'scan-no-frame',
        'The two scans do not lie together: they are of different sittings, or of different scanners.',
      );
    this.jaw = as;
    this.frame = found;
    return this.laid({ symmetry: 1 });
  }

  /**
   * Lays a lower jaw on the case's upper one where a hand puts it, closed until it rests there. @throws Refusal
   * `no-jaw`
   */
  layByHand({ scan }: FirstScan, by: ByHand): Laid {
    const edge = edgeOf(scan);
    if (!edge) throw new Refusal('no-jaw', 'The upper scan has no central incisors to go by.');
    this.shaped ??= orRefuse('no-jaw', NO_ROW, () => laidByShape(this.mended, 'lower', undefined, this.missing).frame);
    const put = turn(
      { ...WORLD, origin: [edge[0] + by.leftMm, edge[1] + by.overjetMm, edge[2] - OPEN_MM] },
      'z',
      -by.turnDeg,
    );
    const rests = restingOn(
      [...scan.teeth].map(([tooth, mesh]) => ({ tooth, mesh })),
      placeMesh(meshInFrame(this.mended, this.shaped), put),
    );
    if (!rests) throw new Refusal('no-jaw', 'So the jaws do not lie over each other.');
    this.jaw = 'lower';
    const place = nested(rests.move, put);
    this.frame = nested(this.shaped, inverse(place));
    return { ...this.laid({ symmetry: 1 }), bite: { touching: rests.touching, overlapMm: place.origin[2] - edge[2] } };
  }

  /**
   * Lays it anew by three places, in the coordinates in which it lies now. @throws Refusal `scan-not-laid`,
   * `points-coincide`
   */
  layBy([middle, right, left]: ThreePlaces): Laid {
    const was = this.frame;
    if (!was) throw new Refusal('scan-not-laid', 'The scan does not lie in the mouth yet.');
    return orRefuse('no-jaw', 'These three places do not lay the jaw.', () => {
      const places = [toParent(was, middle), toParent(was, right), toParent(was, left)] as const;
      const found = laidByClicks(this.mended, this.jaw, places, this.missing);
      this.frame = found.frame;
      return this.laid({ symmetry: 1, look: found.look });
    });
  }

  /** The picked teeth of a wax-up, a mock-up or a provisional as a plan on the case's scan. @throws Refusal */
  asPlan({ scan }: FirstScan): FromWaxUp {
    const { picked, numbers } = this.picking;
    return orRefuse('scan-without-teeth', 'The picked teeth can’t be made a plan.', () =>
      planFromWaxUp(
        existingArch(scan),
        existingArch(asSegmented(this.inMouth as Mesh, picked.triangles, this.jaw)),
        numbers.filter((t) => t % 10 <= 3),
      ),
    );
  }

  /** The working copy: the jaw in the mouth's coordinates with closed, numbered teeth, as PLY. @throws Refusal */
  finish(): WorkingCopy {
    const { picked } = this.picking;
    return orRefuse('scan-without-teeth', 'The picked teeth can’t be used yet.', () => {
      const segmented = asSegmented(this.inMouth as Mesh, picked.triangles, this.jaw);
      const arch = existingArch(segmented);
      const parts: readonly (readonly [Fdi | 0, Mesh])[] = [...segmented.teeth, [0, segmented.rest]];
      const whole = mergeMeshes(parts.map(([, m]) => m));
      const attributes = new Uint16Array(whole.triangles.length / 3);
      const made = new Uint8Array(attributes.length);
      let at = 0;
      for (const [tooth, m] of parts) {
        const to = at + m.triangles.length / 3;
        attributes.fill(tooth, at, to);
        const own = tooth === 0 ? undefined : segmented.made?.get(tooth);
        if (own) made.set(own, at);
        at = to;
      }
      return {
        bytes: writePly(whole, attributes, `${this.jaw} jaw, teeth picked out, mm`, made),
        frame: matrixInto(this.frame as Frame, this.unitMm),
        fits: [...arch.teeth.values()].map(({ tooth, fitMm, widthMm, lengthMm }) => ({
          tooth,
          fitMm,
          widthMm,
          lengthMm,
        })),
      };
    });
  }

  /** @param first the case's scan on which it lies: its teeth are where they were, whatever was cut of them */
  private laid({ symmetry, look, first }: { symmetry: number; look?: LookedAt; first?: SegmentedScan }): Laid {
    this.inMouth = look ? inMouthOf(look) : meshInFrame(this.mended, this.frame as Frame);
    const told = first && toldByFirst(first, this.inMouth, this.jaw);
    this.hand = new Picking(look ?? lookAtJaw(this.inMouth, this.jaw, this.missing, told));
    return { mesh: this.inMouth, symmetry, ...(this.colours && { colours: this.colours.slice() }) };
  }
}

const scaled = (m: Mesh, by: number): Mesh =>
  by === 1 ? m : { positions: m.positions.map((v) => v * by), triangles: m.triangles };

function span(m: Mesh): number {
  const b = bounds(m);
  return Math.max(...([0, 1, 2] as const).map((k) => b.max[k] - b.min[k]));
}

function unitBy(widest: number): number {
  if (widest >= JAW_SPAN_MM.least && widest <= JAW_SPAN_MM.most) return 1;
  return UNITS_MM.find((u) => widest * u >= LIKELY_SPAN_MM.least && widest * u <= LIKELY_SPAN_MM.most) ?? 1;
}

/** Whether the file says of its triangles which tooth they are of; what can't be looked at says nothing. */
function isNumbered(bytes: Uint8Array): boolean {
  try {
    return hasToothNumbers(bytes);
  } catch {
    return false;
  }
}

/** The middle between the centrals at the height of the longer one's edge. */
function edgeOf({ teeth }: SegmentedScan): Vec3 | undefined {
  const centrals = [teeth.get(11), teeth.get(21)].filter((m) => m !== undefined);
  if (centrals.length < 2) return undefined;
  const boxes = centrals.map(bounds);
  const low = Math.min(...boxes.map((b) => b.min[2]));
  const x = boxes.reduce((s, b) => s + (b.min[0] + b.max[0]) / 4, 0);
  let [y, n] = [0, 0];
  for (const m of centrals)
    for (let v = 0; v < m.positions.length; v += 3) {
      if ((m.positions[v + 2] as number) > low + 1) continue;
      y += m.positions[v + 1] as number;
      n++;
    }
  return [x, y / n, low];
}

function liesTogether(a: Frame, b: Frame): boolean {
  const cos = (p: Vec3, q: Vec3) => p[0] * q[0] + p[1] * q[1] + p[2] * q[2];
  const least = Math.cos((TOGETHER.deg * Math.PI) / 180);
  const far = hypot(a.origin[0] - b.origin[0], a.origin[1] - b.origin[1], a.origin[2] - b.origin[2]);
  return far < TOGETHER.mm && cos(a.x, b.x) > least && cos(a.z, b.z) > least;
}
