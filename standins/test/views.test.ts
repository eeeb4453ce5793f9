import {
  type Figure,
  frontRow,
  LANDMARK_KINDS,
  type LandmarkSet,
  measureArch,
  measureFrontDetails,
  measureTeeth,
  measureView,
  type Px,
  pointSpec,
  pointsOf,
  printed,
  pupils,
  scaleFrom,
  type Vec3,
  VIEW_IDS,
  type ViewId,
  viewFindings,
} from '@radiant/core';
import {
  AVOCET,
  type CameraSetting,
  DUNLIN,
  frontRowOf,
  makePatient,
  type Patient,
  type PatientRecipe,
  PLOVER,
  project,
  RECIPES,
  scalePoints,
  scatteredRecipe,
  TURNSTONE,
  truePoints,
  trueViewPoints,
  VIEWS,
} from '@radiant/standins';
import { rendered } from './render.js';

/** How the camera or the head is held askew, and how the lens bends. */
const TILTS = [
  { rollDeg: 0, pitchDeg: 0 },
  { rollDeg: 5, pitchDeg: 1 },
  { rollDeg: -4, pitchDeg: -1.5 },
] as const;
const LENSES = [0, -0.012] as const;
const SHOTS = TILTS.flatMap((tilt) => LENSES.map((distortion) => ({ ...tilt, distortion })));

/** Worked out once for each patient and view: it does not depend on the camera. */
const known = new WeakMap<Patient, Map<ViewId, Record<string, Vec3>>>();
function truthOf(patient: Patient, view: ViewId): Record<string, Vec3> {
  const own = known.get(patient) ?? new Map<ViewId, Record<string, Vec3>>();
  known.set(patient, own);
  const kept = own.get(view) ?? trueViewPoints(patient, view, VIEWS[view].expression);
  own.set(view, kept);
  return kept;
}

const points = (
  patient: Patient,
  view: ViewId,
  camera: CameraSetting,
  hand?: (sdMm: number) => number,
): Record<string, Px> => {
  const perMm = camera.widthPx / camera.fieldMm;
  return Object.fromEntries(
    Object.entries(truthOf(patient, view)).map(([id, p]) => {
      const [x, y] = project(camera, p);
      const sd = (pointSpec(view, id)?.sdMm ?? 0) * perMm;
      return [id, [x + (hand?.(sd) ?? 0), y + (hand?.(sd) ?? 0)]];
    }),
  );
};
const ofTeeth = (patient: Patient, camera: CameraSetting, hand?: (sdMm: number) => number): LandmarkSet => {
  const sd = 0.05 * (camera.widthPx / camera.fieldMm);
  return Object.fromEntries(
    patient.teeth.map((t) => {
      const truth = truePoints(t);
      return [
        t.tooth,
        Object.fromEntries(
          LANDMARK_KINDS.map((k) => {
            const [x, y] = project(camera, truth[k]);
            return [k, [x + (hand?.(sd) ?? 0), y + (hand?.(sd) ?? 0)]];
          }),
        ),
      ];
    }),
  );
};
const byScale = (camera: CameraSetting): Figure => scaleFrom(scalePoints(camera), printed(40));
const of = (figures: readonly { id: string; figure: Figure }[], id: string): number => {
  const f = figures.find((q) => q.id === id);
  if (!f) throw new Error(`There is no figure ${id}.`);
  return f.figure.value;
};
const within = (a: number, b: number, limit: number) => expect(Math.abs(a - b)).toBeLessThanOrEqual(limit);

const askew = makePatient({ ...AVOCET, face: { ...AVOCET.face, cantDeg: 1.5, midlineMm: 2.3 } });

describe.each(SHOTS)('held at roll $rollDeg°, pitch $pitchDeg°, lens $distortion', (shot) => {
  const patient = askew;

  it('lengths and widths of the centrals lie within 0.15 mm of the modelled ones, those of laterals and canines within 0.22', () => {
    const camera = { ...VIEWS['retracted-front'].camera, ...shot };
    const measures = measureTeeth(ofTeeth(patient, camera), byScale(camera));
    for (const tooth of frontRow()) {
      const own = patient.teeth.find((t) => t.tooth === tooth);
      const m = measures.find((q) => q.tooth === tooth);
      const truth = truePoints(own as NonNullable<typeof own>);
      const length = (m?.edgeLevel && m.zenithLevel && m.zenithLevel.value - m.edgeLevel.value) ?? 0;
      const width = m?.frontWidth?.value ?? 0;
      const limit = tooth % 10 === 1 ? 0.15 : 0.22;
      within(width, Math.abs(truth.mesial[0] - truth.distal[0]), limit);
      within(length, truth.zenith[2] - truth.edge[2], limit);
    }
  });

  it('gaps, contacts and embrasures too', () => {
    const camera = { ...VIEWS['retracted-front'].camera, ...shot };
    const p = points(patient, 'retracted-front', camera);
    const t = truthOf(patient, 'retracted-front');
    const figures = measureFrontDetails(ofTeeth(patient, camera), p, byScale(camera));
    within(of(figures, 'connector-11-21'), (t['contact-11-21'] as Vec3)[2] - (t['embrasure-11-21'] as Vec3)[2], 0.15);
    const edges = [12, 11].map((n) => truePoints(patient.teeth.find((q) => q.tooth === n) as Patient['teeth'][0]));
    const gap = (edges[1]?.distal[0] ?? 0) - (edges[0]?.mesial[0] ?? 0);
    within(of(figures, 'gap-12-11'), gap, 0.15);
  });

  it('the midlines lie within 0.2 mm and the cants within 0.5° and as many mm as that makes', () => {
    const camera = { ...VIEWS['portrait-smile'].camera, ...shot };
    const p = points(patient, 'portrait-smile', camera);
    const t = truthOf(patient, 'portrait-smile');
    const scale = scaleFrom({ from: p['pupil-right'] as Px, to: p['pupil-left'] as Px }, pupils(patient.face.pupilsMm));
    const figures = measureView({ view: 'portrait-smile', points: p, scale });
    // The face's midline is upright at x = midlineMm; the dental one where the centrals touch.
    const dental = (t['midline-edge'] as Vec3)[0] - patient.face.midlineMm;
    within(of(figures, 'midline'), dental, 0.2);
    within(of(figures, 'midline-pupils'), dental, 0.2);
    const slope = (a: Vec3, b: Vec3) => (Math.atan2(a[2] - b[2], b[0] - a[0]) * 180) / Math.PI;
    const corners = slope(t['corner-right'] as Vec3, t['corner-left'] as Vec3);
    within(of(figures, 'cant-corner-deg'), corners, 0.5);
    within(of(figures, 'cant-canine-deg'), slope(t['canine-right'] as Vec3, t['canine-left'] as Vec3), 0.5);
    within(of(figures, 'cant-corner-mm'), (t['corner-right'] as Vec3)[2] - (t['corner-left'] as Vec3)[2], 0.35);
  });

  it('corridors lie within 1 % point of the straight picture’s, the display at rest within 0.15 mm', () => {
    const straight = VIEWS['close-smile'].camera;
    const read = (camera: CameraSetting) => {
      const p = points(patient, 'close-smile', camera);
      const scale = { ...byScale(VIEWS['retracted-front'].camera), value: camera.fieldMm / camera.widthPx };
      return measureView({ view: 'close-smile', points: p, scale });
    };
    const [ideal, tilted] = [read(straight), read({ ...straight, ...shot })];
    for (const id of ['corridor', 'corridor-right', 'corridor-left']) within(of(tilted, id), of(ideal, id), 1);
    // The straight picture's own, from the model: corners and outermost teeth as they stand, seen without perspective.
    const t = truthOf(patient, 'close-smile');
    const x = (id: string) => (t[id] as Vec3)[0];
    const dark =
      (100 * (x('outer-right') - x('corner-right') + x('corner-left') - x('outer-left'))) /
      (x('corner-left') - x('corner-right'));
    within(of(ideal, 'corridor'), dark, 1);

    const camera = { ...VIEWS['close-rest'].camera, rollDeg: shot.rollDeg, distortion: shot.distortion };
    const rest = measureView({
      view: 'close-rest',
      points: points(patient, 'close-rest', camera),
      scale: { ...byScale(VIEWS['retracted-front'].camera), value: camera.fieldMm / camera.widthPx },
    });
    const r = truthOf(patient, 'close-rest');
    // Across the line of the corners, which this face cants.
    const [a, b] = [r['corner-right'] as Vec3, r['corner-left'] as Vec3];
    const turn = Math.atan2(b[2] - a[2], b[0] - a[0]);
    const up = (p: Vec3) => -(p[0] - a[0]) * Math.sin(turn) + (p[2] - a[2]) * Math.cos(turn);
    const lip = r['upper-lip-3'] as Vec3;
    const lower = r['lower-lip-3'] as Vec3;
    within(of(rest, 'lips-apart'), up(lip) - up(lower), 0.15);
  });
});

it('in occlusal views every tooth’s turn lies within 4° of the modelled one and its place within 0.35 mm, over ten patients', () => {
  for (let seed = 400; seed < 410; seed++) {
    const recipe = scatteredRecipe(seed);
    const patient = makePatient(recipe);
    const camera = VIEWS['upper-occlusal'].camera;
    const p = points(patient, 'upper-occlusal', camera);
    const scale = { ...byScale(VIEWS['retracted-front'].camera), value: camera.fieldMm / camera.widthPx };
    for (const t of measureArch({ view: 'upper-occlusal', points: p, scale })) {
      within(t.rotation?.figure.value ?? Number.NaN, recipe.traits[t.tooth]?.rotationDeg ?? 0, 4);
      within(t.offset.figure.value, 0, 0.35);
    }
  }
});

it('a lower tooth turned with its mesial end forward has a positive turn on both sides', () => {
  const camera = VIEWS['lower-occlusal'].camera;
  const read = (traits: PatientRecipe['traits']) =>
    measureArch({
      view: 'lower-occlusal',
      points: points(makePatient({ seed: 5, traits }), 'lower-occlusal', camera),
      scale: byScale(VIEWS['retracted-front'].camera),
    });
  const [turned, straight] = [read({ 32: { rotationDeg: 15 }, 42: { rotationDeg: 15 } }), read({})];
  // The arch's own curve leaves some degrees on a tooth that stands straight; the turn itself is the difference.
  const turn = (all: typeof turned, tooth: number) =>
    all.find((t) => t.tooth === tooth)?.rotation?.figure.value ?? Number.NaN;
  for (const tooth of [32, 42]) within(turn(turned, tooth) - turn(straight, tooth), 15, 4);
});

it('overjet from the side lies within 0.3 mm of the model’s, for three bites', () => {
  for (const overjetMm of [1.2, 2.4, 4]) {
    const patient = makePatient({ seed: 6, traits: {}, overjetMm });
    for (const view of ['retracted-right', 'retracted-left'] as const) {
      const { camera } = VIEWS[view];
      const t = truthOf(patient, view);
      const figures = measureView({
        view,
        points: points(patient, view, camera),
        scale: { ...byScale(VIEWS['retracted-front'].camera), value: camera.fieldMm / camera.widthPx },
      });
      const [u, l] = [t['upper-edge'] as Vec3, t['lower-facial'] as Vec3];
      within(of(figures, 'overjet'), l[1] - u[1], 0.3);
    }
  }
});

it('the sample cases show what their stories say', () => {
  const found = (name: keyof typeof RECIPES, view: ViewId, ageYears = 34) => {
    const patient = makePatient(RECIPES[name]);
    const { camera } = VIEWS[view];
    const scale = { ...byScale(VIEWS['retracted-front'].camera), value: camera.fieldMm / camera.widthPx };
    const p = points(patient, view, camera);
    const figures =
      view === 'retracted-front'
        ? measureFrontDetails(ofTeeth(patient, camera), p, scale)
        : measureView({ view, points: p, scale });
    return viewFindings(figures, { ageYears, centralLengthMm: 10.5 }).map((f) => f.title);
  };
  expect(found('Plover', 'close-smile')).toEqual(
    expect.arrayContaining([expect.stringMatching(/mm of gum shows/), 'High lip line']),
  );
  // Reverse by its number, but a camera held 5° high or low could make straight edges look so.
  expect(found('Avocet', 'close-smile')).toEqual(
    expect.arrayContaining(['The edges run straight over the lower lip, or against its curve']),
  );
  expect(found('Avocet', 'upper-occlusal')).toEqual([
    expect.stringMatching(/^\{22\} is turned \d+ .*mesial end forward/),
  ]);
  const triangle = (title: string) => /dark triangle of ([\d.]+)/.exec(title)?.[1];
  const tallest = (name: 'Dunlin' | 'Sandpiper') =>
    Math.max(0, ...found(name, 'retracted-front').map((t) => Number(triangle(t) ?? 0)));
  expect(tallest('Dunlin')).toBeGreaterThan(tallest('Sandpiper') + 1);
  expect(DUNLIN.gum?.papillaLossMm).toBeGreaterThan(1);
});

it.each([
  ['all teeth there', PLOVER, []],
  // 21 and 23 do not touch: there is no contact to mark.
  ['laterals missing, canines in their place', TURNSTONE, ['contact-21-23', 'embrasure-21-23']],
] as const)(
  'every point that a view asks for is known to the virtual patient, and no other: %s',
  (_, recipe, apart) => {
    const patient = makePatient(recipe);
    const present = new Set([...patient.teeth, ...patient.lower].map((t) => t.tooth));
    for (const view of VIEW_IDS) {
      const truth = Object.keys(truthOf(patient, view));
      const asked = pointsOf(view, frontRowOf(patient))
        .filter((s) => view !== 'upper-occlusal' || present.has(s.tooth as number))
        .map((s) => s.id);
      expect(truth.filter((id) => !asked.includes(id))).toEqual([]);
      // Hidden by the lip at most: the edges at rest, a zenith in a smile that shows no gum.
      const hidden = asked.filter((id) => !truth.includes(id));
      if (view === 'close-smile') expect(hidden.filter((id) => !id.startsWith('zenith-'))).toEqual([]);
      else if (view !== 'close-rest') expect(hidden).toEqual(view === 'retracted-front' ? apart : []);
    }
  },
);

/** The pixels themselves: where a bent and tilted lens puts a border must be where the border is drawn. */
describe.each([
  { rollDeg: 0, distortion: 0 },
  { rollDeg: 5, distortion: -0.012 },
  { rollDeg: -4, distortion: 0.02 },
])('a smile photographed at roll $rollDeg°, lens $distortion', ({ rollDeg, distortion }) => {
  const setting = { widthPx: 900, heightPx: 600, rollDeg, distortion };
  const { rgba, camera } = rendered('Avocet', 'close-smile', setting);
  const light = (x: number, y: number) => {
    const i = 4 * (Math.round(y) * camera.widthPx + Math.round(x));
    return 0.3 * (rgba[i] as number) + 0.59 * (rgba[i + 1] as number) + 0.11 * (rgba[i + 2] as number);
  };
  const patient = makePatient(AVOCET);
  const truth = truthOf(patient, 'close-smile');

  it('has its corridors dark between corner and last tooth, and bright on the tooth', () => {
    for (const side of ['right', 'left'] as const) {
      const [cx, cy] = project(camera, truth[`corner-${side}`] as Vec3);
      const [ox, oy] = project(camera, truth[`outer-${side}`] as Vec3);
      expect(light(cx + (ox - cx) * 0.6, cy + (oy - cy) * 0.6)).toBeLessThan(60);
      const inward = side === 'right' ? 1 : -1;
      expect(light(ox + inward * 12, oy)).toBeGreaterThan(70);
    }
  });

  it('has the upper lip’s border where the model says: teeth below, lip above', () => {
    const pxPerMm = camera.widthPx / camera.fieldMm;
    // Over the centrals, where enamel meets the lip: the greatest fall of brightness along the upright of the picture.
    const [x, y] = project(camera, truth['upper-lip-3'] as Vec3);
    const t = (rollDeg * Math.PI) / 180;
    const off = 2.6 * pxPerMm;
    const at = (s: number) => light(x + off * Math.cos(t) - s * Math.sin(t), y + off * Math.sin(t) + s * Math.cos(t));
    let best = { s: 0, fall: 0 };
    for (let s = -1.2 * pxPerMm; s < 1.2 * pxPerMm; s += 0.25) {
      const fall = Math.abs(at(s + 1.5) - at(s - 1.5));
      if (fall > best.fall) best = { s, fall };
    }
    expect(best.fall).toBeGreaterThan(25);
    // The border curves a little between the middle and the place looked at.
    expect(Math.abs(best.s) / pxPerMm).toBeLessThan(0.45);
  });
});

it('brighter light and a deeper skin change the picture as they should', () => {
  const mean = (exposure: number, who: 'Plover' | 'Curlew') => {
    const { rgba } = rendered(who, 'close-rest', { widthPx: 240, heightPx: 160, exposure });
    let sum = 0;
    for (let i = 0; i < rgba.length; i += 4) sum += rgba[i] as number;
    return sum / (rgba.length / 4);
  };
  const usual = mean(1, 'Plover');
  expect(mean(1.5, 'Plover')).toBeGreaterThan(usual * 1.1);
  expect(mean(0.6, 'Plover')).toBeLessThan(usual * 0.9);
  expect(mean(1, 'Curlew')).toBeLessThan(usual * 0.75);
});
