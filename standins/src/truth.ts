import {
  contactsOf,
  type Fdi,
  frontRow,
  LIP_KNOTS,
  LOWER_TEN,
  rolesOf,
  sideOf,
  UPPER_TEN,
  type Vec3,
  type ViewId,
} from '@radiant/core';
import { makeFace } from './face.js';
import { inMouth, type Patient, type PatientTooth, truePoints } from './patient.js';
import { type CameraSetting, project } from './pose.js';
import type { Expression } from './scene.js';

/**
 * Where the points of a view truly lie, in the mouth's coordinates, by their ids. Those that can't be seen are left
 * out.
 */
export function trueViewPoints(patient: Patient, view: ViewId, e: Expression): Record<string, Vec3> {
  switch (view) {
    case 'portrait-rest':
    case 'portrait-smile':
      return portrait(patient, e);
    case 'close-rest':
    case 'close-smile':
      return lips(patient, e);
    case 'retracted-front':
      return front(patient);
    case 'retracted-right':
      return side(patient, 'right');
    case 'retracted-left':
      return side(patient, 'left');
    case 'upper-occlusal':
      return occlusal(patient.teeth.filter((t) => UPPER_TEN.includes(t.tooth)));
    case 'lower-occlusal':
      return occlusal(patient.lower.filter((t) => LOWER_TEN.includes(t.tooth)));
    default:
      return {};
  }
}

const upper = (p: Patient, tooth: Fdi): PatientTooth | undefined => p.teeth.find((t) => t.tooth === tooth);

function portrait(patient: Patient, e: Expression): Record<string, Vec3> {
  const { points: f } = makeFace(patient.face, e.smile);
  const out: Record<string, Vec3> = {
    'pupil-right': f.pupilRight,
    'pupil-left': f.pupilLeft,
    glabella: f.glabella,
    'nose-base': f.noseBase,
    chin: f.chin,
    'corner-right': f.cornerRight,
    'corner-left': f.cornerLeft,
  };
  if (e.smile === 0) return out;
  const [r, l] = [upper(patient, 11), upper(patient, 21)];
  if (r && l) {
    const [a, b] = [truePoints(r), truePoints(l)];
    out['midline-edge'] = [
      (a.mesial[0] + b.mesial[0]) / 2,
      (a.edge[1] + b.edge[1]) / 2,
      Math.max(a.edge[2], b.edge[2]) + 0.6,
    ];
  }
  for (const [id, tooth] of [
    ['canine-right', 13],
    ['canine-left', 23],
  ] as const) {
    const own = upper(patient, tooth);
    if (own) out[id] = truePoints(own).edge;
  }
  return out;
}

/** Place of a border that runs from the right corner to the left one, at an x. */
function onBorder(border: readonly Vec3[], x: number): Vec3 {
  for (let i = 1; i < border.length; i++) {
    const [a, b] = [border[i - 1] as Vec3, border[i] as Vec3];
    if (x <= b[0]) {
      const t = (x - a[0]) / (b[0] - a[0] || 1);
      return [x, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t];
    }
  }
  return border.at(-1) as Vec3;
}

/** The teeth that stand in front: the gaps of missing ones are closed in every virtual patient. */
export const frontRowOf = (patient: Patient): readonly Fdi[] =>
  frontRow(rolesOf(new Set(patient.recipe.missing ?? []), () => true));

/** Where along the half width the knots of a lip border are set. */
const KNOT_PLACES = [-0.66, -0.34, 0, 0.34, 0.66];

function lips(patient: Patient, e: Expression): Record<string, Vec3> {
  const face = makeFace(patient.face, e.smile);
  const [right, left] = [face.points.cornerRight, face.points.cornerLeft];
  const out: Record<string, Vec3> = { 'corner-right': right, 'corner-left': left };
  for (let i = 0; i < LIP_KNOTS; i++) {
    const x = (right[0] + left[0]) / 2 + ((left[0] - right[0]) / 2) * KNOT_PLACES[i];
    out[`upper-lip-${i + 1}`] = onBorder(face.upperLip, x);
    out[`lower-lip-${i + 1}`] = onBorder(face.lowerLip, x);
  }
  for (const tooth of frontRowOf(patient)) {
    const own = upper(patient, tooth);
    if (!own) continue;
    const { edge, zenith } = truePoints(own);
    if (edge[2] < onBorder(face.upperLip, edge[0])[2]) out[`edge-${tooth}`] = edge;
    if (e.smile > 0 && zenith[2] < onBorder(face.upperLip, zenith[0])[2]) out[`zenith-${tooth}`] = zenith;
  }
  if (e.smile === 0) {
    out['nose-base'] = face.points.noseBase;
    return out;
  }
  const first = patient.teeth[0];
  const last = patient.teeth.at(-1);
  if (first && last) {
    out['outer-right'] = truePoints(first).distal;
    out['outer-left'] = truePoints(last).distal;
  }
  return out;
}

const each = (t: PatientTooth, take: (p: Vec3) => void): void => {
  const { positions: p } = t.mesh;
  for (let i = 0; i < p.length; i += 3) take([p[i], p[i + 1], p[i + 2]]);
};

function front(patient: Patient): Record<string, Vec3> {
  const out: Record<string, Vec3> = {};
  for (const tooth of frontRowOf(patient)) {
    const own = upper(patient, tooth);
    if (own) out[`neck-${tooth}`] = inMouth(own, [0, -3, own.crown.size.lengthMm * 0.94]);
  }
  for (const [a, b] of contactsOf(frontRowOf(patient))) {
    const [p, q] = [upper(patient, a), upper(patient, b)];
    if (!p || !q) continue;
    const ends = contactOf(p, q);
    const contact = ends?.low;
    if (contact) out[`embrasure-${a}-${b}`] = contact;
    const x = contact?.[0] ?? (truePoints(p).mesial[0] + truePoints(q).mesial[0]) / 2;
    let tip: Vec3 | undefined;
    const { positions: g } = patient.gum;
    for (let i = 0; i < g.length; i += 3) {
      const v: Vec3 = [g[i], g[i + 1], g[i + 2]];
      if (Math.abs(v[0] - x) > 0.7 || v[1] > (contact?.[1] ?? 4) + 1.5) continue;
      if (!tip || v[2] < tip[2]) tip = v;
    }
    if (tip) out[`papilla-${a}-${b}`] = tip;
    // Where the papilla covers the upper end of the contact, its tip is what is seen.
    if (tip && ends) out[`contact-${a}-${b}`] = ends.high[2] > tip[2] ? tip : ends.high;
  }
  const lower = patient.lower.filter((t) => t.tooth % 10 === 1).map((t) => lowestMargin(t));
  const lowest = lower.sort((m, n) => m[2] - n[2])[0];
  if (lowest) out['lower-margin'] = lowest;
  return out;
}

/** Of a lower tooth: the lowest point of its facial neck line. */
function lowestMargin(t: PatientTooth): Vec3 {
  let best: Vec3 = [0, 0, Infinity];
  for (let k = 0; k <= t.crown.ringSize / 2; k++) {
    const v: Vec3 = [t.mesh.positions[3 * k], t.mesh.positions[3 * k + 1], t.mesh.positions[3 * k + 2]];
    if (v[2] < best[2]) best = v;
  }
  return best;
}

/** Teeth nearer than this look as if they touched, mm. */
const TOUCH_MM = 0.35;

/** Lowest and highest place at which two neighbours touch, seen from the front. */
function contactOf(right: PatientTooth, left: PatientTooth): { low: Vec3; high: Vec3 } | undefined {
  const step = 0.2;
  const profile = (t: PatientTooth, pick: (a: Vec3, b: Vec3) => Vec3) => {
    const rows = new Map<number, Vec3>();
    each(t, (p) => {
      const row = Math.round(p[2] / step);
      const before = rows.get(row);
      rows.set(row, before ? pick(before, p) : p);
    });
    return rows;
  };
  const a = profile(right, (p, q) => (q[0] > p[0] ? q : p));
  const b = profile(left, (p, q) => (q[0] < p[0] ? q : p));
  let low: Vec3 | undefined;
  let high: Vec3 | undefined;
  for (const row of [...a.keys()].sort((m, n) => m - n)) {
    const [p, q] = [a.get(row) as Vec3, b.get(row)];
    if (!q) continue;
    const touches = q[0] - p[0] < TOUCH_MM;
    if (!touches && high) break;
    if (!touches) continue;
    high = [(p[0] + q[0]) / 2, Math.min(p[1], q[1]), row * step];
    low ??= high;
  }
  return low && high && { low, high };
}

function side(patient: Patient, which: 'right' | 'left'): Record<string, Vec3> {
  const quadrant = which === 'right' ? 10 : 20;
  const out: Record<string, Vec3> = {};
  const tip = (id: string, tooth: Fdi) => {
    const own = upper(patient, tooth);
    if (own) out[id] = truePoints(own).edge;
  };
  tip('plane-front', quadrant + 3);
  tip('plane-back', quadrant + 5);
  const central = upper(patient, quadrant + 1);
  const lower = patient.lower.find((t) => t.tooth === (which === 'right' ? 41 : 31));
  if (!central || !lower) return out;
  const edgeZ = truePoints(central).edge[2];
  let edge: Vec3 = [0, Infinity, 0];
  each(central, (p) => {
    if (p[2] < edgeZ + 0.35 && p[1] < edge[1]) edge = p;
  });
  let facial: Vec3 = [0, Infinity, 0];
  each(lower, (p) => {
    if (Math.abs(p[2] - edge[2]) < 0.3 && p[1] < facial[1]) facial = p;
  });
  if (Number.isFinite(facial[1])) {
    out['upper-edge'] = edge;
    out['lower-facial'] = facial;
  }
  return out;
}

function occlusal(teeth: readonly PatientTooth[]): Record<string, Vec3> {
  const out: Record<string, Vec3> = {};
  for (const t of teeth) {
    // In the tooth's own frame mesial lies towards −x on the upper left and the lower right.
    const mesial = (sideOf(t.tooth) === 'left') === t.tooth < 30 ? -1 : 1;
    const half = t.crown.size.widthMm * 0.4;
    out[`facial-${t.tooth}`] = t.frame.origin;
    out[`mesial-${t.tooth}`] = inMouth(t, [mesial * half, 0, 0]);
    out[`distal-${t.tooth}`] = inMouth(t, [-mesial * half, 0, 0]);
  }
  return out;
}

/** Both borders of a tooth as a camera sees it, across the picture. */
export function outlineIn(tooth: PatientTooth, camera: CameraSetting): readonly [Vec3, Vec3] {
  const p = tooth.mesh.positions;
  let [least, most] = [Infinity, -Infinity];
  let ends: [Vec3, Vec3] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (let v = 0; v < p.length; v += 3) {
    const at: Vec3 = [p[v], p[v + 1], p[v + 2]];
    const [x] = project(camera, at);
    if (x < least) [least, ends] = [x, [at, ends[1]]];
    if (x > most) [most, ends] = [x, [ends[0], at]];
  }
  return ends;
}
