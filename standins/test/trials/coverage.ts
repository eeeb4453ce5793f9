import {
  archDepthFrom,
  type CameraStand,
  depthsFrom,
  difference,
  type Figure,
  FRONT_SD_MM,
  type FrontSeen,
  gapsBetween,
  HELD_MM,
  LANDMARK_KINDS,
  type LandmarkKind,
  type LandmarkSet,
  type Level,
  levelOfPupils,
  matchCamera,
  measureFrontDetails,
  measureTeeth,
  measureView,
  opposite,
  type Px,
  pointSpec,
  printed,
  propose,
  pupils,
  STRAIGHT,
  scaleFrom,
  standOf,
  stoodBy,
  type ToothMeasure,
  toothWidth,
  type Vec3,
  type ViewFigure,
  type ViewId,
  type ViewPoints,
} from '@radiant/core';
import {
  type CameraSetting,
  inMouth,
  makePatient,
  outlineIn,
  type Patient,
  type PatientRecipe,
  project,
  type Random,
  random,
  scalePoints,
  scatteredRecipe,
  truePoints,
  trueViewPoints,
  VIEWS,
} from '@radiant/standins';

/** How far a hand holds the camera off straight, each way and in each turn, degrees. */
const TURN_DEG = 5;

/** What a photograph of a view is measured for. */
export type Measured = ReadonlyMap<string, Figure>;

/** A patient whose truth is known: scattered teeth on an arch of its own, canted, with gaps, under lips of its own. */
export function trialRecipe(seed: number, odd = false): PatientRecipe {
  const r = random(seed * 7919);
  const base = scatteredRecipe(seed);
  const cant = (r.normal(1.2) * Math.PI) / 180;
  const traits = Object.fromEntries(
    Object.entries(base.traits).map(([tooth, t]) => {
      const [n, side] = [Number(tooth), Number(tooth) < 20 ? -1 : 1];
      const up = side * (ACROSS[n % 10] ?? 27) * Math.tan(cant);
      // Every third contact is open.
      const gapMesialMm = r.next() < 0.33 ? 0.3 + 0.8 * r.next() : 0;
      return [n, { ...t, edgeUpMm: (t?.edgeUpMm ?? 0) + up, gapMesialMm }];
    }),
  );
  return {
    seed,
    traits,
    ...(odd && { oddMm: ODD_MM }),
    archDepth: 1 + Math.max(-0.3, Math.min(0.3, r.normal(0.15))),
    overjetMm: 1.2 + 3 * r.next(),
    overbiteMm: 1.5 + 2 * r.next(),
    face: {
      restDisplayMm: 1 + 3 * r.next(),
      smileLipUpMm: 8.5 + 3.5 * r.next(),
      restWidthMm: 47 + 6 * r.next(),
      smileWidthMm: 60 + 9 * r.next(),
      pupilsMm: 58 + 10 * r.next(),
      midlineMm: r.normal(1.2),
      cantDeg: r.normal(1),
    },
  };
}

/** A patient and where everything that is marked truly lies; worked out once. */
export interface Subject {
  readonly patient: Patient;
  readonly truth: Readonly<Record<string, Readonly<Record<string, Vec3>>>>;
  readonly teeth: readonly { readonly tooth: number; readonly at: Readonly<Record<string, Vec3>> }[];
}

export const TRIAL_VIEWS: readonly ViewId[] = [
  'portrait-smile',
  'close-rest',
  'close-smile',
  'retracted-front',
  'retracted-right',
  'retracted-left',
  'upper-occlusal',
  'lower-occlusal',
];

export const subject = (seed: number, plain?: Plain, odd = false): Subject =>
  subjectOf(plain ? plainRecipe(seed, plain) : trialRecipe(seed, odd), seed);

/** How odd the teeth are that the library can't make, mm; see `oddCrown`. */
const ODD_MM = 0.35;

/** A regular mouth with one thing wrong. */
export interface Plain {
  /** How much lower the left canine hangs than the right one, its fellows in between, mm. */
  readonly cantMm?: number;
}

/** Where the edges of a regular row lie, mm from the midline. */
const ACROSS: Readonly<Record<number, number>> = { 1: 5, 2: 11.5, 3: 16.7, 4: 23, 5: 27 };

function plainRecipe(seed: number, { cantMm = 0 }: Plain): PatientRecipe {
  const traits: Record<number, { edgeUpMm: number }> = {};
  const usual: Readonly<Record<number, number>> = { 1: 0, 2: 0.7, 3: 0.05, 4: 0.9, 5: 1.3 };
  for (const q of [10, 20])
    for (const n of [1, 2, 3, 4, 5]) {
      const x = (q === 10 ? -1 : 1) * (ACROSS[n] as number);
      traits[q + n] = { edgeUpMm: (usual[n] as number) - (x * cantMm) / 2 / (ACROSS[3] as number) };
    }
  return { seed, traits };
}

/** A mouth whose teeth all touch. */
export const gapless = (seed: number): Subject => subject(seed, {});

function subjectOf(recipe: PatientRecipe, seed: number): Subject {
  const patient = makePatient(recipe);
  const r = random(seed * 104_729);
  const lean = Math.tan((r.normal(5) * Math.PI) / 180);
  const profile = new Map(FACE_DEPTHS.map(([kind, sdMm]) => [kind, r.normal(sdMm)]));
  const kinds = [...profile.keys()];
  // Faces and fronts differ in depth more than the virtual ones do: fuller lips, a chin that stands back, teeth that lean.
  const deeper = (id: string, [x, y, z]: Vec3): Vec3 => {
    const kind = kinds.find((k) => id.startsWith(k));
    return [x, y + (kind ? (profile.get(kind) as number) : z * lean), z];
  };
  const moved = (places: Readonly<Record<string, Vec3>>) =>
    Object.fromEntries(Object.entries(places).map(([id, p]) => [id, deeper(id, p)]));
  return {
    patient,
    truth: Object.fromEntries(
      TRIAL_VIEWS.map((v) => {
        const own = trueViewPoints(patient, v, VIEWS[v].expression);
        return [v, ACROSS_DEPTH.includes(v) ? own : moved(own)];
      }),
    ),
    teeth: patient.teeth.map((t) => ({ tooth: t.tooth, at: moved({ ...truePoints(t) }) })),
  };
}

/** How far faces differ in depth, one standard deviation, mm. */
const FACE_DEPTHS: readonly (readonly [string, number])[] = [
  ['pupil', 0],
  ['glabella', 1.5],
  ['nose-base', 2],
  ['chin', 4],
  ['corner', 2],
  ['upper-lip', 1],
  ['lower-lip', 1],
  ['midline-edge', 2],
  ['canine', 2],
];

/** In these views depth is measured: it stays. */
const ACROSS_DEPTH: readonly ViewId[] = ['retracted-right', 'retracted-left', 'upper-occlusal', 'lower-occlusal'];

/** px a mm of pictures without perspective. */
const FLAT = 20;

/** Where a place is seen straight in the view's direction, without perspective. */
function flat(view: ViewId, [x, y, z]: Vec3): Px {
  const at = (a: number, b: number): Px => [2000 + FLAT * a, 2000 + FLAT * b];
  switch (view) {
    case 'retracted-right':
      return at(-y, -z);
    case 'retracted-left':
      return at(y, -z);
    case 'upper-occlusal':
      return at(x, y);
    case 'lower-occlusal':
      return at(x, -y);
    default:
      return at(x, -z);
  }
}

const FLAT_SCALE: Figure = { value: 1 / FLAT, pm: 0, unit: 'mm/px', working: { formula: 'given', inputs: [] } };

/** What the view tells, with the truth or a hand's setting of every place. */
export interface Shot {
  readonly set: LandmarkSet;
  readonly points: ViewPoints;
  readonly scale: Figure;
  readonly stand?: CameraStand;
  readonly scaleTooth?: number;
}

export function flatShot(s: Subject, view: ViewId): Shot {
  const of = (places: Readonly<Record<string, Vec3>>) =>
    Object.fromEntries(Object.entries(places).map(([id, p]) => [id, flat(view, p)]));
  return {
    set: Object.fromEntries(s.teeth.map((t) => [t.tooth, of(t.at)])),
    points: of(s.truth[view] ?? {}),
    scale: FLAT_SCALE,
    stand: STRAIGHT,
  };
}

/** A camera held by hand for a view. */
export function handCamera(view: ViewId, r: Random): CameraSetting {
  const camera = VIEWS[view].camera;
  const off = () => TURN_DEG * (2 * r.next() - 1);
  const [distance, dx, dz] = [1 + 0.5 * (r.next() - 0.4), r.normal(2), r.normal(2)];
  return {
    ...camera,
    rollDeg: (camera.rollDeg ?? 0) + off(),
    yawDeg: (camera.yawDeg ?? 0) + off(),
    pitchDeg: (camera.pitchDeg ?? 0) + off(),
    distanceMm: camera.distanceMm * distance,
    centreX: (camera.centreX ?? 0) + dx,
    centreZ: camera.centreZ + dz,
    distortion: r.normal(0.004),
  };
}

/** By which tooth a view is scaled, where no printed scale lies in it. */
const SCALE_TOOTH: Readonly<Partial<Record<ViewId, number>>> = {
  'close-rest': 21,
  'close-smile': 21,
  'retracted-right': 14,
  'retracted-left': 24,
  'upper-occlusal': 21,
  'lower-occlusal': 31,
};

function handShot(s: Subject, view: ViewId, camera: CameraSetting, r: Random): Shot {
  const perMm = camera.widthPx / camera.fieldMm;
  const put = (p: Vec3, sdMm: number): Px => {
    const [x, y] = project(camera, p);
    return [x + r.normal(sdMm * perMm), y + r.normal(sdMm * perMm)];
  };
  const own = s.truth[view] ?? {};
  const points = Object.fromEntries(
    Object.entries(own).map(([id, p]) => [id, put(p, pointSpec(view, id)?.sdMm ?? 0.1)]),
  );
  const set: LandmarkSet =
    view === 'retracted-front'
      ? Object.fromEntries(
          s.teeth.map((t) => [
            t.tooth,
            Object.fromEntries(LANDMARK_KINDS.map((k) => [k, put(t.at[k] as Vec3, FRONT_SD_MM[k])])),
          ]),
        )
      : {};
  return { set, points, ...scaleOfShot(s, view, camera, put, points, r) };
}

function scaleOfShot(
  s: Subject,
  view: ViewId,
  camera: CameraSetting,
  put: (p: Vec3, sdMm: number) => Px,
  points: ViewPoints,
  r: Random,
): Pick<Shot, 'scale' | 'scaleTooth'> {
  if (view === 'portrait-smile') {
    const mm = s.patient.face.pupilsMm + r.normal(0.5);
    return { scale: scaleFrom({ from: points['pupil-right'] as Px, to: points['pupil-left'] as Px }, pupils(mm)) };
  }
  const scaleTooth = SCALE_TOOTH[view];
  if (scaleTooth === undefined) {
    const { from, to, mm } = scalePoints(camera);
    const perMm = camera.widthPx / camera.fieldMm;
    const set = (p: readonly [number, number]): Px => [p[0] + r.normal(0.05 * perMm), p[1] + r.normal(0.05 * perMm)];
    return { scale: scaleFrom({ from: set(from), to: set(to) }, printed(mm)) };
  }
  const tooth = [...s.patient.teeth, ...s.patient.lower].find((t) => t.tooth === scaleTooth) as Patient['teeth'][0];
  const { widthMm } = tooth.crown.size;
  const known = toothWidth(scaleTooth, widthMm + r.normal(0.05), 0.1, view);
  const { mesial, distal } = truePoints(tooth);
  // From below a width is set along the tooth, else from border to border of what is seen.
  const ends: readonly [Vec3, Vec3] = view.endsWith('occlusal')
    ? [inMouth(tooth, [-widthMm / 2, 0, 1.5]), inMouth(tooth, [widthMm / 2, 0, 1.5])]
    : view.startsWith('retracted')
      ? outlineIn(tooth, camera)
      : [mesial, distal];
  return { scaleTooth, scale: scaleFrom({ from: put(ends[0], 0.05), to: put(ends[1], 0.05) }, known) };
}

/** Everything that a shot tells. `level` is what the front view goes by; the truth's is what it should go by. */
function told(
  view: ViewId,
  shot: Shot,
  level: Level | undefined,
  arch?: FrontSeen['arch'],
  behind?: FrontSeen['behind'],
): Measured {
  const out = new Map<string, Figure>();
  const put = (figures: readonly ViewFigure[]) => {
    for (const f of figures) out.set(f.id, f.figure);
  };
  if (view !== 'retracted-front') {
    const { points, scale, stand, scaleTooth } = shot;
    put(measureView({ view, points, scale, ...(stand && { stand }), ...(scaleTooth && { scaleTooth }) }));
    return out;
  }
  const seen: FrontSeen = { level, stand: shot.stand, arch, behind };
  put(measureFrontDetails(shot.set, shot.points, shot.scale, undefined, seen));
  const teeth = measureTeeth(shot.set, shot.scale, undefined, seen).filter((m) => m.tooth % 10 <= 3);
  for (const m of teeth) {
    for (const what of ['frontWidth', 'width', 'length', 'ratio', 'edgeLevel', 'zenithLevel'] as const) {
      const [own, other] = [m[what], teeth.find((o) => o.tooth === opposite(m.tooth))?.[what]];
      if (own) out.set(`${what}-${m.tooth}`, own);
      if (own && other && m.tooth < 20) out.set(`${what}-sides-${m.tooth}`, difference(own, other));
    }
    const inner = teeth.find((o) => o.tooth === m.tooth - 1);
    if (m.length && inner?.length && m.tooth % 10 > 1)
      out.set(`length-step-${m.tooth}`, difference(m.length, inner.length));
  }
  const gaps = gapsBetween(shot.set, shot.scale, undefined, undefined, seen);
  out.set('gaps', gaps);
  for (const [id, f] of targets(teeth, gaps)) out.set(id, f);
  return out;
}

/** What is proposed of measures: by the default school, the edge left where it is. */
function targets(teeth: readonly ToothMeasure[], gaps: Figure): [string, Figure][] {
  const p = propose(teeth, { school: 'ratio', referenceTooth: 11, edgeMm: 0 }, gaps);
  if (!p) return [];
  return [
    ['space', p.space],
    ...p.targets.flatMap((t): [string, Figure][] => [
      [`target-length-${t.tooth}`, t.length],
      [`target-width-${t.tooth}`, t.width],
    ]),
  ];
}

/** The truth of a view: what it would tell from straight in front, and of crowns what they are. */
export function truthOf(s: Subject, view: ViewId, level: LevelBy): ReadonlyMap<string, number> {
  const own: Level | undefined = level === 'teeth' ? undefined : { by: level, rollDeg: 0, pmDeg: 0 };
  const out = new Map([...told(view, flatShot(s, view), own)].map(([id, f]) => [id, f.value]));
  out.delete('head-tilt');
  if (view !== 'retracted-front') return out;
  const size = (tooth: number) => s.patient.teeth.find((t) => t.tooth === tooth)?.crown.size;
  for (const { tooth } of s.teeth.filter((t) => t.tooth % 10 <= 3)) {
    const [a, b, inner] = [size(tooth), size(opposite(tooth)), size(tooth - 1)];
    if (!a) continue;
    const ratio = (c: typeof a) => (100 * c.widthMm) / c.lengthMm;
    out.set(`width-${tooth}`, a.widthMm);
    out.set(`length-${tooth}`, a.lengthMm);
    out.set(`ratio-${tooth}`, ratio(a));
    if (b && tooth < 20) {
      out.set(`width-sides-${tooth}`, a.widthMm - b.widthMm);
      out.set(`length-sides-${tooth}`, a.lengthMm - b.lengthMm);
      out.set(`ratio-sides-${tooth}`, ratio(a) - ratio(b));
    }
    if (inner && tooth % 10 > 1) out.set(`length-step-${tooth}`, a.lengthMm - inner.lengthMm);
  }
  // Proposals of the true crowns, in their true places.
  const exact = (id: string): Figure => ({ ...FLAT_SCALE, unit: 'mm', value: out.get(id) as number });
  const teeth = s.teeth
    .filter((t) => t.tooth % 10 <= 3)
    .map(({ tooth }) => ({
      tooth,
      width: exact(`width-${tooth}`),
      length: exact(`length-${tooth}`),
      edgeLevel: exact(`edgeLevel-${tooth}`),
      zenithLevel: exact(`zenithLevel-${tooth}`),
    }));
  for (const [id, f] of targets(teeth, exact('gaps'))) out.set(id, f.value);
  // The lower crown's length is taken as usual there, and the head's tilt is the picture's own.
  out.delete('overbite');
  return out;
}

/** One photograph of every view, measured as a hand sets it. */
export function measured(s: Subject, view: ViewId, level: LevelBy, r: Random, camera = handCamera(view, r)): Measured {
  const shot = handShot(s, view, camera, r);
  if (view !== 'retracted-front' || level === 'teeth') return told(view, shot, undefined);
  if (level === 'scan') return onScan(s, shot, camera, r);
  const portrait = handShot(s, 'portrait-smile', handCamera('portrait-smile', r), r);
  const reading = { view: 'portrait-smile' as const, points: portrait.points, scale: portrait.scale };
  return told(view, shot, levelOfPupils(shot.set, shot.scale, reading));
}

/** By what the front view goes: the portrait’s pupils, the scan that it was matched with, or its own teeth alone. */
export type LevelBy = Exclude<Level['by'], 'alike'>;

/** How well a scan has a landmark, one standard deviation, mm. */
const SCAN_SD_MM = 0.05;

/** The front view matched with a scan of the same teeth by the marks that both have. */
function onScan(s: Subject, shot: Shot, camera: CameraSetting, r: Random): Measured {
  const scanned = s.teeth.map(({ tooth, at }) => {
    const place = ([x, y, z]: Vec3): Vec3 => [
      x + r.normal(SCAN_SD_MM),
      y + r.normal(SCAN_SD_MM),
      z + r.normal(SCAN_SD_MM),
    ];
    const { zenith, edge, mesial, distal } = at as Record<LandmarkKind, Vec3>;
    return { tooth, at: { zenith: place(zenith), edge: place(edge), mesial: place(mesial), distal: place(distal) } };
  });
  const marks = scanned
    .filter((t) => t.tooth % 10 <= 3)
    .flatMap((t) =>
      LANDMARK_KINDS.flatMap((kind) => {
        const px = shot.set[t.tooth]?.[kind];
        const held = HELD_MM[kind === 'edge' && t.tooth % 10 === 3 ? 'tip' : kind];
        return px ? [{ at: t.at[kind], px, sdMm: held }] : [];
      }),
    );
  const stood = stoodBy(matchCamera(marks, [camera.widthPx, camera.heightPx]));
  const edges = (...teeth: number[]) => scanned.filter((t) => teeth.includes(t.tooth)).map((t) => t.at.edge[1]);
  const perMm = archDepthFrom(edges(11, 21), edges(13, 23));
  const level: Level = { by: 'scan', rollDeg: stood.rollDeg, pmDeg: stood.rollPmDeg };
  const arch = perMm ? { perMm, pm: 0.12 } : undefined;
  return told('retracted-front', { ...shot, stand: standOf(stood) }, level, arch, depthsFrom(scanned));
}

/** Teeth and gaps of one front view by one hand and camera, level by its own teeth. */
export function handFront(s: Subject, r: Random): { readonly gaps: Figure } {
  const shot = handShot(s, 'retracted-front', handCamera('retracted-front', r), r);
  return { gaps: gapsBetween(shot.set, shot.scale) };
}

/** Kinds of measure: the teeth of one kind together, right and left alike. */
export function kindOfMeasure(id: string): string {
  return id
    .replace(/^(gap|papilla|contact|connector|triangle|embrasure)-(\d)(\d)-(\d)(\d)$/, (_, w, _a, b, _c, d) => {
      const [p, q] = [Number(b), Number(d)].sort();
      return `${w} ${p}/${q}`;
    })
    .replace(/-(\d)(\d)$/, (_, _q, n) => ` of tooth ${n}`);
}

/** How often the ± of a kind of measure held the truth. */
export interface Coverage {
  readonly kind: string;
  readonly unit: string;
  readonly all: number;
  readonly held: number;
  /** Mean of measured − true, and mean half-width. */
  readonly bias: number;
  readonly pm: number;
}

/** Tries patients with so many hands each. */
export function coverage(
  seeds: readonly number[],
  hands: number,
  level: LevelBy,
  views: readonly ViewId[] = TRIAL_VIEWS,
  odd = false,
): Coverage[] {
  const sums = new Map<string, { unit: string; all: number; held: number; off: number; pm: number }>();
  for (const seed of seeds) {
    const s = subject(seed, undefined, odd);
    for (const view of views) {
      const truth = truthOf(s, view, level);
      const r = random(seed * 131 + views.indexOf(view));
      for (let n = 0; n < hands; n++)
        for (const [id, f] of measured(s, view, level, r)) {
          const t = truth.get(id);
          if (t === undefined || f.pm === 0) continue;
          const kind = `${view}: ${kindOfMeasure(id)}`;
          const own = sums.get(kind) ?? { unit: f.unit, all: 0, held: 0, off: 0, pm: 0 };
          own.all++;
          own.off += f.value - t;
          own.pm += f.pm;
          if (Math.abs(f.value - t) <= f.pm) own.held++;
          sums.set(kind, own);
        }
    }
  }
  return [...sums].map(([kind, { unit, all, held, off, pm }]) => ({
    kind,
    unit,
    all,
    held,
    bias: off / all,
    pm: pm / all,
  }));
}

/** What a 95 % interval is wished to hold, %. */
export const WANTED = { from: 93, to: 98 } as const;
