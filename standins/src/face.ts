import { hypot, type Mesh, monotoneCurve, smoothstep, type Vec3 } from '@radiant/core';
import type { FaceTrait } from './patient.js';

/** The face's mesh and the places on it that are marked on photographs, all in the mouth's coordinates, mm. */
export interface Face {
  readonly mesh: Mesh;
  /** For each vertex 0 skin … 1 red of the lips … 2 wet inside of the lip. */
  readonly red: Float32Array;
  readonly points: FacePoints;
  /** Borders of the opening from the right corner to the left one. */
  readonly upperLip: readonly Vec3[];
  readonly lowerLip: readonly Vec3[];
}

export interface FacePoints {
  readonly pupilRight: Vec3;
  readonly pupilLeft: Vec3;
  readonly glabella: Vec3;
  readonly noseBase: Vec3;
  readonly philtrum: Vec3;
  readonly chin: Vec3;
  readonly cornerRight: Vec3;
  readonly cornerLeft: Vec3;
}

/** Heights over the planned edge, mm: a face of even thirds. House morphology. */
export const FACE_HEIGHTS = { chin: -40, noseBase: 24, noseTip: 31, eyes: 66, glabella: 78, hairline: 124, crown: 160 };

/** Columns round the mouth; half of them along the upper lip. */
const AROUND = 256;
const INNER = 5;
const LIP = 14;
const OUTER = 84;

/** The facial midline at a height: a straight line. */
const midX = (f: FaceTrait): number => f.midlineMm;

/** The skin in front of the patient: how far back it lies, mm, at a place seen from the front. */
function skinY(f: FaceTrait, x: number, z: number, smile: number): number {
  const h = FACE_HEIGHTS;
  const dx = x - midX(f);
  const a = Math.abs(dx);
  // The whole: nearly cylindrical, falling away at the sides, forehead and chin.
  let y = -6 + 0.0078 * dx * dx + 30 * (a / (headHalfWidth(Math.max(-44, Math.min(150, z))) + 6)) ** 7;
  y += 10 * smoothstep(-22, h.chin - 16, z) + 16 * smoothstep(100, 150, z) ** 1.5;
  // Nose: a ridge that rises from between the eyes to its tip, with soft wings.
  const along = smoothstep(h.glabella - 6, h.noseTip, z) * smoothstep(h.noseBase - 3, h.noseTip - 1.5, z);
  const ridgeWidth = 6 + 4 * smoothstep(h.eyes, h.noseTip, z);
  y -= 17 * along ** 1.25 * Math.exp(-((a / ridgeWidth) ** 2));
  y -= 5.6 * Math.exp(-(((a - 10.6) / 4.8) ** 2) - ((z - h.noseBase - 5) / 4.6) ** 2);
  // Sockets, brows and cheeks.
  y += 5.5 * Math.exp(-(((a - 31) / 17) ** 2) - ((z - h.eyes - 1) / 10) ** 2);
  y -= 2 * Math.exp(-((a / 46) ** 4) - ((z - h.glabella - 5) / 9) ** 2);
  y -= (3 + 2.2 * smile) * Math.exp(-(((a - 43) / 17) ** 2) - ((z - 40 - 3 * smile) / 15) ** 2);
  // The eyeball under the lids.
  y -= 3.4 * Math.exp(-(((a - f.pupilsMm / 2) / 10) ** 2) - ((z - h.eyes) / 7) ** 2);
  // The chin, and the hollow under the lower lip.
  y -= 5 * Math.exp(-((a / 15) ** 2) - ((z - h.chin - 9) / 9) ** 2);
  y += 2.6 * Math.exp(-((a / 17) ** 2) - ((z + 17) / 4.5) ** 2);
  // The upper lip stands forward; the philtrum's groove between two columns.
  y -= 3.5 * Math.exp(-((a / 26) ** 2) - ((z - 12) / 11) ** 2);
  y += 1.1 * Math.exp(-((a / 3) ** 2)) * smoothstep(9, 13, z) * (1 - smoothstep(h.noseBase - 6, h.noseBase, z));
  // The fold from nose to corner, deeper in a smile.
  const fold = a - (15 + (h.noseBase + 4 - z) * 0.55 + 6 * smile);
  y +=
    (0.8 + 1.3 * smile) *
    Math.exp(-((fold / 3.2) ** 2)) *
    smoothstep(-6, 4, z) *
    (1 - smoothstep(h.noseBase, h.noseBase + 8, z));
  return y;
}

interface Opening {
  readonly half: number;
  readonly upper: (s: number) => number;
  readonly lower: (s: number) => number;
  readonly cornerZ: number;
}

function openingOf(f: FaceTrait, smile: number): Opening {
  const mix = (rest: number, full: number) => rest + (full - rest) * smile;
  const half = mix(f.restWidthMm / 2, f.smileWidthMm / 2);
  const top = mix(f.restDisplayMm, f.smileLipUpMm);
  const bottom = mix(-1.2, -f.smileLipDownMm);
  const cornerZ = mix((top + bottom) / 2 - 0.6, 4.6);
  return {
    half,
    cornerZ,
    // Nearly level over the front teeth, falling to the corners; at rest the tubercle hangs a little.
    upper: (s) =>
      cornerZ +
      (top - cornerZ) * (1 - Math.abs(s) ** mix(2.2, 2.6)) +
      mix(0.5, 0.25) * (1 - Math.exp(-((s / 0.16) ** 2))) * (1 - s * s),
    lower: (s) => cornerZ + (bottom - cornerZ) * (1 - Math.abs(s) ** mix(2, 1.9)),
  };
}

/** How far back the border of the opening lies: in front of the teeth, drawn back at the corners. */
function borderY(s: number, half: number, smile: number, isUpper: boolean): number {
  const x = s * half;
  const teeth = 0.022 * x * x + 1.4e-5 * x ** 4;
  // Beyond the canines the lips leave the teeth and go straighter to the corner: the corridor.
  const lips = 0.0125 * x * x;
  const near = smoothstep(10, 24, Math.abs(x));
  return (isUpper ? -5.3 : -4.6) + smile * 0.5 + teeth * (1 - near) + Math.min(teeth, lips + 0.6) * near;
}

/** Rows of the face's net, from within the mouth outward. */
const ROWS = INNER + LIP + OUTER;

/** One column of the face's net: where the border of the lip and its red run, and the outline of the head beyond. */
interface Column {
  readonly isUpper: boolean;
  /** Along the opening, -1 at the patient's right corner, 1 at the left one. */
  readonly s: number;
  readonly edge: Vec3;
  readonly rim: Vec3;
  readonly rimY: number;
  readonly outline: readonly [number, number];
  /** How far the lip bulges in its middle, mm. */
  readonly bulge: number;
}

/** A place of a column, and how red it is: within the mouth, on the lip, on the skin. */
function placeIn(c: Column, r: number, f: FaceTrait, smile: number): { readonly p: Vec3; readonly colour: number } {
  if (r < INNER) return { p: within(c, 1 - r / INNER), colour: 2 };
  if (r < INNER + LIP) {
    const q = (r - INNER) / LIP;
    return { p: onLip(c, q), colour: 1 + Math.max(0, 1 - q * 6) };
  }
  const q = (r - INNER - LIP) / (OUTER - 1);
  return { p: onSkin(c, q, f, smile), colour: Math.max(0, 1 - q * 140) };
}

const within = ({ isUpper, s, edge }: Column, q: number): Vec3 => {
  const up = isUpper ? 1 : -1;
  return [
    edge[0] * (1 - 0.02 * q),
    edge[1] + 3.2 * Math.sin((q * Math.PI) / 2) + (1 - Math.abs(s)) * 1.6 * q,
    edge[2] + up * (7 * q * q - 0.4 * q) * (1 - Math.abs(s) ** 4),
  ];
};

function onLip({ s, edge, rim, rimY, bulge: most }: Column, q: number): Vec3 {
  const bulge = most * (1 - Math.abs(s) ** 3) + 0.25;
  // Out round the roll of the lip: forward quickly, then over to the rim.
  const roll = Math.sin(Math.PI * Math.min(1, q ** 0.62 * 1.02)) ** 0.9;
  return [
    edge[0] + (rim[0] - edge[0]) * q,
    edge[1] + (rimY - edge[1]) * q - bulge * roll,
    edge[2] + (rim[2] - edge[2]) * q ** 1.15,
  ];
}

function onSkin({ rim, rimY, outline }: Column, q: number, f: FaceTrait, smile: number): Vec3 {
  const w = q ** 1.35;
  const px = rim[0] + (outline[0] - rim[0]) * w;
  const pz = rim[2] + (outline[1] - rim[2]) * w;
  const y = skinY(f, px, pz, smile);
  // Just outside the rim the skin leaves it smoothly.
  const near = Math.exp(-hypot(px - rim[0], pz - rim[2]) / 3.2);
  return [px, y + (rimY - skinY(f, rim[0], rim[2], smile)) * near + 42 * smoothstep(0.82, 1, q) ** 2, pz];
}

/** The triangles of a net that is closed around. */
function netOf(rows: number): Uint32Array {
  const triangles: number[] = [];
  for (let r = 0; r < rows - 1; r++) {
    for (let i = 0; i < AROUND; i++) {
      const j = (i + 1) % AROUND;
      const [a, b, c, d] = [r * AROUND + i, r * AROUND + j, (r + 1) * AROUND + j, (r + 1) * AROUND + i];
      triangles.push(a, c, b, a, d, c);
    }
  }
  return Uint32Array.from(triangles);
}

/** The face at rest (0), in full smile (1) or between. */
export function makeFace(f: FaceTrait, smile: number): Face {
  const o = openingOf(f, smile);
  const cant = (f.cantDeg * Math.PI) / 180;
  const canted = (p: Vec3): Vec3 => [
    p[0] * Math.cos(cant) - (p[2] - 4) * Math.sin(cant),
    p[1],
    4 + p[0] * Math.sin(cant) + (p[2] - 4) * Math.cos(cant),
  ];
  const upperBulge = 3.4 - 1.4 * smile;
  const lowerBulge = 4.6 - 1.9 * smile;
  const upperRed = 7.2 - 2.4 * smile;
  const lowerRed = 9.4 - 2.8 * smile;
  const positions = new Float64Array(3 * AROUND * ROWS);
  const red = new Float32Array(AROUND * ROWS);
  const upperLip: Vec3[] = [];
  const lowerLip: Vec3[] = [];
  const halfAround = AROUND / 2;
  let philtrum: Vec3 = [0, 0, 0];
  for (let i = 0; i < AROUND; i++) {
    const isUpper = i < halfAround;
    // Over the upper lip from the patient's right corner to the left one, back along the lower.
    const t = isUpper ? i / halfAround : (i - halfAround) / halfAround;
    const s = (isUpper ? -1 : 1) * Math.cos(Math.PI * t);
    const x = s * o.half;
    const z = isUpper ? o.upper(s) : o.lower(s);
    const edge = canted([x, borderY(s, o.half, smile, isUpper), z]);
    const bow = isUpper ? 0.86 + 0.14 * Math.cos(Math.min(1, Math.abs(s) / 0.2) * Math.PI + Math.PI) : 1;
    const thick = (isUpper ? upperRed * bow : lowerRed) * (1 - Math.abs(s) ** 2.3) + 0.35;
    const rim = canted([x * 1.035, 0, z + (isUpper ? thick : -thick)]);
    const rimY = Math.min(skinY(f, rim[0], rim[2], smile), edge[1] - 0.4) - 0.9 * (1 - s * s);
    // The outline of the head that this column runs to.
    const angle = Math.PI - 2 * Math.PI * (i / AROUND);
    const outline = headOutline(f, angle);
    if (isUpper) upperLip.push(edge);
    else lowerLip.push(edge);
    if (i === halfAround / 2) philtrum = [rim[0], rimY, rim[2]];
    const column: Column = { isUpper, s, edge, rim, rimY, outline, bulge: isUpper ? upperBulge : lowerBulge };
    for (let r = 0; r < ROWS; r++) {
      const { p, colour } = placeIn(column, r, f, smile);
      positions.set(p, 3 * (r * AROUND + i));
      red[r * AROUND + i] = colour;
    }
  }
  upperLip.push(lowerLip[0] as Vec3);
  const lower = [...lowerLip, upperLip[0] as Vec3].reverse();
  const h = FACE_HEIGHTS;
  const on = (x: number, z: number): Vec3 => [x, skinY(f, x, z, smile), z];
  const m = midX(f);
  return {
    mesh: { positions, triangles: netOf(ROWS) },
    red,
    upperLip,
    lowerLip: lower,
    points: {
      pupilRight: on(m - f.pupilsMm / 2, h.eyes),
      pupilLeft: on(m + f.pupilsMm / 2, h.eyes),
      glabella: on(m, h.glabella),
      noseBase: on(m, h.noseBase - 1),
      philtrum,
      chin: on(m, h.chin),
      cornerRight: upperLip[0] as Vec3,
      cornerLeft: upperLip.at(-1) as Vec3,
    },
  };
}

/** Half the head's width by height, mm: skull, temples, cheekbones, jaw angles, chin. House morphology. */
export const headHalfWidth = monotoneCurve([
  [-51, 0],
  [-50, 9],
  [-46, 20],
  [-38, 32],
  [-24, 44.5],
  [-6, 54.5],
  [16, 61.5],
  [40, 66.5],
  [62, 68.5],
  [84, 68],
  [104, 65.5],
  [124, 59],
  [142, 46],
  [154, 28],
  [160, 0],
]);
/** From where the outline is looked for, and how far at most. */
const OUTLINE_FROM_Z = 24;
const OUTLINE_REACH_MM = 150;

/** The outline of the head seen from the front, by the direction from the nose: 0 to the patient's left, a quarter up. */
function headOutline(f: FaceTrait, angle: number): readonly [number, number] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  let [within, beyond] = [0, OUTLINE_REACH_MM];
  for (let i = 0; i < 40; i++) {
    const r = (within + beyond) / 2;
    const z = OUTLINE_FROM_Z + r * s;
    if (z > FACE_HEIGHTS.chin - 11 && z < FACE_HEIGHTS.crown && Math.abs(r * c) < headHalfWidth(z)) within = r;
    else beyond = r;
  }
  return [midX(f) + within * c, OUTLINE_FROM_Z + within * s];
}
