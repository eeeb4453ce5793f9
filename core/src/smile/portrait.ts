import { hypot } from '../geometry/vec.js';
import { type Figure, MEASURED } from '../working/working.js';
import type { Px } from './calibration.js';
import { type Marked, propagated } from './propagate.js';
import { along, directionDeg, marksOf, sightOf, type ViewFigure, type ViewReading, wrapped } from './reading.js';

const INPUT = (name: string) => [{ name, value: 'marked', unit: '', source: MEASURED }];

/**
 * What a portrait tells, once its points are set: lines of the eyes, the mouth and the edges against each other, and
 * the midlines. Angles and offsets are taken relative to the line through the pupils, so that a tilted head or camera
 * does not matter. Positive is towards the patient's left, and for cants the patient's left side lower.
 */
export function measurePortrait(r: ViewReading): ViewFigure[] {
  return [
    ...pupils(r),
    ...cant(r, 'corner', 'commissure line'),
    ...cant(r, 'canine', EDGES),
    ...midlines(r),
    ...thirds(r),
  ];
}

function pupils(r: ViewReading): ViewFigure[] {
  const marks = marksOf(r, ['pupil-right', 'pupil-left']);
  if (!marks) return [];
  const figure = propagated(
    marks,
    sightOf(r),
    '°',
    { formula: 'slope of the line through the pupils in the picture', inputs: INPUT('two pupils') },
    ([a, b]) => wrapped(directionDeg(a as Px, b as Px)),
  );
  return [{ id: 'head-tilt', name: 'tilt of the head in the picture', figure }];
}

const EDGES = 'plane of the edges';

/** How the line through the canines' tips lies against the pupils, degrees; undefined while a point is missing. */
export function measureCantOfCanines(r: ViewReading): Figure | undefined {
  const marks = cantMarks(r, 'canine');
  return marks && cantAngle(r, marks, EDGES);
}

const cantMarks = (r: ViewReading, what: 'corner' | 'canine') =>
  marksOf(r, ['pupil-right', 'pupil-left', `${what}-right`, `${what}-left`]);

const cantAngle = (r: ViewReading, marks: readonly Marked[], name: string): Figure =>
  propagated(
    marks,
    sightOf(r),
    '°',
    {
      formula: `direction of the ${name} − direction of the line through the pupils`,
      inputs: INPUT('pupils and both ends'),
    },
    (p) => wrapped(directionDeg(p[2] as Px, p[3] as Px) - directionDeg(p[0] as Px, p[1] as Px)),
  );

/** The cant of a line against the pupils, as an angle and as the height it makes from one end to the other. */
function cant(r: ViewReading, what: 'corner' | 'canine', name: string): ViewFigure[] {
  const marks = cantMarks(r, what);
  if (!marks) return [];
  const angle = cantAngle(r, marks, name);
  const mm = propagated(
    marks,
    sightOf(r),
    'mm',
    {
      formula: 'how much lower the left end lies than the right one, across the line through the pupils',
      inputs: INPUT('pupils and both ends'),
    },
    (p, scale) => along(p[3] as Px, p[2] as Px, directionDeg(p[0] as Px, p[1] as Px))[1] * scale,
  );
  const word = Math.abs(mm.value) <= mm.pm ? 'level' : mm.value > 0 ? 'left lower' : 'right lower';
  return [
    { id: `cant-${what}-deg`, name: `cant of the ${name}`, figure: angle, word },
    { id: `cant-${what}-mm`, name: `cant of the ${name}, across`, figure: mm, word },
  ];
}

/**
 * Two schools: the line through the middle between the brows and the base of the nose, and the middle between the
 * pupils.
 */
function midlines(r: ViewReading): ViewFigure[] {
  const out: ViewFigure[] = [];
  const side = (f: { value: number; pm: number }) =>
    Math.abs(f.value) <= f.pm ? 'together' : f.value > 0 ? 'to the patient’s left' : 'to the patient’s right';
  const byFace = marksOf(r, ['glabella', 'nose-base', 'midline-edge']);
  if (byFace) {
    const figure = propagated(
      byFace,
      sightOf(r),
      'mm',
      {
        formula: 'distance of the centrals’ contact from the line through brow middle and nose base',
        inputs: INPUT('three points'),
      },
      ([a, b, c], mm) => -along(c as Px, a as Px, directionDeg(a as Px, b as Px))[1] * mm,
    );
    out.push({ id: 'midline', name: 'dental against facial midline', figure, word: side(figure) });
  }
  const byPupils = marksOf(r, ['pupil-right', 'pupil-left', 'midline-edge']);
  if (byPupils) {
    const figure = propagated(
      byPupils,
      sightOf(r),
      'mm',
      {
        formula: 'distance of the centrals’ contact from the upright through the middle of the pupils',
        inputs: INPUT('three points'),
      },
      ([a, b, c], mm) => {
        const [p, q] = [a as Px, b as Px];
        return along(c as Px, [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2], directionDeg(p, q))[0] * mm;
      },
    );
    out.push({ id: 'midline-pupils', name: '… against the middle of the pupils', figure, word: side(figure) });
  }
  const face = marksOf(r, ['pupil-right', 'pupil-left', 'glabella', 'nose-base']);
  if (face) {
    const figure = propagated(
      face,
      sightOf(r),
      '°',
      {
        formula: 'direction of brow middle to nose base − upright on the line through the pupils',
        inputs: INPUT('four points'),
      },
      ([a, b, c, d]) => wrapped(directionDeg(c as Px, d as Px) - directionDeg(a as Px, b as Px) - 90),
    );
    out.push({ id: 'face-upright', name: 'facial midline off the upright', figure });
  }
  return out;
}

function thirds(r: ViewReading): ViewFigure[] {
  const marks = marksOf(r, ['glabella', 'nose-base', 'chin']);
  if (!marks) return [];
  const figure = propagated(
    marks,
    sightOf(r),
    '%',
    {
      formula: 'nose base to chin ÷ brow middle to nose base',
      inputs: INPUT('three points'),
      note: 'The two lower thirds of a face are about alike: 100 %.',
    },
    ([a, b, c]) =>
      (100 * hypot((c as Px)[0] - (b as Px)[0], (c as Px)[1] - (b as Px)[1])) /
      hypot((b as Px)[0] - (a as Px)[0], (b as Px)[1] - (a as Px)[1]),
  );
  return [{ id: 'thirds', name: 'lower third to middle third', figure }];
}
