import { hypot, smoothstep, toLocal, type Vec3 } from '@radiant/core';
import { FACE_HEIGHTS, headHalfWidth } from './face.js';
import type { FaceTrait, PatientTooth } from './patient.js';
import { type CameraSetting, SCALE_HEIGHT_MM, SCALE_LENGTH_MM } from './pose.js';
import { smoothNoise } from './random.js';
import { inkOnScale } from './scale-reference.js';

/** Linear light, red, green, blue; 1 is white as metered. */
export type Rgb = [number, number, number];

/** A place on a surface as the camera sees it. */
export interface Seen {
  readonly p: Vec3;
  /** Unit normal towards the camera. */
  readonly n: Vec3;
  /** Unit direction to the camera. */
  readonly view: Vec3;
  /** Share of the half-space that is open, 0–1. */
  readonly open: number;
}

interface Finish {
  readonly wrap: number;
  readonly shine: number;
  readonly gloss: number;
  readonly glow: Rgb;
}

/** Where the light comes from: two flash heads beside the lens, or two large soft boxes for a portrait. */
export interface Lamps {
  readonly heads: readonly Vec3[];
  readonly soft: number;
}

const unit = (v: Vec3): Vec3 => {
  const l = Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]) || 1;
  return [v[0] / l, v[1] / l, v[2] / l];
};

/** Lamps that go with a camera: its own directions turned into the mouth's. */
export function lampsOf(right: Vec3, forward: Vec3, up: Vec3, portrait: boolean): Lamps {
  const toward = (x: number, y: number, z: number): Vec3 =>
    unit([0, 1, 2].map((k) => x * right[k] - y * forward[k] + z * up[k]) as unknown as Vec3);
  return portrait
    ? { heads: [toward(-0.75, 1, 0.55), toward(0.5, 1, 0.35)], soft: 0.5 }
    : { heads: [toward(-0.42, 1, 0.34), toward(0.42, 1, 0.34)], soft: 0 };
}

function lit(base: Rgb, s: Seen, n: Vec3, lamps: Lamps, f: Finish): Rgb {
  let diffuse = 0;
  let gloss = 0;
  lamps.heads.forEach((l, i) => {
    const d = n[0] * l[0] + n[1] * l[1] + n[2] * l[2];
    const wrap = f.wrap + lamps.soft;
    const weight = lamps.soft > 0 ? (i === 0 ? 0.62 : 0.3) : 0.46;
    diffuse += Math.max(0, (d + wrap) / (1 + wrap)) * weight;
    const hx = l[0] + s.view[0];
    const hy = l[1] + s.view[1];
    const hz = l[2] + s.view[2];
    const at = Math.max(0, (n[0] * hx + n[1] * hy + n[2] * hz) / (Math.sqrt(hx * hx + hy * hy + hz * hz) || 1));
    gloss += d > 0 ? f.gloss * at ** f.shine * (lamps.soft > 0 ? 0.6 : 1) : 0;
  });
  const rim = (1 - Math.max(0, n[0] * s.view[0] + n[1] * s.view[1] + n[2] * s.view[2])) ** 3 * 0.05;
  const ambient = 0.16 + 0.84 * s.open ** 1.25;
  const wet = gloss * (0.35 + 0.65 * s.open) + rim * s.open;
  return [0, 1, 2].map((k) => (base[k] * (diffuse + 0.14) + f.glow[k] * 0.4) * ambient + wet) as Rgb;
}

export function enamel(tooth: PatientTooth, s: Seen, lamps: Lamps, seed: number): Rgb {
  const local = toLocal(tooth.frame, s.p);
  const { size } = tooth.crown;
  const t = tooth.trait;
  const h = local[2] / size.lengthMm;
  const edge =
    (1 - smoothstep(0.02, 0.3, h + 0.05 * smoothNoise(local[0] * 1.6, local[2] * 0.5, tooth.tooth, seed))) *
    ((t.lighter ?? 0) > 0 ? 0.6 : 1);
  const neck = smoothstep(0.5, 1, h);
  const warm = tooth.tooth % 10 === 3 ? 0.05 : tooth.tooth % 10 >= 4 ? 0.025 : 0;
  const streak =
    0.02 * smoothNoise(local[0] * 1.3, local[2] * 0.35, tooth.tooth * 3, seed) +
    0.012 * smoothNoise(local[0] * 5, local[2] * 4, 5, seed);
  const base: Rgb = [
    0.74 - 0.02 * neck - 0.13 * edge + streak,
    0.655 - 0.075 * neck - 0.09 * edge - warm + streak,
    0.5 - 0.13 * neck - 0.01 * edge - 1.9 * warm + streak,
  ];
  const lighter = t.lighter ?? 0;
  if (lighter) {
    base[0] += 0.05 * lighter;
    base[1] += (0.075 + 0.03 * neck) * lighter;
    base[2] += (0.1 + 0.06 * neck) * lighter;
  }
  if (t.dark) {
    const left = darkLeaves(t.dark, h);
    for (let k = 0; k < 3; k++) base[k] = base[k] * left[k];
  }
  if (t.mottled) {
    const white =
      smoothstep(0.16, 0.5, smoothNoise(local[0] * 0.75, local[2] * 0.7, tooth.tooth * 7, seed + 11)) * t.mottled;
    const brown =
      smoothstep(0.2, 0.55, smoothNoise(local[0] * 0.9, local[2] * 0.8, tooth.tooth * 5 + 3, seed + 12)) *
      t.mottled *
      (1 - edge);
    const to = (c: Rgb, share: number) => {
      for (let k = 0; k < 3; k++) base[k] = base[k] * (1 - share) + c[k] * share;
    };
    to([0.9, 0.87, 0.8], white * 0.85);
    to([0.46, 0.26, 0.11], brown * 0.7);
  }
  // Mamelons show warm under the translucent edge.
  const lobes = edge * 0.05 * Math.max(0, Math.cos((local[0] / size.widthMm) * 3 * 2 * Math.PI));
  base[0] += lobes;
  base[1] += lobes * 0.75;
  const bump = 0.03;
  const n = unit([
    s.n[0] + bump * smoothNoise(s.p[0] * 2.2, s.p[2] * 3.2, s.p[1], seed + 1),
    s.n[1],
    s.n[2] + bump * smoothNoise(s.p[0] * 2.2, s.p[2] * 3.2, s.p[1] + 9, seed + 2),
  ]);
  return lit(base, s, n, lamps, { wrap: 0.35, shine: 130, gloss: 0.5, glow: [0.1, 0.075, 0.05] });
}

/** How much of each colour's light a dark root leaves a tooth. @param h height, 0 at the edge, 1 at the zenith */
export const darkLeaves = (dark: number, h: number): Rgb => {
  const depth = dark * (0.55 + 0.45 * smoothstep(0.1, 0.9, h));
  return [1 - depth * 0.38, 1 - depth * 0.42, 1 - depth * 0.36];
};

/** @param up mm over the usual margin, for where the attached gum ends */
export function mucosa(s: Seen, up: number, lamps: Lamps, seed: number, inflamed: number): Rgb {
  const { p } = s;
  const free = smoothstep(5.5, 10.5, up + 1.2 * smoothNoise(p[0] * 0.25, p[2] * 0.2, 1, seed));
  const mottle =
    0.05 * smoothNoise(p[0] * 0.55, p[2] * 0.45, p[1] * 0.5, seed) +
    0.025 * smoothNoise(p[0] * 2.1, p[2] * 2.1, 3, seed);
  const vessel =
    free *
    0.07 *
    Math.max(
      0,
      smoothNoise(p[0] * 0.9 + 2 * smoothNoise(p[0] * 0.3, p[2] * 0.3, 4, seed), p[2] * 0.35, 8, seed) - 0.25,
    );
  const red = inflamed * (1 - smoothstep(0.3, 2.2, up));
  const base: Rgb = [
    0.6 - 0.1 * free + mottle - 0.06 * red,
    0.265 - 0.115 * free + mottle * 0.75 - vessel - 0.13 * red,
    0.25 - 0.1 * free + mottle * 0.7 - vessel - 0.1 * red,
  ];
  const stipple = 0.075 * (1 - free) * (1 - red);
  const n = unit([
    s.n[0] + stipple * smoothNoise(p[0] * 4.5, p[2] * 4.5, p[1], seed + 3) + 0.04 * smoothNoise(p[0], p[2], 2, seed),
    s.n[1],
    s.n[2] + stipple * smoothNoise(p[0] * 4.5, p[2] * 4.5, p[1] + 5, seed + 4),
  ]);
  return lit(base, s, n, lamps, { wrap: 0.3, shine: 70, gloss: 0.28 + 0.2 * red, glow: [0.08, 0.02, 0.02] });
}

const mix = (a: Rgb, b: Rgb, t: number): Rgb => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];

const FAIR: Rgb = [0.72, 0.47, 0.36];
const DEEP: Rgb = [0.13, 0.062, 0.038];
const FAIR_RED: Rgb = [0.46, 0.165, 0.15];
const DEEP_RED: Rgb = [0.18, 0.068, 0.062];
const DARK_HAIR: Rgb = [0.022, 0.016, 0.013];
const BROWN_HAIR: Rgb = [0.12, 0.062, 0.032];
const GREY_HAIR: Rgb = [0.42, 0.41, 0.39];

const BROWN_EYES: Rgb = [0.075, 0.036, 0.018];
const GREY_EYES: Rgb = [0.085, 0.115, 0.12];

const skinTone = (f: FaceTrait): Rgb => mix(FAIR, DEEP, f.skin ** 0.75);
const hairTone = (f: FaceTrait): Rgb =>
  f.hair < 0.5 ? mix(DARK_HAIR, BROWN_HAIR, f.hair * 2) : mix(BROWN_HAIR, GREY_HAIR, f.hair * 2 - 1);

/**
 * Skin and lips, and in a portrait the eyes, brows and hair, drawn plainly. @param red 0 skin, 1 lip, 2 inside of the
 * lip
 */
export function face(f: FaceTrait, s: Seen, red: number, lamps: Lamps, seed: number): Rgb {
  const { p } = s;
  const skin = skinTone(f);
  const lip = Math.min(1, red);
  const wet = Math.max(0, red - 1);
  const mottle =
    1 + 0.035 * smoothNoise(p[0] * 0.16, p[2] * 0.16, 2, seed) + 0.02 * smoothNoise(p[0] * 0.6, p[2] * 0.6, 3, seed);
  const flush =
    0.1 * Math.exp(-(((Math.abs(p[0] - f.midlineMm) - 42) / 20) ** 2) - ((p[2] - 34) / 20) ** 2) * (1 - f.skin);
  let base: Rgb = [skin[0] * mottle, skin[1] * mottle * (1 - flush), skin[2] * mottle * (1 - flush)];
  // Under the jaw and toward the ears the face turns from the lamps.
  const turned = 0.42 * smoothstep(-7, 1, jawBy(f, p)) * (1 - smoothstep(10, 60, p[2])) + shadeOfHair(f, p);
  base = base.map((q, k) => q * (1 - turned * [0.8, 0.95, 1][k])) as Rgb;
  const fine = 0.05 * smoothNoise(p[0] * 2.6, p[2] * 0.5, 6, seed);
  base = mix(base, mix(FAIR_RED, DEEP_RED, f.skin).map((c) => c * (1 + fine)) as Rgb, lip * 0.86);
  base = mix(base, [0.4, 0.1, 0.1], wet * 0.7);
  const drawn = lip < 0.02 ? features(f, p, base, seed) : base;
  const furrow = lip * 0.07 * smoothNoise(p[0] * 2.2 + p[2] * 0.2, p[2] * 0.25, 5, seed);
  const pore = 0.02 * (1 - lip);
  const n = unit([
    s.n[0] + furrow + pore * smoothNoise(p[0] * 3, p[2] * 3, 1, seed),
    s.n[1],
    s.n[2] + pore * smoothNoise(p[0] * 3, p[2] * 3, 8, seed),
  ]);
  const shown = lit(drawn, s, n, lamps, {
    wrap: 0.4,
    shine: lip > 0.5 ? 38 : 14,
    gloss: 0.05 + 0.1 * lip + 0.14 * wet,
    glow: [0.05 * skin[0], 0.025 * skin[1], 0.02 * skin[2]],
  });
  return lip < 0.02 ? mix(shown, hairAt(f, p[0] - f.midlineMm, p[2]), hairShare(f, p)) : shown;
}

/** How far a place lies beyond the face's outline seen from the front, mm; within it below 0. */
const jawBy = (f: FaceTrait, p: Vec3): number =>
  Math.max(Math.abs(p[0] - f.midlineMm) - headHalfWidth(p[2]), 1.1 * (FACE_HEIGHTS.chin - 9 - p[2]));

/** What the hair takes of the light on the skin beside it. */
const shadeOfHair = (f: FaceTrait, p: Vec3): number => 0.3 * smoothstep(-11, 0, inHair(p[0] - f.midlineMm, p[2]));

/** Where the hair is parted: to the patient's right of the middle, mm. */
const PARTING_X = -17;
/** From how far down the hair at the temples comes to the front of the ears, mm over the planned edge. */
const SIDE_HAIR = { from: 104, to: 6 };

/** How far a place lies within the hair that falls over the face from its parting, mm; outside below 0. */
function inHair(x: number, z: number): number {
  const d = x - PARTING_X;
  // A soft arch from the parting to the temples, the longer side lower.
  const fall = d < 0 ? 26 * (-d / 46) ** 2.1 : 33 * (d / 80) ** 1.9;
  const over = z - (FACE_HEIGHTS.hairline + 2 - fall + 0.8 * smoothNoise(x * 0.7, 0, 3, 9));
  const a = Math.abs(x);
  const { from, to } = SIDE_HAIR;
  const edge = 66 - 7.5 * smoothstep(to, from, z) + 1.1 * smoothNoise(z * 0.06, x > 0 ? 1 : 2, 5, 9);
  const beside = z > to - 70 ? a - edge : -9;
  return Math.max(over, beside);
}

const hairShare = (f: FaceTrait, p: Vec3): number =>
  smoothstep(-3.5, 3, inHair(p[0] - f.midlineMm, p[2]) + 1.6 * smoothNoise(p[0] * 1.3, p[2] * 0.5, 4, 9));

/** Strands that run from the parting over the head and down its sides, with a sheen where they turn over. */
function hairAt(f: FaceTrait, x: number, z: number): Rgb {
  const d = x - PARTING_X;
  const down = FACE_HEIGHTS.crown + 6 - z;
  // How far to the side a strand begins that comes by here: it swings out over the temples, then hangs.
  const swing = smoothstep(0, 90, down);
  const across = d / (0.34 + 0.66 * swing);
  const strand =
    0.34 * smoothNoise(across * 0.16, down * 0.008, 2, 9) +
    0.3 * smoothNoise(across * 0.55, down * 0.012, 4, 9) +
    0.2 * smoothNoise(across * 1.7, down * 0.02, 6, 9);
  const sheen = 0.55 * Math.exp(-(((down - 34 - 0.22 * Math.abs(d)) / 17) ** 2));
  const hollow = 0.45 * smoothstep(110, 200, down) + 0.4 * Math.exp(-((d / 2.4) ** 2)) * (1 - smoothstep(20, 44, down));
  const light = Math.max(0.12, (0.82 + strand) * (1 + sheen) * (1 - hollow));
  return hairTone(f).map((q) => q * light) as Rgb;
}

/** Eyes, brows and nostrils as calm shapes on the skin. */
function features(f: FaceTrait, p: Vec3, skin: Rgb, seed: number): Rgb {
  const h = FACE_HEIGHTS;
  const x = p[0] - f.midlineMm;
  const z = p[2];
  const a = Math.abs(x);
  let c = skin;
  const paint = (to: Rgb, share: number) => {
    if (share > 0) c = mix(c, to, Math.min(1, share));
  };
  const dim: Rgb = [skin[0] * 0.42, skin[1] * 0.32, skin[2] * 0.28];
  const shadow = (share: number) => paint(dim, share);
  // Nostrils, the wings' crease and the shade under the nose.
  const nostril = hypot((a - 6.4) / 3, (z - h.noseBase - 0.9 - 0.22 * (a - 6.4)) / 1.35);
  shadow(0.85 * (1 - smoothstep(0.55, 1.25, nostril)));
  const wing = hypot(a - 9.5, (z - h.noseBase - 5.5) * 0.95);
  shadow(0.26 * Math.exp(-(((wing - 6.8) / 1.1) ** 2)) * smoothstep(9, 13, a));
  shadow(0.16 * Math.exp(-((a / 12) ** 2) - ((z - h.noseBase + 2.2) / 2.6) ** 2));
  if (Math.abs(a - f.pupilsMm / 2) < 26 && Math.abs(z - h.eyes) < 32) eyeAndBrow(f, x, z, skin, seed, paint, shadow);
  return c;
}

/** What is drawn on one side: lids, white, iris with its light, lashes, brow. */
function eyeAndBrow(
  f: FaceTrait,
  x: number,
  z: number,
  skin: Rgb,
  seed: number,
  paint: (to: Rgb, share: number) => void,
  shadow: (share: number) => void,
): void {
  const a = Math.abs(x);
  const ex = a - f.pupilsMm / 2;
  const ez = z - FACE_HEIGHTS.eyes;
  const soft = (d: number, w: number) => 1 - smoothstep(0, w, d);
  const hair = hairTone(f);
  const lash = mix(hair, [0.012, 0.01, 0.01], 0.75);
  // The lids: the outer corner a little higher than the inner one.
  const t = ex / 15.2;
  const inside = Math.max(0, 1 - t * t);
  const lift = 0.9 * t;
  const upper = 5.3 * inside ** 0.55 + lift;
  const lower = -4.1 * inside ** 0.75 + lift;
  const socket = Math.exp(-(((ex + 2) / 17) ** 2) - ((ez - 6.5) / 6.5) ** 2);
  paint([skin[0] * 0.72, skin[1] * 0.62, skin[2] * 0.58], 0.42 * socket);
  shadow(0.2 * Math.exp(-((ex / 15) ** 2) - ((ez + 8.5) / 2.6) ** 2));
  if (Math.abs(t) < 1) {
    const open = smoothstep(-0.35, 0.35, upper - ez) * smoothstep(-0.35, 0.35, ez - lower);
    const shade = (1 - 0.5 * smoothstep(0, 3.8, ez - (upper - 4))) * (1 - 0.34 * Math.abs(t) ** 3);
    paint([0.55 * shade, 0.5 * shade, 0.47 * shade], open);
    // The red corner by the nose.
    paint([0.42, 0.2, 0.17], open * 0.7 * soft(t + 0.8, 0.16));
    const r = hypot(ex, ez - 0.4);
    const rays = 0.75 + 0.5 * smoothNoise(Math.atan2(ez - 0.4, ex) * 7, r * 0.25, 1, seed);
    const iris = mix(BROWN_EYES, GREY_EYES, 1 - smoothstep(0.2, 0.42, f.skin)).map((q) => q * rays * shade) as Rgb;
    paint(iris, open * soft(r - 5.7, 0.5));
    paint([0.012, 0.014, 0.016], open * 0.75 * Math.exp(-(((r - 5.6) / 0.55) ** 2)));
    paint([0.004, 0.004, 0.005], open * soft(r - 2.2, 0.45));
    // The lamp in the eye lies on one side in both.
    const glint = hypot((Math.sign(x) * ex + 1.9) / 1.15, (ez - 2.4) / 1.35);
    paint([0.95, 0.95, 0.95], open * 0.92 * soft(glint - 0.62, 0.5));
    const rim = inside ** 0.15;
    paint(lash, soft(Math.abs(ez - upper - 0.2) - (0.5 + 0.35 * smoothstep(-0.6, 0.8, t)), 0.55) * rim);
    paint([skin[0] * 0.62, skin[1] * 0.45, skin[2] * 0.4], 0.5 * soft(Math.abs(ez - lower) - 0.25, 0.6) * rim);
  }
  // Lashes beyond the outer corner, and the crease of the lid.
  const beyond = ex - 14.6;
  if (beyond > -2 && beyond < 4)
    paint(lash, 0.7 * soft(Math.abs(ez - 1.4 - 0.55 * beyond) - 0.25, 0.6) * soft(beyond, 3));
  const crease = upper + 3.1 + 1.1 * inside;
  shadow(0.5 * soft(Math.abs(ez - crease) - 0.25, 1) * smoothstep(0, 0.35, 1.2 - Math.abs(t)));
  // The brow: hairs that rise from the nose and lie down to the temple.
  const bt = (a - 12.5) / 39;
  if (bt > 0 && bt < 1) {
    const mid = 18.4 + 4.6 * Math.sin(Math.PI * Math.min(1, 0.78 * bt + 0.06)) - 3.2 * bt ** 2.2;
    const half = (1.1 + 1.9 * smoothstep(0, 0.22, bt)) * (1 - bt) ** 0.55;
    const hairs = 0.74 + 0.3 * smoothNoise((a - ez * (1.5 - bt)) * 3.4, ez * 0.3, 7, seed);
    const body = soft(Math.abs(ez - mid) - 0.72 * half, 1.5) * smoothstep(0, 0.16, bt);
    paint(mix(mix(hair, BROWN_HAIR, Math.max(0, f.hair - 0.4)), skin, 0.16), Math.min(0.86, hairs) * body);
  }
}

/** The vault of the palate or the tongue. */
export const palate = (s: Seen, lamps: Lamps, seed: number): Rgb =>
  mucosa({ ...s, p: [s.p[0], s.p[2], s.p[1]] }, 2, lamps, seed, 0).map((c) => c * 0.92) as Rgb;

/** The dark of the mouth. */
export const inside = (): Rgb => [0.011, 0.006, 0.006];

/** Behind the head: a plain backdrop, the hair, the neck and a collar. */
export function behind(f: FaceTrait, p: Vec3, backdrop: number): Rgb {
  const x = p[0] - f.midlineMm;
  const z = p[2];
  const a = Math.abs(x);
  const fall = 1 - 0.3 * hypot(x / 300, (z - 60) / 300);
  let c: Rgb = [backdrop * 0.92 * fall, backdrop * 0.98 * fall, backdrop * fall];
  const soft = (d: number) => 1 - smoothstep(-1.2, 1.2, d);
  const skin = skinTone(f);
  const neckHalf = 43 + 4 * smoothstep(-60, -40, z) + 12 * smoothstep(-78, -112, z);
  const side = 0.62 - 0.25 * (a / 60) ** 2;
  const under = 1 - 0.5 * smoothstep(-92, -46, z);
  // Hair over the skull, and down behind jaw and neck to the shoulders.
  const hair = hairAt(f, x, z).map((q) => q * (1 - 0.35 * smoothstep(40, -40, z))) as Rgb;
  const wave = 2.5 * smoothNoise(z * 0.05, x > 0 ? 3 : 7, 2, 9);
  const skull = hypot(x / 80, (z - 74) / 95) - 1;
  const end = f.hairToMm - 4 + 0.004 * (a - 30) ** 2 - z;
  const long = Math.max(a - (80 - 9 * smoothstep(-20, -84, z) - 14 * smoothstep(-40, 0, end) + wave), z - 74, end);
  c = mix(c, hair, Math.max(soft(skull * 85), soft(long)));
  c = mix(
    c,
    [skin[0] * side * under, skin[1] * side * under, skin[2] * side * under],
    soft(a - neckHalf) * soft(z + 20),
  );
  const collar = -92 - 14 * Math.exp(-((a / 34) ** 2)) - Math.max(0, a - 50) * 0.34;
  const cloth = 1 + 0.08 * smoothNoise(x * 0.03, z * 0.03, 4, 3);
  return mix(c, [0.075 * cloth, 0.1 * cloth, 0.115 * cloth], soft(z - collar));
}

/** What is seen past the teeth when the lips are held away: darkness, and at the sides the cheek. */
export function beyond(s: CameraSetting, seed: number, x: number, y: number): Rgb {
  const u = x / s.widthPx - 0.5;
  const v = y / s.heightPx - 0.5;
  const waves = 0.06 * smoothNoise(u * 8, v * 8, 0, seed);
  // In a mirror the lips and cheeks are held away all around; from in front the dark of the mouth lies between them.
  const along = Math.abs(s.pitchDeg ?? 0) > 60;
  const cheek = along
    ? 0.35 + 0.65 * smoothstep(0.2, 0.62, hypot(u, 0.9 * v) + waves)
    : smoothstep(0.36, 0.52, Math.abs(u) + waves) * (1 - smoothstep(-0.1, 0.4, v) * 0.7);
  return [0.014 + 0.16 * cheek, 0.008 + 0.05 * cheek, 0.009 + 0.05 * cheek];
}

/** The scale reference. @param at its zero tick and upper border */
export function scaleColour(p: Vec3, at: { x: number; z: number }): Rgb {
  const x = p[0] - at.x;
  const down = at.z - p[2];
  const paper = 0.78 - 0.1 * (down / SCALE_HEIGHT_MM) + 0.05 * (x / SCALE_LENGTH_MM);
  return inkOnScale(x, down, SCALE_LENGTH_MM) ? [0.02, 0.02, 0.025] : [paper, paper * 0.995, paper * 0.97];
}
