import { Refusal } from '../errors.js';
import { type Curve, monotoneCurve, smoothstep, tabulated } from '../geometry/curve.js';
import type { Mesh } from '../geometry/mesh.js';
import { type Fdi, isUpper, kindOf, sideOf } from '../teeth/notation.js';
import { inCharacter } from './character.js';
import { CROWN_FORMS, type CrownForm } from './form.js';
import { LOWER_CROWN_FORMS } from './lower-forms.js';
import { CROWN_LIMITS, type CrownShape, type Limit } from './parameters.js';

/** What is set on one planned crown. Lengths in mm. */
export interface CrownSize extends CrownShape {
  /** Facial zenith to edge as a caliper held in the sagittal plane reads it, 5–16. */
  readonly lengthMm: number;
  /** Greatest mesio-distal width, 3–14. */
  readonly widthMm: number;
  /** Fuller (+) or flatter (−) facial than the library form, −2–2. */
  readonly facialVolumeMm: number;
  /** Lost from the edge by wear: the form of a tooth longer by this, cut flat, 0–4. */
  readonly wearMm?: number;
}

/**
 * A crown as a closed mesh in the tooth's own frame: z apical, y backward (palatal or lingual), x to the patient's left
 * for an upper tooth and to the right for a lower one (z points down there), mm; the edge's lowest point lies at z = 0,
 * the axis at x = y = 0. The facial zenith stands higher than all of the facial neck. `ringSize` vertices a ring,
 * `rings` rings from neck to edge, then the cap rows and the neck's centre: see `ringVertex`.
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
 * The crown of a front tooth or premolar of either jaw.
 * Deterministic; about 2 ms.
 * @throws Refusal `tooth-unknown` for a tooth without a library form, `parameter-out-of-range` outside CROWN_LIMITS
 */
export function crown(tooth: Fdi, size: CrownSize): Crown {
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
  return {
    tooth,
    size,
    mesh: buildMesh(inCharacter(library, size.character ?? 'even'), tooth, size),
    ringSize: AROUND,
    rings: RINGS,
  };
}

interface Surface {
  readonly halfMesial: Curve;
  readonly halfDistal: Curve;
  readonly facial: Curve;
  readonly palatal: Curve;
  readonly contact: Curve;
  readonly power: Curve;
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
    };
    surfaces.set(form, s);
  }
  return s;
}

function buildMesh(form: CrownForm, tooth: Fdi, size: CrownSize): Mesh {
  const surface = surfaceOf(form);
  const wear = size.wearMm ?? 0;
  const length = size.lengthMm + wear;
  // Form coordinates have mesial at +c; on the patient's upper right mesial lies at +x (towards the patient's left)
  // too.
  const mesialSign = (sideOf(tooth) === 'right') === isUpper(tooth) ? 1 : -1;
  const capRows = form.palatalCusp ? 9 : 4;
  const half = AROUND / 2;
  const positions = new Float64Array(3 * (RINGS * AROUND + capRows * (half - 1) + 1));

  const neckWide = (size.neckWidthMm ?? 0) / 2;
  const put = (at: number, c: number, z: number, front: number) => {
    const h = z / length;
    const halfWidth =
      (size.widthMm / 2) * (c >= 0 ? surface.halfMesial(h) : surface.halfDistal(h)) +
      neckWide * smoothstep(0.5, 0.95, h);
    positions[3 * at] = mesialSign * c * halfWidth;
    positions[3 * at + 1] = -front;
    positions[3 * at + 2] = z - wear;
  };

  for (let k = 0; k < AROUND; k++) {
    // k = 0 lies at +x, then over the facial (a quarter) to −x and back over the palatal.
    const angle = (2 * Math.PI * k) / AROUND;
    const c = mesialSign * Math.cos(angle);
    const isFacial = k <= half;
    const top = edgeHeight(form, size, c, length, isFacial);
    const neck = neckHeight(form, size, c, length, isFacial);
    const across = acrossTerms(form, c, size.textureShare ?? 1);
    for (let r = 0; r < RINGS; r++) {
      const z = neck + (top - neck) * RING_PLACES[r];
      put(
        ringVertex({ ringSize: AROUND }, r, k),
        c,
        z,
        isFacial
          ? facialFront(form, surface, size, across, z, length)
          : palatalFront(form, surface, size, across, z / length),
      );
    }
  }

  // The cap between the facial and palatal edge lines, row by row.
  const firstCap = RINGS * AROUND;
  for (let k = 1; k < half; k++) {
    const f = 3 * ringVertex({ ringSize: AROUND }, RINGS - 1, k);
    const p = 3 * ringVertex({ ringSize: AROUND }, RINGS - 1, AROUND - k);
    const c = mesialSign * Math.cos((2 * Math.PI * k) / AROUND);
    for (let row = 0; row < capRows; row++) {
      const v = (row + 1) / (capRows + 1);
      const at = 3 * (firstCap + row * (half - 1) + k - 1);
      for (let i = 0; i < 3; i++) positions[at + i] = positions[f + i] * (1 - v) + positions[p + i] * v;
      positions[at + 2] = positions[at + 2] + capRelief(form, c, v, wear);
    }
  }
  settleHeights(positions, size.lengthMm);
  settleWidth(positions, size.widthMm);

  // The neck is closed from a point a little below the ring's middle.
  const centre = positions.length / 3 - 1;
  let zNeck = 0;
  for (let k = 0; k < AROUND; k++) zNeck += positions[3 * k + 2] / AROUND;
  positions[3 * centre] = 0;
  positions[3 * centre + 1] = -surface.contact(1) * 0.5;
  positions[3 * centre + 2] = zNeck;
  return { positions, triangles: connectivity(capRows) };
}

/**
 * Lays the edge's lowest point at z = 0 and stretches the heights until the caliper length is met exactly; lobes, edge
 * rounding and the slope of the facial surface had moved it by up to half a millimetre.
 */
function settleHeights(positions: Float64Array, lengthMm: number): void {
  let low = 2;
  let high = 2;
  for (let i = 2; i < positions.length - 3; i += 3) {
    if (positions[i] < positions[low]) low = i;
    if (i < 3 * (AROUND / 2 + 1) && positions[i] > positions[high]) high = i;
  }
  const base = positions[low];
  const slope = positions[high - 1] - positions[low - 1];
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
  if (form.cusp) {
    const { at, mesialDrop, distalDrop, tipRadius } = form.cusp;
    const d = c - at;
    const slope = d >= 0 ? mesialDrop / (1 - at) : distalDrop / (1 + at);
    z += length * slope * (Math.sqrt(d * d + tipRadius * tipRadius) - tipRadius);
  } else {
    // Three faint lobes along an unworn edge.
    z += 0.05 * (size.textureShare ?? 1) * (0.5 - 0.5 * Math.cos(3 * Math.PI * (c + 1))) * Math.max(0, 1 - wear);
  }
  if (!isFacial) {
    if (form.palatalCusp) z += length * form.palatalCusp.shorter * (1 - a * a);
    z += 0.12 * (1 - a * a);
  }
  if (wear <= 0) return z;
  // Wear planes the edge: a soft maximum keeps the new border from being razor sharp.
  const k = 0.18;
  const d = z - wear;
  return wear + (d + Math.sqrt(d * d + k * k)) / 2;
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
  readonly palatalReach: number;
  readonly fossa: number;
  readonly grooves: number;
  readonly ridge: number;
  readonly texture: number;
}

function acrossTerms(form: CrownForm, c: number, texture: number): Across {
  const a = Math.min(1, Math.abs(c));
  return {
    logA: Math.log(Math.max(a, 1e-12)),
    palatalReach: (1 - a ** form.palatalPower) ** (1 / form.palatalPower),
    // A hollow between the marginal ridges, which stand up beside it.
    fossa: form.fossaMm * (Math.exp(-((a / 0.5) ** 4)) - 0.42 * Math.exp(-(((a - 0.74) / 0.13) ** 2))),
    grooves: texture * (Math.exp(-(((c - 0.36) / 0.13) ** 2)) + Math.exp(-(((c + 0.36) / 0.13) ** 2))),
    texture,
    ridge: form.ridgeMm * Math.exp(-(((c - (form.cusp?.at ?? 0)) / 0.22) ** 2)),
  };
}

/** Palatal surface: mm in front of the axis (negative is behind) at height h. */
function palatalFront(form: CrownForm, s: Surface, size: CrownSize, x: Across, h: number): number {
  const border = s.contact(h);
  const dip = form.fossaMm === 0 ? 0 : x.fossa * smoothstep(0.06, 0.22, h) * (1 - smoothstep(0.48, 0.66, h));
  const thicker = (size.edgeThicknessMm ?? 0) * (1 - smoothstep(0.1, 0.42, h));
  return border + (s.palatal(h) - border + dip - thicker) * x.palatalReach;
}

/**
 * Facial surface: mm in front of the axis at height z. A superellipse between the borders, with lobes, ridge and
 * ripples on it.
 */
function facialFront(form: CrownForm, s: Surface, size: CrownSize, x: Across, z: number, length: number): number {
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
  return border + (s.facial(h) + volume - border + ridge - grooves + ripple) * reach;
}

/** How far the cap lies above (+) the straight line between the edge lines, mm. Negative rounds the edge outward. */
function capRelief(form: CrownForm, c: number, v: number, wear: number): number {
  const across = 1 - (2 * v - 1) ** 2;
  if (!form.palatalCusp) return -0.1 * across * (1 - Math.abs(c) ** 4) * Math.max(0.25, 1 - wear);
  const groove = form.palatalCusp.grooveMm * across ** 1.1;
  return groove * (1 - 0.62 * Math.abs(c) ** 2.5) * (1 - smoothstep(0.93, 1, Math.abs(c)));
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
  // Cap grid: row −1 is the facial edge line, row capRows the palatal one; the two borders are single points.
  const top = RINGS - 1;
  const firstCap = RINGS * AROUND;
  const cap = (row: number, k: number): number => {
    if (k === 0 || k === half) return ring(top, k);
    if (row < 0) return ring(top, k);
    if (row >= capRows) return ring(top, AROUND - k);
    return firstCap + row * (half - 1) + k - 1;
  };
  for (let row = -1; row < capRows; row++) {
    for (let k = 0; k < half; k++) {
      const quad = [cap(row, k), cap(row, k + 1), cap(row + 1, k + 1), cap(row + 1, k)] as [
        number,
        number,
        number,
        number,
      ];
      if (quad[1] !== quad[2]) out.push(quad[0], quad[1], quad[2]);
      if (quad[0] !== quad[3]) out.push(quad[0], quad[2], quad[3]);
    }
  }
  const centre = firstCap + capRows * (half - 1);
  for (let k = 0; k < AROUND; k++) out.push(centre, ring(0, k + 1), ring(0, k));
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
