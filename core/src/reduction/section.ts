import { crownZenith, type PlannedTooth } from '../contour/plan.js';
import { type Frame, toParent } from '../geometry/frame.js';
import type { Mesh } from '../geometry/mesh.js';
import { reachAtLevel, type SectionLine, section } from '../geometry/section.js';
import { hypot, type Vec3 } from '../geometry/vec.js';
import { overThirds, THIRDS } from '../restoration/thickness.js';
import { FACIAL_ENAMEL, type FacialThird } from '../teeth/norms.js';
import type { TargetSurface } from './target.js';

/**
 * A place in the section: a mm behind the axis (facial is negative), z mm over the planned edge along the tooth's axis.
 */
export type SectionPoint = readonly [number, number];

/** Facio-palatal section through a tooth at its axis. All lines in section coordinates. */
export interface ToothSection {
  /** Open at the neck, where a scan ends: what closes a tooth there is no surface of it. */
  readonly existing: readonly SectionLine[];
  readonly planned: readonly SectionLine[];
  /** The surface that the preparation should have, as far as it lies within the tooth. */
  readonly target: readonly SectionLine[];
  /** How far it is brought into line with the plan first, as far as it is. */
  readonly aligned: readonly SectionLine[];
  /** The teeth across in the closed bite, as planned where they are. */
  readonly across: readonly SectionLine[];
  /** Inner border of the enamel by the middle of its norm, under the existing facial surface. */
  readonly enamelEnds: readonly SectionPoint[];
  /** Where each third is dimensioned, with the three surfaces there. */
  readonly dimensions: readonly SectionDimension[];
  /** Levels of the two edges and of the target's edge, mm over the planned edge. */
  readonly edge: { readonly existing: number; readonly target: number };
}

export interface SectionDimension {
  readonly third: FacialThird;
  readonly z: number;
  readonly existing: number;
  readonly planned: number;
  readonly target: number;
  /** From the tooth to the target and to the plan where the third is told, across the surface within the section, mm. */
  readonly removedMm: number;
  readonly gapMm: number;
}

const LEVEL_STEP_MM = 0.3;

/** Where a tooth is cut: turned about its axis, degrees, + with its front edge to the patient's left; beside it, mm. */
export interface SectionPlace {
  readonly turnDeg: number;
  readonly besideMm: number;
}
export const AT_AXIS: SectionPlace = { turnDeg: 0, besideMm: 0 };
/** How far a section is turned and moved, degrees and mm. House limits. */
export const SECTION_LIMITS = { turnDeg: 75, besideMm: 4 } as const;

/** The plane of a section: its x goes backward through the tooth, its y along the axis, its normal across. */
export function sectionPlane({ frame }: PlannedTooth, { turnDeg, besideMm }: SectionPlace): Frame {
  const a = (turnDeg * Math.PI) / 180;
  const mix = (p: Vec3, q: Vec3, u: number, v: number): Vec3 => [
    u * p[0] + v * q[0],
    u * p[1] + v * q[1],
    u * p[2] + v * q[2],
  ];
  const z = mix(frame.x, frame.y, Math.cos(a), Math.sin(a));
  return {
    origin: mix(frame.origin, z, 1, besideMm),
    x: mix(frame.y, frame.x, Math.cos(a), -Math.sin(a)),
    y: frame.z,
    z,
  };
}

/** Cuts existing, planned and target surface, at the planned axis or beside it. */
export function toothSection(
  existing: Mesh,
  planned: PlannedTooth,
  prepared: TargetSurface,
  place: SectionPlace = AT_AXIS,
): Omit<ToothSection, 'across'> {
  const plane = sectionPlane(planned, place);
  const now = section(existing, plane);
  const plan = section(planned.mesh, plane);
  const whole = section(openAtNeck(prepared.mesh), plane);
  const target = cutPart(whole, now);
  const aligned = cutPart(section(openAtNeck(prepared.aligned), plane), now);
  const zenith = crownZenith(planned.crown)[2];
  const atNeck = (lines: readonly SectionLine[]) => lines.flatMap((l) => withoutNeck(l, NECK_SHARE * zenith));
  const lowestNow = lowest(now);
  const enamelEnds: SectionPoint[] = [];
  for (let z = zenith - 0.1; z > lowestNow + 1; z -= LEVEL_STEP_MM) {
    const front = reachAtLevel(now, z, 'least');
    if (front !== undefined) enamelEnds.push([front + enamelAt(z / zenith) * slant(now, z), z]);
  }
  const dimensions = THIRD_NAMES.flatMap((third): SectionDimension[] => {
    // The edge third is told over the prepared edge, where its own middle is cut away.
    const z = Math.max(THIRDS[third].middle * zenith, third === 'incisal' ? lowest(whole) + OVER_EDGE_MM : 0);
    const [existing, planned, left] = [now, plan, whole].map((l) => reachAtLevel(l, z, 'least'));
    return existing === undefined || planned === undefined || left === undefined
      ? []
      : [
          {
            third,
            z,
            existing,
            planned,
            target: left,
            removedMm: left - existing < INSIDE_MM ? 0 : distanceToLines([existing, z], whole),
            gapMm: Math.sign(existing - planned) * distanceToLines([existing, z], plan),
          },
        ];
  });
  return {
    existing: atNeck(now),
    planned: atNeck(plan),
    target,
    aligned,
    enamelEnds,
    dimensions,
    edge: { existing: lowestNow, target: lowest(whole) },
  };
}

/** Over this share of the crown's height a line may close a neck. House value. */
const NECK_SHARE = 0.6;
/** What lies flatter than this there closes it: the cosine of 45° and a little. House value. */
const CLOSING = 0.75;

/** A closed line without what closes a tooth's neck: the longest run of flat pieces over a height, which goes across. */
function withoutNeck(line: SectionLine, over: number): SectionLine[] {
  const { points: p, closed } = line;
  const n = p.length / 2;
  if (!closed || n < 4) return [line];
  const at = (i: number): SectionPoint => [p[2 * (i % n)] as number, p[2 * (i % n) + 1] as number];
  const flat = (i: number): boolean => {
    const [a, b] = [at(i), at(i + 1)];
    return Math.min(a[1], b[1]) > over && Math.abs(b[0] - a[0]) > CLOSING * hypot(b[0] - a[0], b[1] - a[1]);
  };
  let best = { from: 0, pieces: 0, mm: 0 };
  for (let i = 0; i < n; i++) {
    if (!flat(i) || flat(i + n - 1)) continue;
    let [pieces, mm] = [0, 0];
    for (; pieces < n && flat(i + pieces); pieces++) mm += Math.abs(at(i + pieces + 1)[0] - at(i + pieces)[0]);
    if (mm > best.mm) best = { from: i, pieces, mm };
  }
  if (best.pieces === 0) return [line];
  const kept = Array.from({ length: n - best.pieces + 1 }, (_, k) => at(best.from + best.pieces + k));
  return [{ points: Float64Array.from(kept.flat()), closed: false }];
}

/** So far inside the tooth a line of the target is drawn as one, mm. */
const INSIDE_MM = 0.05;

/** A target without what closes its neck, which is no tooth: the fan about its last vertex. */
function openAtNeck({ positions, triangles }: Mesh): Mesh {
  const last = positions.length / 3 - 1;
  const open = triangles.filter((_, i) => {
    const t = i - (i % 3);
    return triangles[t] !== last && triangles[t + 1] !== last && triangles[t + 2] !== last;
  });
  return { positions, triangles: open };
}

/** Of a target's lines the parts that lie within the tooth: where nothing goes there is none. */
function cutPart(target: readonly SectionLine[], tooth: readonly SectionLine[]): SectionLine[] {
  const out: SectionLine[] = [];
  for (const { points, closed } of target) {
    const n = points.length / 2;
    const at = (i: number): SectionPoint => [points[2 * (i % n)] as number, points[2 * (i % n) + 1] as number];
    const inside = Array.from({ length: n }, (_, i) => distanceToLines(at(i), tooth) > INSIDE_MM);
    const first = closed ? inside.indexOf(false) : 0;
    if (first < 0) {
      out.push({ points, closed });
      continue;
    }
    let run: number[] = [];
    for (let i = first; i <= first + n; i++) {
      const cut = inside[i % n] && i < first + n;
      if (cut && run.length === 0 && i > first) run.push(...at(i - 1));
      if (cut) run.push(...at(i));
      else if (run.length > 0) {
        out.push({ points: Float64Array.from([...run, ...at(i)]), closed: false });
        run = [];
      }
    }
  }
  return out;
}

function distanceToLines([x, y]: SectionPoint, lines: readonly SectionLine[]): number {
  let least = Infinity;
  for (const { points: p, closed } of lines)
    for (let i = 0; i + (closed ? 0 : 2) < p.length; i += 2) {
      const j = (i + 2) % p.length;
      const [ax, ay] = [p[i] as number, p[i + 1] as number];
      const [dx, dy] = [(p[j] as number) - ax, (p[j + 1] as number) - ay];
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
      least = Math.min(least, hypot(x - ax - t * dx, y - ay - t * dy));
    }
  return least;
}

/** So far over the prepared edge the edge third is told at least, mm. */
const OVER_EDGE_MM = 0.4;

const THIRD_NAMES = ['cervical', 'middle', 'incisal'] as const;

/** A section point in the mouth's coordinates. */
export function sectionToMouth(planned: PlannedTooth, p: SectionPoint) {
  return toParent(planned.frame, [0, p[0], p[1]]);
}

/** How much longer a thickness across the surface reads when measured horizontally. */
function slant(lines: readonly SectionLine[], z: number): number {
  const a = reachAtLevel(lines, z + 0.4, 'least');
  const b = reachAtLevel(lines, z - 0.4, 'least');
  return a === undefined || b === undefined ? 1 : Math.min(1.6, hypot(1, (a - b) / 0.8));
}

/** Thickness of the enamel by the middle of its norm; from the middle of the gum third on it runs out. */
function enamelAt(share: number): number {
  const mid = (t: FacialThird) => (FACIAL_ENAMEL[t].from + FACIAL_ENAMEL[t].to) / 2;
  const beyond = Math.max(0, (share - THIRDS.cervical.middle) / (1 - THIRDS.cervical.middle));
  const full = overThirds({ incisal: mid('incisal'), middle: mid('middle'), cervical: mid('cervical') }, share);
  return full + Math.min(1, beyond) * (ENAMEL_AT_NECK_MM - full);
}

/** Enamel at the neck itself, mm. Common practice, no source. */
const ENAMEL_AT_NECK_MM = 0.1;

function lowest(lines: readonly SectionLine[]): number {
  let z = Infinity;
  for (const l of lines) for (let i = 1; i < l.points.length; i += 2) z = Math.min(z, l.points[i] as number);
  return z;
}
