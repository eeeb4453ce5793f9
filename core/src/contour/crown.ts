import { Refusal } from '../errors.js';
import { type Curve, monotoneCurve, smoothstep, tabulated } from '../geometry/curve.js';
import type { Mesh } from '../geometry/mesh.js';
import { type Fdi, isUpper, kindOf, sideOf } from '../teeth/notation.js';
import { inCharacter } from './character.js';
import type { CrownForm, Cusp } from './form.js';
import { LOWER_CROWN_FORMS } from './lower-forms.js';
import { CROWN_LIMITS, type CrownShape, type Limit } from './parameters.js';
import { CROWN_FORMS } from './upper-forms.js';

/** What is set on one planned crown. Lengths in mm. */
export interface CrownSize extends CrownShape {
  /** Facial zenith to edge as a caliper held in the sagittal plane reads it, 5–16. */
  readonly lengthMm: number;
  /** Greatest mesio-distal width, 3–14. */
  readonly widthMm: number;
  /** Greatest facio-oral depth; as deep as is usual for its width where nothing is said. */
  readonly depthMm?: number;
  /** Fuller (+) or flatter (−) facial than the library form, −2–2. */
  readonly facialVolumeMm: number;
  /** Lost from the edge by wear: the form of a tooth longer by this, cut flat, 0–4. */
  readonly wearMm?: number;
}

/**
 * A crown as a closed mesh in the tooth's own frame: z apical, y backward (palatal or lingual), x to the patient's left
 * for an upper tooth and to the right for a lower one (z points down there), mm; the edge's lowest point lies at z = 0,
 * the axis at x = y = 0. The facial zenith stands higher than all of the facial neck. `ringSize` vertices a ring,
 * `rings` rings from neck to edge, then the rows of the edge's cap and of the neck's: see `ringVertex`.
 */
export interface Crown {
  readonly tooth: Fdi;
  readonly size: CrownSize;
  readonly mesh: Mesh;
  readonly ringSize: number;
  readonly rings: number;
}

/** Vertices of one ring of a crown, and how many rings it has from neck to edge. */
export const CROWN_RING = 96;
export const CROWN_RINGS = 44;
const AROUND = CROWN_RING;
const RINGS = CROWN_RINGS;

/** Where each ring lies between neck (0) and edge (1): they crowd towards the edge, where the form turns fastest. */
const RING_PLACES = Float64Array.from({ length: RINGS }, (_, r) => 1 - (1 - r / (RINGS - 1)) ** 1.6);

/**
 * Vertex number of ring r (0 neck … rings − 1 edge) at place k around: 0 left border, a quarter facial, half right
 * border.
 */
export function ringVertex(crown: Pick<Crown, 'ringSize'>, r: number, k: number): number {
  return r * crown.ringSize + (((k % crown.ringSize) + crown.ringSize) % crown.ringSize);
}

/**
 * A tooth's library form.
 * @throws Refusal `tooth-unknown` for a tooth without one
 */
export function formOf(tooth: Fdi): CrownForm {
  const library = (isUpper(tooth) ? CROWN_FORMS : LOWER_CROWN_FORMS)[kindOf(tooth)];
  if (!library) throw new Refusal('tooth-unknown', `There is no crown form for tooth ${tooth}.`, tooth);
  return library;
}

/**
 * The crown of a front tooth, premolar or molar of either jaw.
 * Deterministic; about 2 ms.
 * @throws Refusal `tooth-unknown` for a tooth without a library form, `parameter-out-of-range` outside CROWN_LIMITS
 */
export function crown(tooth: Fdi, size: CrownSize): Crown {
  return {
    tooth,
    size,
    mesh: buildMesh(requireForm(tooth, size), tooth, size),
    ringSize: AROUND,
    rings: RINGS,
  };
}

/**
 * Places of a crown's face between neck and edge, away from the borders: of every second ring every how manyth place
 * around, x, y, z each, as `crown` has them. Little else of it is worked out: a fit asks for some hundreds of faces.
 * @throws Refusal as `crown`
 */
export function crownFace(tooth: Fdi, size: CrownSize, every: number): Float64Array {
  const form = requireForm(tooth, size);
  const { positions, front, capFront } = ringsOf(form, tooth, size);
  const known = new Uint8Array(positions.length / 3);
  const frontAt = (v: number): number => {
    if (!known[v]) {
      if (v < RINGS * AROUND) front(v);
      else capFront(v, frontAt);
      known[v] = 1;
    }
    return positions[3 * v + 1];
  };
  settle(positions, size, !!form.chewing, frontAt);
  const out: number[] = [];
  for (let r = 4; r < RINGS - 8; r += 2)
    for (let k = 6; k <= AROUND / 2 - 6; k += every) {
      const v = ringVertex({ ringSize: AROUND }, r, k);
      out.push(positions[3 * v], frontAt(v), positions[3 * v + 2]);
    }
  return Float64Array.from(out);
}

/** The library's form in its character. @throws Refusal as `crown` */
function requireForm(tooth: Fdi, size: CrownSize): CrownForm {
  const library = formOf(tooth);
  for (const [name, limit] of Object.entries<Limit>(CROWN_LIMITS)) {
    const v = size[name as keyof typeof CROWN_LIMITS] ?? 0;
    if (!(v >= limit.min && v <= limit.max)) {
      throw new Refusal(
        'parameter-out-of-range',
        `${name} of ${tooth} is ${v}; it must lie between ${limit.min} and ${limit.max} mm.`,
        v,
      );
    }
  }
  const { depthMm } = size;
  if (depthMm !== undefined && !(depthMm > 0))
    throw new Refusal('parameter-out-of-range', `depthMm of ${tooth} is ${depthMm}; it must be more than 0.`, depthMm);
  return inCharacter(library, size.character ?? 'even');
}

interface Surface {
  readonly halfMesial: Curve;
  readonly halfDistal: Curve;
  readonly facial: Curve;
  readonly palatal: Curve;
  readonly contact: Curve;
  readonly power: Curve;
  readonly palatalPower: Curve;
}

const surfaces = new WeakMap<CrownForm, Surface>();

function surfaceOf(form: CrownForm): Surface {
  let s = surfaces.get(form);
  if (!s) {
    const curve = (knots: readonly (readonly [number, number])[]) => tabulated(monotoneCurve(knots), -0.05, 1.1);
    s = {
      halfMesial: curve(form.mesial),
      halfDistal: curve(form.distal),
      facial: curve(form.facial),
      palatal: curve(form.palatal),
      contact: curve(form.contact),
      power: curve(form.facialPower),
      palatalPower: curve(form.palatalPower),
    };
    surfaces.set(form, s);
  }
  return s;
}

/** Rows of the cap between the facial and palatal edge lines: a chewing surface needs more than an edge. */
const capRowsOf = (form: CrownForm): number => (form.chewing ? 15 : 4);
/** Rows of the surface that closes the neck. */
const NECK_ROWS = 3;
/** A tooth is never so much shallower or deeper than usual; what measures so lacks a side. House limits. */
const DEPTH_SHARE = { least: 0.75, most: 1.3 } as const;

function buildMesh(form: CrownForm, tooth: Fdi, size: CrownSize): Mesh {
  const { positions, front, capFront } = ringsOf(form, tooth, size);
  const frontAt = (v: number): number => positions[3 * v + 1];
  for (let v = 0; v < RINGS * AROUND; v++) front(v);
  for (let v = RINGS * AROUND; v < positions.length / 3; v++) capFront(v, frontAt);
  settle(positions, size, !!form.chewing, frontAt);
  return { positions, triangles: connectivity(capRowsOf(form)) };
}

/** A crown's vertices, of which each but its place forward and back is known. */
interface Rings {
  /** x, y, z of each, before they are settled; y is 0 until it is asked for. */
  readonly positions: Float64Array;
  /** Works out y of a vertex of the rings. */
  readonly front: (v: number) => void;
  /** Works out y of a vertex of a cap from those of the lines that it lies between. */
  readonly capFront: (v: number, frontAt: (v: number) => number) => void;
}

function ringsOf(form: CrownForm, tooth: Fdi, size: CrownSize): Rings {
  const surface = surfaceOf(form);
  const wear = size.wearMm ?? 0;
  const length = size.lengthMm + wear;
  const deep = depthShare(form, size);
  // Form coordinates have mesial at +c; on the patient's upper right mesial lies at +x (towards the patient's left)
  // too.
  const mesialSign = (sideOf(tooth) === 'right') === isUpper(tooth) ? 1 : -1;
  const capRows = capRowsOf(form);
  const half = AROUND / 2;
  const positions = new Float64Array(3 * (RINGS * AROUND + (capRows + NECK_ROWS) * (half - 1)));
  const neckWide = (size.neckWidthMm ?? 0) / 2;
  // k = 0 lies at +x, then over the facial (a quarter) to −x and back over the palatal.
  const lateral = (k: number) => mesialSign * Math.cos((2 * Math.PI * k) / AROUND);
  const across: Across[] = [];
  /** Heights over the unworn edge. */
  const heights = new Float64Array(RINGS * AROUND);
  for (let k = 0; k < AROUND; k++) {
    const c = lateral(k);
    const isFacial = k <= half;
    const top = edgeHeight(form, size, c, length, isFacial);
    const neck = neckHeight(form, size, c, length, isFacial);
    across.push(acrossTerms(form, c, size.textureShare ?? 1));
    for (let r = 0; r < RINGS; r++) {
      const z = neck + (top - neck) * RING_PLACES[r];
      const h = z / length;
      const halfWidth =
        (size.widthMm / 2) * (c >= 0 ? surface.halfMesial(h) : surface.halfDistal(h)) +
        neckWide * smoothstep(0.5, 0.95, h);
      const v = ringVertex({ ringSize: AROUND }, r, k);
      heights[v] = z;
      positions[3 * v] = mesialSign * c * halfWidth;
      positions[3 * v + 2] = z - wear;
    }
  }

  // The caps between the facial and palatal edge lines and neck lines, row by row.
  const firstCap = RINGS * AROUND;
  const firstNeck = firstCap + capRows * (half - 1);
  /** The vertices of the two lines that a cap's vertex lies between, and its share of the way. */
  const between = (v: number): { f: number; p: number; k: number; share: number; isEdge: boolean } => {
    const isEdge = v < firstNeck;
    const n = v - (isEdge ? firstCap : firstNeck);
    const k = (n % (half - 1)) + 1;
    const ring = isEdge ? RINGS - 1 : 0;
    const rows = isEdge ? capRows : NECK_ROWS;
    return {
      f: ringVertex({ ringSize: AROUND }, ring, k),
      p: ringVertex({ ringSize: AROUND }, ring, AROUND - k),
      k,
      share: (Math.floor(n / (half - 1)) + 1) / (rows + 1),
      isEdge,
    };
  };
  for (let v = firstCap; v < positions.length / 3; v++) {
    const { f, p, k, share, isEdge } = between(v);
    for (const i of [0, 2]) positions[3 * v + i] = positions[3 * f + i] * (1 - share) + positions[3 * p + i] * share;
    if (isEdge) positions[3 * v + 2] = positions[3 * v + 2] + capRelief(form, lateral(k), share, wear);
  }
  return {
    positions,
    front: (v) => {
      const x = across[v % AROUND] as Across;
      positions[3 * v + 1] =
        v % AROUND <= half
          ? -facialFront(surface, form, size, x, heights[v], length, deep)
          : -palatalFront(surface, size, x, heights[v] / length, deep);
    },
    capFront: (v, frontAt) => {
      const { f, p, share } = between(v);
      positions[3 * v + 1] = frontAt(f) * (1 - share) + frontAt(p) * share;
    },
  };
}

/** The facio-oral depth that is usual for a tooth of a width, mm. @throws Refusal `tooth-unknown` */
export function usualDepth(tooth: Fdi, widthMm: number): number {
  const { usualDepthMm, usualWidthMm } = formOf(tooth);
  return (widthMm / usualWidthMm) * usualDepthMm;
}

/** How deep the tooth is against its form: as wide as it is against the form where nothing is said. */
function depthShare(form: CrownForm, size: CrownSize): number {
  const share = size.depthMm === undefined ? size.widthMm / form.usualWidthMm : size.depthMm / form.usualDepthMm;
  return Math.min(DEPTH_SHARE.most, Math.max(DEPTH_SHARE.least, share));
}

/** Brings length and width to what a caliper is to read. @param frontAt y of a vertex */
function settle(positions: Float64Array, size: CrownSize, oralCusps: boolean, frontAt: (v: number) => number): void {
  settleHeights(positions, size.lengthMm, oralCusps, frontAt);
  settleWidth(positions, size.widthMm);
}

/**
 * Lays the edge's lowest point at z = 0 and stretches the heights until the caliper length is met exactly; lobes, edge
 * rounding and the slope of the facial surface had moved it by up to half a millimetre. A caliper on a tooth with oral
 * cusps is laid on the facial one.
 */
function settleHeights(
  positions: Float64Array,
  lengthMm: number,
  oralCusps: boolean,
  frontAt: (v: number) => number,
): void {
  let low = 2;
  let high = 2;
  for (let i = 2; i < positions.length; i += 3) {
    if (positions[i] < positions[low] && !(oralCusps && frontAt((i / 3) | 0) > 0)) low = i;
    if (i < 3 * (AROUND / 2 + 1) && positions[i] > positions[high]) high = i;
  }
  const base = positions[low];
  const slope = frontAt((high / 3) | 0) - frontAt((low / 3) | 0);
  const k = Math.sqrt(lengthMm ** 2 - slope ** 2) / (positions[high] - base);
  for (let i = 2; i < positions.length; i += 3) positions[i] = (positions[i] - base) * k;
}

/**
 * Stretches the width until the caliper's is met exactly: round corners can cut away the widest place, a wide neck pass
 * it.
 */
function settleWidth(positions: Float64Array, widthMm: number): void {
  let [least, most] = [Infinity, -Infinity];
  for (let i = 0; i < positions.length; i += 3) {
    const x = positions[i];
    if (x < least) least = x;
    if (x > most) most = x;
  }
  const k = widthMm / (most - least);
  const shift = (most + least) / 2;
  for (let i = 0; i < positions.length; i += 3) positions[i] = (positions[i] - shift) * k;
}

/** Height above the form's edge plane at which the side wall ends, mm. */
function edgeHeight(form: CrownForm, size: CrownSize, c: number, length: number, isFacial: boolean): number {
  const wear = size.wearMm ?? 0;
  const corner = c >= 0 ? form.mesialCorner : form.distalCorner;
  const rounder = (c >= 0 ? size.mesialCornerMm : size.distalCornerMm) ?? 0;
  const a = Math.abs(c);
  const t = Math.max(0, (a - corner.from) / (1 - corner.from));
  let z =
    Math.max(0, length * corner.drop + rounder) * (1 - Math.sqrt(Math.max(0, 1 - t * t))) +
    (size.edgeCurveMm ?? 0) * c * c;
  const cusps = isFacial ? form.cusps : (form.chewing?.cusps ?? form.cusps);
  if (cusps.length > 0) z += length * cuspHeight(cusps, c);
  // Three faint lobes along an unworn edge.
  else z += 0.05 * (size.textureShare ?? 1) * (0.5 - 0.5 * Math.cos(3 * Math.PI * (c + 1))) * Math.max(0, 1 - wear);
  // The palatal end of an edge lies a little higher than the facial one.
  if (!isFacial && !form.chewing) z += 0.12 * (1 - a * a);
  if (wear <= 0) return z;
  // Wear planes the edge: a soft maximum keeps the new border from being razor sharp.
  const k = 0.18;
  const d = z - wear;
  return wear + (d + Math.sqrt(d * d + k * k)) / 2;
}

/** Height of a line of cusps over the longest tip, as share of the length: the lowest of the cusps' arms. */
function cuspHeight(cusps: readonly Cusp[], c: number): number {
  let least = Infinity;
  for (const { at, shorter, mesialDrop, distalDrop, tipRadius } of cusps) {
    const d = c - at;
    const slope = d >= 0 ? mesialDrop / (1 - at) : distalDrop / (1 + at);
    least = Math.min(least, shorter + slope * (Math.sqrt(d * d + tipRadius * tipRadius) - tipRadius));
  }
  return least;
}

function neckHeight(form: CrownForm, size: CrownSize, c: number, length: number, isFacial: boolean): number {
  // Lateral places are shares of the half width, which at the neck is less than at the contact.
  const half = (size.widthMm / 2) * (form.distal.at(-1)?.[1] ?? 1);
  const zenith = isFacial
    ? Math.max(-0.6, Math.min(0.6, -(form.zenithDistalMm + (size.zenithDistalMm ?? 0)) / half))
    : 0;
  const drop = c >= zenith ? form.neckMesialMm : form.neckDistalMm;
  const t = c >= zenith ? (c - zenith) / (1 - zenith) : (zenith - c) / (1 + zenith);
  return length - (isFacial ? 0 : 0.25 * (1 - c * c)) - Math.min(drop, length * 0.4) * t ** 2.8;
}

/** What depends only on the lateral place c. */
interface Across {
  readonly logA: number;
  readonly marginal: number;
  readonly palatalRidge: number;
  readonly grooves: number;
  readonly ridge: number;
  readonly texture: number;
}

function acrossTerms(form: CrownForm, c: number, texture: number): Across {
  const a = Math.min(1, Math.abs(c));
  const ridgeAt = (width: number) => Math.exp(-(((c - (form.cusps[0]?.at ?? 0)) / width) ** 2));
  return {
    logA: Math.log(Math.max(a, 1e-12)),
    marginal: form.marginalMm * Math.exp(-(((a - 0.72) / 0.17) ** 2)),
    palatalRidge: form.palatalRidgeMm * (ridgeAt(0.24) - 1),
    grooves: texture * (Math.exp(-(((c - 0.36) / 0.13) ** 2)) + Math.exp(-(((c + 0.36) / 0.13) ** 2))),
    texture,
    ridge: form.ridgeMm * ridgeAt(0.22),
  };
}

/** Palatal surface: mm in front of the axis (negative is behind) at height h. */
function palatalFront(s: Surface, size: CrownSize, x: Across, h: number, deep: number): number {
  const border = s.contact(h);
  const power = s.palatalPower(h);
  const reach = Math.max(0, 1 - Math.exp(power * x.logA)) ** (1 / power);
  // The marginal ridges stand out behind the fossa and run out in the cingulum; the edge is straight across.
  const fossa = smoothstep(0.03, 0.25, h) * (1 - smoothstep(0.5, 0.78, h));
  const out = x.marginal * fossa;
  const hollow = x.palatalRidge * fossa;
  const thicker = (size.edgeThicknessMm ?? 0) * (1 - smoothstep(0.1, 0.42, h));
  return deep * (border + (s.palatal(h) - border - hollow) * reach - out) - thicker * reach;
}

/**
 * Facial surface: mm in front of the axis at height z. A superellipse between the borders, with lobes, ridge and
 * ripples on it.
 */
function facialFront(
  s: Surface,
  form: CrownForm,
  size: CrownSize,
  x: Across,
  z: number,
  length: number,
  deep: number,
): number {
  const h = z / length;
  const border = s.contact(h);
  const power = s.power(h);
  const reach = Math.max(0, 1 - Math.exp(power * x.logA)) ** (1 / power);
  // Added volume fades towards the neck, so that the emergence keeps its line.
  const neck = 1 - smoothstep(0.96, 1.04, h) * 0.5;
  const volume =
    size.facialVolumeMm * (0.35 + 0.65 * smoothstep(0, 0.45, 1 - h)) * neck +
    (size.neckVolumeMm ?? 0) * smoothstep(0.52, 0.8, h) * neck +
    (size.edgeVolumeMm ?? 0) * (1 - smoothstep(0.14, 0.5, h));
  const grooves = form.lobesMm * x.grooves * smoothstep(0.02, 0.14, h) * (1 - smoothstep(0.3, 0.75, h));
  const ridge = x.ridge * (1 - smoothstep(0.6, 1, h));
  // Perikymata: faint horizontal ripples in the cervical half.
  const ripple =
    h < 0.35
      ? 0
      : 0.008 *
        x.texture *
        Math.sin((2 * Math.PI * z) / 0.55) *
        smoothstep(0.35, 0.6, h) *
        (1 - smoothstep(0.85, 1, h));
  return deep * (border + (s.facial(h) - border) * reach) + (volume + ridge - grooves + ripple) * reach;
}

/** How far the cap lies above (+) the straight line between the edge lines, mm. Negative rounds the edge outward. */
function capRelief(form: CrownForm, c: number, v: number, wear: number): number {
  const a = Math.abs(c);
  if (!form.chewing) return -0.1 * (1 - (2 * v - 1) ** 2) * (1 - a ** 4) * Math.max(0.25, 1 - wear);
  const { grooveMm, marginalShare, grooveAt, cusps } = form.chewing;
  // From the groove to either cusp: 1 in it, 0 on the cusps' line.
  const facial = v < grooveAt;
  const t = facial ? v / grooveAt : (1 - v) / (1 - grooveAt);
  const near = Math.min(...(facial ? form.cusps : cusps).map((cusp) => Math.abs(c - cusp.at)));
  // Under a cusp its ridge runs straight down; beside it the surface falls off into the fossa.
  const steep = 1.35 - 0.6 * smoothstep(0.05, 0.4, near);
  const round = 0.12;
  const rounded = (Math.sqrt(t * t + round * round) - round) / (Math.sqrt(1 + round * round) - round);
  const depth = 1 - (1 - marginalShare) * smoothstep(0.35, 0.82, a);
  return grooveMm * depth * rounded ** steep * (1 - smoothstep(0.88, 1, a));
}

function buildConnectivity(capRows: number): Uint32Array {
  const half = AROUND / 2;
  const out: number[] = [];
  const ring = (r: number, k: number) => ringVertex({ ringSize: AROUND }, r, k);
  for (let r = 0; r < RINGS - 1; r++) {
    for (let k = 0; k < AROUND; k++) {
      out.push(ring(r, k), ring(r, k + 1), ring(r + 1, k + 1), ring(r, k), ring(r + 1, k + 1), ring(r + 1, k));
    }
  }
  // A cap's grid: row −1 is the facial line, row `rows` the palatal one; the two borders are single points.
  const firstCap = RINGS * AROUND;
  const grid = (first: number, rows: number, line: number, turned: boolean) => {
    const at = (row: number, k: number): number => {
      if (k === 0 || k === half || row < 0) return ring(line, k);
      return row >= rows ? ring(line, AROUND - k) : first + row * (half - 1) + k - 1;
    };
    const put = (a: number, b: number, c: number) => out.push(a, turned ? c : b, turned ? b : c);
    for (let row = -1; row < rows; row++) {
      for (let k = 0; k < half; k++) {
        const [a, b, c, d] = [at(row, k), at(row, k + 1), at(row + 1, k + 1), at(row + 1, k)];
        if (b !== c) put(a, b, c);
        if (a !== d) put(a, c, d);
      }
    }
  };
  grid(firstCap, capRows, RINGS - 1, false);
  grid(firstCap + capRows * (half - 1), NECK_ROWS, 0, true);
  return Uint32Array.from(out);
}

const connectivities = new Map<number, Uint32Array>();

function connectivity(capRows: number): Uint32Array {
  let c = connectivities.get(capRows);
  if (!c) {
    c = buildConnectivity(capRows);
    connectivities.set(capRows, c);
  }
  return c;
}
