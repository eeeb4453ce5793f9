import {
  asSegmented,
  bounds,
  type Cells,
  cellsOf,
  type Doubt,
  existingArch,
  type Fdi,
  type Frame,
  type FromWaxUp,
  frameInHead,
  frameWords,
  type Ground,
  groundOf,
  hasToothNumbers,
  inMouthOf,
  inverse,
  type Jaw,
  type LookedAt,
  laidByClicks,
  laidByShape,
  layOnto,
  lookAtJaw,
  type Mesh,
  type MouthProposal,
  mergeMeshes,
  meshInFrame,
  meshToArch,
  mouthFrame,
  neckLines,
  nested,
  type Picked,
  type PickedCrown,
  type PickedSize,
  pickedAs,
  pickTeeth,
  placeAtVertex,
  placeMesh,
  planFromWaxUp,
  pulledLine,
  Refusal,
  type Repair,
  readMesh,
  readScan,
  repaired,
  restingOn,
  type SegmentedScan,
  sheetDistances,
  startFromPlaces,
  type ToothRoom,
  toParent,
  turn,
  turnedOver,
  type Vec3,
  WORLD,
  writePly,
} from '@radiant/core';
import { expose, transfer } from 'comlink';
import type { JawView } from './contour.worker.js';
import { buffers, type DrawableMesh, drawable } from './drawable.js';

/** How far the work on a file has got. */
export type Progress = (what: string, share: number) => void;

/** What a file turned out to hold. */
export interface Opened {
  readonly format: string;
  readonly triangles: number;
  readonly repairs: readonly Repair[];
  /** Longest side of the scan, in the file's own unit, and what a millimetre is by it: 1 unless the size says otherwise. */
  readonly widest: number;
  readonly unitMm: number;
  /** Which jaw it looks like: a palate fills the room within the arch. */
  readonly jaw: Jaw;
  /** How it would be laid, to be looked at while its teeth are told apart; none where it is not in millimetres or no jaw. */
  readonly preview?: DrawableMesh;
}

/** The jaw in the mouth's coordinates, its teeth told apart. */
export interface Laid {
  readonly mesh: DrawableMesh;
  /** Its triangles by their place, for what lies under the pointer. */
  readonly cells: Cells;
  /** Of each vertex, 0–1 each of red, green, blue, where the scanner gave colours. */
  readonly colours?: Float32Array;
  /** How alike the two sides are about the midline, 0–1; 1 where it was not laid by its own shape. */
  readonly symmetry: number;
  /** Where it was laid on another scan: how well, and how far off each vertex is, mm. */
  readonly on?: { readonly share: number; readonly p95Mm: number; readonly doubt?: string; readonly offMm: Float32Array };
  /** Where a hand put it on the upper jaw: which teeth it touches, and how far the centrals' edges overlap, mm. */
  readonly bite?: { readonly touching: readonly Fdi[]; readonly overlapMm: number };
  readonly picked: PickedView;
}

/** Where a hand puts a lower jaw on the upper one: its centrals' edges behind the upper ones', to the patient's left, and turned to the left. */
export interface ByHand {
  readonly overjetMm: number;
  readonly leftMm: number;
  readonly turnDeg: number;
}

export interface PickedTooth extends PickedSize {
  readonly tooth: Fdi;
  /** Where its number is written, in the mouth's coordinates. */
  readonly at: Vec3;
}

export interface PickedView {
  /** The tooth of each vertex, 0 for gum. */
  readonly tooth: Uint8Array;
  readonly teeth: readonly PickedTooth[];
  readonly doubts: readonly Doubt[];
  /** Why this may be no row of teeth to plan on. */
  readonly doubt?: string;
  /** The line between each tooth and the gum: pieces of two points, in the mouth's coordinates. */
  readonly necks: readonly { readonly tooth: Fdi; readonly line: Float32Array }[];
}

/** How far apart the edges begin before a hand closes the jaws, mm. */
const OPEN_MM = 3;

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

type ThreePlaces = readonly [Vec3, Vec3, Vec3];

let source: Mesh | undefined;
let colours: Float32Array | undefined;
let mended: Mesh | undefined;
let frame: Frame | undefined;
/** The jaw and its frame by the outline, of the scan as it was opened. */
let proposed: ReturnType<typeof jawLike> | undefined;
/** Teeth that the case's record calls missing. */
let missing: ReadonlySet<Fdi> = new Set();
/** Where a lower jaw lies by its own shape, once it was put on by hand. */
let shaped: Frame | undefined;
let jaw: Jaw = 'upper';
let inMouth: Mesh | undefined;
let look: LookedAt | undefined;
let rooms = new Map<Fdi, ToothRoom>();
let painted = new Map<number, Fdi>();
let picked: Picked | undefined;
/** The case's scan of the same jaw, for laying others on it. */
let first: { readonly url: string; readonly scan: SegmentedScan; readonly ground: Ground } | undefined;

const sentenceOf = (error: unknown, otherwise: string): Error => (error instanceof Refusal ? new Error(error.message) : new Error(otherwise));

/** A jaw's longest side lies between these, mm; what is smaller by ten or a thousand, or larger, is told in another unit. */
const JAW_SPAN_MM = { least: 25, most: 160 };
const UNITS_MM = [1, 10, 1000, 25.4, 0.001];

async function fetched(url: string, told: Progress): Promise<Uint8Array> {
  const response = await fetch(url);
  if (!response.ok || !response.body) throw new Error('The scan can’t be fetched.');
  const size = Number(response.headers.get('content-length') ?? 0);
  const reader = response.body.getReader();
  const parts: Uint8Array[] = [];
  let got = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    parts.push(value);
    got += value.length;
    if (size > 0) told('Fetching', got / size);
  }
  const out = new Uint8Array(got);
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
}

const scaled = (m: Mesh, by: number): Mesh => (by === 1 ? m : { positions: m.positions.map((v) => v * by), triangles: m.triangles });

function span(m: Mesh): number {
  const b = bounds(m);
  return Math.max(...([0, 1, 2] as const).map((k) => b.max[k] - b.min[k]));
}

function pick(): PickedView {
  if (!look || !inMouth) throw new Error('The scan is not open.');
  return shown(pickTeeth(look, rooms, painted));
}

function shown(now: Picked): PickedView {
  picked = now;
  const teeth = [...now.crowns.values()]
    .map((c) => ({ tooth: c.tooth, at: middleOf(c), widthMm: c.widthMm, lengthMm: c.lengthMm }))
    .sort((p, q) => p.tooth - q.tooth);
  const necks = [...neckLines(look as LookedAt, now.vertices)].map(([tooth, line]) => ({
    tooth,
    line: Float32Array.from(meshToArch(jaw, { positions: Float64Array.from(line), triangles: NONE }).positions),
  }));
  return { tooth: now.vertices.slice(), teeth, doubts: now.doubts, necks, ...(now.doubt && { doubt: now.doubt }) };
}

const NONE = new Uint32Array();
/** A place between the mouth's coordinates and the arch's own, either way. */
const turned = (p: Vec3): Vec3 => (jaw === 'upper' ? p : turnedOver(p));

/** Where a tooth's number stands: before the middle of what was picked, nearer to the edge than to the neck. */
function middleOf({ vertices }: PickedCrown): Vec3 {
  const p = (inMouth as Mesh).positions;
  let [x, y] = [0, 0];
  let [least, most] = [Infinity, -Infinity];
  for (const v of vertices) {
    x += p[3 * v] as number;
    y += p[3 * v + 1] as number;
    least = Math.min(least, p[3 * v + 2] as number);
    most = Math.max(most, p[3 * v + 2] as number);
  }
  const n = vertices.length;
  return [x / n, y / n, jaw === 'upper' ? least + 0.4 * (most - least) : most - 0.4 * (most - least)];
}

async function firstScan(url: string): Promise<NonNullable<typeof first>> {
  if (first?.url === url) return first;
  const scan = readScan(await fetched(url, () => undefined), []);
  first = { url, scan, ground: groundOf(mergeMeshes([...scan.teeth.values(), scan.rest])) };
  return first;
}

function laid(symmetry: number, on?: Omit<NonNullable<Laid['on']>, 'offMm'>, ground?: Ground, looked?: LookedAt, bite?: Laid['bite']): Laid {
  if (!mended || !frame) throw new Error('The scan is not open.');
  inMouth = looked ? inMouthOf(looked) : meshInFrame(mended, frame);
  look = looked ?? lookAtJaw(inMouth, jaw, missing);
  rooms = new Map(look.teeth);
  painted = new Map();
  const mesh = drawable(inMouth);
  const offMm = ground && Float32Array.from(sheetDistances(ground, inMouth.positions));
  const cells = cellsOf(mesh);
  const view: Laid = {
    mesh,
    cells,
    symmetry,
    picked: pick(),
    ...(colours && { colours: colours.slice() }),
    ...(on && offMm && { on: { ...on, offMm } }),
    ...(bite && { bite }),
  };
  return transfer(view, [...buffers(mesh), cells.faces.buffer as ArrayBuffer, view.picked.tooth.buffer as ArrayBuffer]);
}

const service = {
  /** Tells which teeth the case's record calls missing: their numbers are passed over. */
  know(teeth: readonly Fdi[]): void {
    missing = new Set(teeth);
  },

  /** Reads and mends a scan, from its address or the file itself. Rejects with a sentence. */
  async open(from: string | File, told: Progress, mend = true): Promise<Opened> {
    const bytes = typeof from === 'string' ? await fetched(from, told) : new Uint8Array(await from.arrayBuffer());
    told('Reading', 0);
    try {
      if (hasNumbers(bytes)) throw new Error('This scan’s teeth are told apart already: it is used as it is.');
      const read = readMesh(bytes);
      source = read.mesh;
      told(mend ? 'Mending' : 'Looking', 0.4);
      const done = mend ? repaired(read.mesh) : { mesh: read.mesh, repairs: [] };
      mended = done.mesh;
      shaped = undefined;
      // Colours belong to the points of the file; mending moves none while none is joined.
      colours = read.colours && read.colours.length === mended.positions.length ? read.colours : undefined;
      const widest = span(mended);
      const unitMm = widest >= JAW_SPAN_MM.least && widest <= JAW_SPAN_MM.most ? 1 : (UNITS_MM.find((u) => widest * u >= 40 && widest * u <= 90) ?? 1);
      told('Laying', 0.8);
      const like = jawLike(scaled(mended, unitMm));
      proposed = unitMm === 1 ? like : undefined;
      const preview = proposed?.found && drawable(meshInFrame(mended, proposed.found.frame));
      const opened = { format: read.format, triangles: read.mesh.triangles.length / 3, repairs: done.repairs, widest, unitMm, jaw: like.jaw };
      return preview ? transfer({ ...opened, preview }, buffers(preview)) : opened;
    } catch (error) {
      if (error instanceof Error && !(error instanceof Refusal) && error.message.startsWith('This scan')) throw error;
      throw sentenceOf(error, 'The scan can’t be read.');
    }
  },

  /** Lays the scan into the mouth by its own shape and picks its teeth. */
  lay(as: Jaw, unitMm: number): Laid {
    if (!mended) throw new Error('The scan is not open.');
    if (unitMm !== 1) {
      mended = scaled(mended, unitMm);
      shaped = undefined;
      source = source && scaled(source, unitMm);
    }
    jaw = as;
    try {
      const found = laidByShape(mended, jaw, unitMm === 1 && proposed?.jaw === as ? proposed.found : undefined, missing);
      frame = found.frame;
      return laid(found.symmetry, undefined, undefined, found.look);
    } catch (error) {
      throw sentenceOf(error, 'No row of teeth can be found in the scan.');
    }
  },

  /** The case's scan, to be looked at beside this one. */
  async firstView(url: string): Promise<JawView> {
    const { scan } = await firstScan(url);
    const teeth = [...scan.teeth].map(([tooth, mesh]) => ({ tooth, mesh: drawable(mesh) }));
    const gum = drawable(scan.rest);
    return transfer({ teeth, gum }, [...teeth.flatMap((t) => buffers(t.mesh)), ...buffers(gum)]);
  },

  /**
   * Lays it on the case's scan of the same jaw, by what is the same on both.
   * @param places the same three places on this scan as it lies now and on the case's; without them it begins from its own shape
   */
  async layOn(as: Jaw, url: string, places?: readonly [own: ThreePlaces, first: ThreePlaces]): Promise<Laid> {
    if (!mended) throw new Error('The scan is not open.');
    jaw = as;
    const { ground } = await firstScan(url);
    const was = frame;
    try {
      const [a, b, c] = places?.[0] ?? [];
      const start =
        was && places && a && b && c
          ? startFromPlaces([toParent(was, a), toParent(was, b), toParent(was, c)], places[1])
          : inverse(mouthFrame(mended, jaw).frame);
      const found = layOnto(mended, ground, start);
      frame = inverse(found.frame);
      const { share, p95Mm, doubt } = found;
      return laid(1, { share, p95Mm, ...(doubt && { doubt }) }, ground);
    } catch (error) {
      throw sentenceOf(error, 'It can’t be laid on the first scan.');
    }
  },

  /** Lays it as the other jaw of the same sitting was laid: by the bite as it was scanned. Rejects where that scan says nothing of it. */
  async layByBite(as: Jaw, otherUrl: string): Promise<Laid> {
    if (!mended) throw new Error('The scan is not open.');
    const found = frameInHead(await fetched(otherUrl, () => undefined));
    if (!found) throw new Error('The other jaw’s scan does not say how it was laid: only one whose teeth were picked out here does.');
    let shape: Frame;
    try {
      shape = mouthFrame(mended, as).frame;
    } catch (error) {
      throw sentenceOf(error, 'No row of teeth can be found in the scan.');
    }
    if (!liesTogether(shape, found)) throw new Error('The two scans do not lie together: they are of different sittings, or of different scanners.');
    jaw = as;
    frame = found;
    return laid(1);
  },

  /** Lays a lower jaw on the case's upper one where a hand puts it, closed until it rests there. */
  async layByHand(otherUrl: string, hand: ByHand): Promise<Laid> {
    if (!mended) throw new Error('The scan is not open.');
    const { scan } = await firstScan(otherUrl);
    const edge = edgeOf(scan);
    if (!edge) throw new Error('The upper scan has no central incisors to go by.');
    try {
      shaped ??= laidByShape(mended, 'lower', undefined, missing).frame;
    } catch (error) {
      throw sentenceOf(error, 'No row of teeth can be found in the scan.');
    }
    const put = turn({ ...WORLD, origin: [edge[0] + hand.leftMm, edge[1] + hand.overjetMm, edge[2] - OPEN_MM] }, 'z', -hand.turnDeg);
    const rests = restingOn(
      [...scan.teeth].map(([tooth, mesh]) => ({ tooth, mesh })),
      placeMesh(meshInFrame(mended, shaped), put),
    );
    if (!rests) throw new Error('So the jaws do not lie over each other.');
    jaw = 'lower';
    const place = nested(rests.move, put);
    frame = nested(shaped, inverse(place));
    return laid(1, undefined, undefined, undefined, { touching: rests.touching, overlapMm: place.origin[2] - edge[2] });
  },

  /** The picked teeth of a wax-up, a mock-up or a provisional as a plan on the case's scan. */
  async asPlan(url: string): Promise<FromWaxUp> {
    if (!inMouth || !picked) throw new Error('The scan is not open.');
    const { scan } = await firstScan(url);
    try {
      return planFromWaxUp(
        existingArch(scan),
        existingArch(asSegmented(inMouth, picked.triangles, jaw)),
        [...rooms.keys()].filter((t) => t % 10 <= 3),
      );
    } catch (error) {
      throw sentenceOf(error, 'The picked teeth can’t be made a plan.');
    }
  },

  /** Lays it anew by three places, in the coordinates in which it lies now: between the centrals, on the patient's right, on the left. */
  layBy(middle: Vec3, right: Vec3, left: Vec3): Laid {
    if (!mended || !frame) throw new Error('The scan is not open.');
    const was = frame;
    const inScan = (p: Vec3) => toParent(was, p);
    try {
      const found = laidByClicks(mended, jaw, [inScan(middle), inScan(right), inScan(left)], missing);
      frame = found.frame;
      return laid(1, undefined, undefined, found.look);
    } catch (error) {
      throw sentenceOf(error, 'These three places do not lay the jaw.');
    }
  },

  /** Another number for a tooth; its own number is taken from whoever had it. */
  renumber(from: Fdi, to: Fdi | undefined): PickedView {
    const own = rooms.get(from);
    const other = to === undefined ? undefined : rooms.get(to);
    rooms.delete(from);
    if (own && to !== undefined) rooms.set(to, own);
    if (other) rooms.set(from, other);
    for (const [v, t] of painted) {
      if (t === from) {
        if (to === undefined) painted.delete(v);
        else painted.set(v, to);
      } else if (t === to) painted.set(v, from);
    }
    return pick();
  },

  /** A tooth where a place was clicked. */
  add(vertex: number, tooth: Fdi): PickedView {
    if (!look) throw new Error('The scan is not open.');
    rooms.set(tooth, placeAtVertex(look, vertex).place);
    return pick();
  },

  /** Gives what lies about some vertices to a tooth or, with 0, to the gum. */
  paint(vertices: readonly number[], radiusMm: number, tooth: Fdi | 0): PickedView {
    if (!look || !inMouth) throw new Error('The scan is not open.');
    const p = inMouth.positions;
    const seen = new Set<number>();
    const todo = [...vertices];
    const from = new Map<number, number>(vertices.map((v) => [v, v]));
    for (let i = 0; i < todo.length; i++) {
      const v = todo[i] as number;
      if (seen.has(v)) continue;
      seen.add(v);
      painted.set(v, tooth);
      const o = from.get(v) as number;
      for (let k = look.neighbourhood.from[v] as number; k < (look.neighbourhood.from[v + 1] as number); k++) {
        const w = look.neighbourhood.beside[k] as number;
        const far = Math.hypot(...([0, 1, 2] as const).map((c) => (p[3 * w + c] as number) - (p[3 * o + c] as number)));
        if (far > radiusMm || seen.has(w)) continue;
        from.set(w, o);
        todo.push(w);
      }
    }
    return pick();
  },

  /** Pulls the line between a tooth and the gum from one place to another; what lies about it stays as it is then. */
  pull(tooth: Fdi, from: Vec3, to: Vec3): PickedView {
    if (!look || !picked) throw new Error('The scan is not open.');
    const vertices = picked.vertices.slice();
    for (const [v, label] of pulledLine(look, vertices, tooth, turned(from), turned(to))) {
      vertices[v] = label;
      painted.set(v, label);
    }
    return shown(pickedAs(look, vertices, rooms));
  },

  /** The working copy: the jaw in the mouth's coordinates with closed, numbered teeth, as PLY; and how well the library's forms fit it. */
  finish(): { bytes: Uint8Array; fits: readonly { tooth: Fdi; fitMm: number; widthMm: number; lengthMm: number }[] } {
    if (!inMouth || !picked) throw new Error('The scan is not open.');
    try {
      const segmented = asSegmented(inMouth, picked.triangles, jaw);
      const arch = existingArch(segmented);
      const parts = [...segmented.teeth.values(), segmented.rest];
      const whole = mergeMeshes(parts);
      const attributes = new Uint16Array(whole.triangles.length / 3);
      let at = 0;
      [...segmented.teeth.keys(), 0].forEach((tooth, i) => {
        const n = (parts[i] as Mesh).triangles.length / 3;
        attributes.fill(tooth, at, at + n);
        at += n;
      });
      const bytes = writePly(whole, attributes, `${jaw} jaw, teeth picked out, mm; ${frameWords(frame as Frame)}`);
      const fits = [...arch.teeth.values()].map(({ tooth, fitMm, widthMm, lengthMm }) => ({ tooth, fitMm, widthMm, lengthMm }));
      return transfer({ bytes, fits }, [bytes.buffer as ArrayBuffer]);
    } catch (error) {
      throw sentenceOf(error, 'The picked teeth can’t be used yet.');
    }
  },
};

/** A jaw laid by the other's frame lies about where its own shape would have it: within so many degrees and mm. House limits. */
const TOGETHER = { deg: 20, mm: 15 };

function liesTogether(a: Frame, b: Frame): boolean {
  const cos = (p: Vec3, q: Vec3) => p[0] * q[0] + p[1] * q[1] + p[2] * q[2];
  const least = Math.cos((TOGETHER.deg * Math.PI) / 180);
  const far = Math.hypot(a.origin[0] - b.origin[0], a.origin[1] - b.origin[1], a.origin[2] - b.origin[2]);
  return far < TOGETHER.mm && cos(a.x, b.x) > least && cos(a.z, b.z) > least;
}

function hasNumbers(bytes: Uint8Array): boolean {
  try {
    return hasToothNumbers(bytes);
  } catch {
    return false;
  }
}

/** A palate covers the room within the arch; a lower jaw leaves it to the tongue. */
const PALATE_SHARE = 0.6;

function jawLike(m: Mesh): { readonly jaw: Jaw; readonly found?: MouthProposal } {
  try {
    const found = mouthFrame(m, 'upper');
    return found.covered > PALATE_SHARE ? { jaw: 'upper', found } : { jaw: 'lower', found: mouthFrame(m, 'lower') };
  } catch {
    return { jaw: 'upper' };
  }
}

export type OwnScanService = typeof service;
expose(service);
