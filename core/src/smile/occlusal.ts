import { type Fdi, LOWER_TEN, sideOf, UPPER_TEN } from '../teeth/notation.js';
import { DERIVED, type Figure, MEASURED } from '../working/working.js';
import { fitArchCurve } from './arch-fit.js';
import type { Px } from './calibration.js';
import { archDepthFrom } from './depths.js';
import { propagated, propagatedAll } from './propagate.js';
import { along, directionDeg, marksOf, sightOf, type ViewFigure, type ViewReading, wrapped } from './reading.js';

/** How one tooth stands in its arch. */
export interface ArchStanding {
  readonly tooth: Fdi;
  /** In front of the arch (+) or behind it. */
  readonly offset: ViewFigure;
  /** Turned, mesial end forward positive; absent while its ends are not marked. */
  readonly rotation?: ViewFigure;
}

/**
 * How deep an upper arch is by its view from below: how far the edges of its canines lie behind those of its centrals,
 * square to the line from canine to canine (see `ARCH_DEPTH`). Undefined while they are not marked.
 */
export function archFromBelow(r: ViewReading): number | undefined {
  const at = (tooth: Fdi) => r.points[`facial-${tooth}`];
  const [right, left] = [at(13), at(23)];
  const centrals = [at(11), at(21)].filter((p) => p !== undefined);
  if (!right || !left || centrals.length === 0) return undefined;
  const deg = directionDeg(right, left);
  return archDepthFrom(
    centrals.map((p) => along(p, right, deg)[1] * r.scale.value),
    [0],
  );
}

/**
 * The arch through the facial edges of an occlusal view and how each tooth stands in it. The patient's left is at the
 * picture's right; the front of the upper arch at its top, of the lower arch at its foot. Nothing before six teeth are
 * marked.
 */
export function measureArch(r: ViewReading): ArchStanding[] {
  const upper = r.view === 'upper-occlusal';
  // The lower arch is looked at upside down, so that its front too lies towards −y.
  const upright = (p: Px): Px => [p[0], upper ? p[1] : -p[1]];
  const facial = (upper ? UPPER_TEN : LOWER_TEN).flatMap((tooth) => {
    const mark = marksOf(r, [`facial-${tooth}`])?.[0];
    return mark ? [{ tooth, mark }] : [];
  });
  if (facial.length < 6) return [];
  const sight = sightOf(r);
  const curve = fitArchCurve(facial.map((f) => upright(f.mark.at)));
  const offsets = propagatedAll(
    facial.map((f) => f.mark),
    sight,
    'mm',
    {
      formula: 'distance of the facial edge from the arch laid through all of them, forward positive',
      inputs: [
        { name: 'teeth in the arch', value: facial.length, unit: '', source: MEASURED },
        {
          name: 'root mean square distance',
          value: Math.round(curve.rms * r.scale.value * 100) / 100,
          unit: 'mm',
          source: DERIVED,
        },
      ],
      note: 'A tooth that stands out weighs less in the arch, so that it shows as standing out.',
    },
    (points, mm) => {
      const places = points.map(upright);
      const own = fitArchCurve(places, curve.weights);
      return places.map((p) => own.at(p).offset * mm);
    },
  );
  return facial.map(({ tooth, mark }, i): ArchStanding => {
    const offset: ViewFigure = {
      id: `offset-${tooth}`,
      tooth,
      name: `{${tooth}} in front of the arch`,
      figure: offsets[i] as Figure,
    };
    const ends = marksOf(r, [`mesial-${tooth}`, `distal-${tooth}`]);
    if (!ends) return { tooth, offset };
    const { tangentDeg } = curve.at(upright(mark.at));
    const left = sideOf(tooth) === 'left';
    const figure = propagated(
      ends,
      sight,
      '°',
      {
        formula: 'direction from mesial to distal end − direction of the arch',
        inputs: [
          { name: 'direction of the arch', value: Math.round(tangentDeg * 10) / 10, unit: '°', source: DERIVED },
        ],
      },
      ([m, d]) => {
        const [mesial, distal] = [upright(m as Px), upright(d as Px)];
        const own = left ? directionDeg(mesial, distal) : directionDeg(distal, mesial);
        const turned = wrapped(own - tangentDeg);
        // On the left a tooth turned clockwise has its mesial end forward (up in the picture).
        return left ? turned : -turned;
      },
      { 'direction of the arch': TANGENT_PM_DEG },
    );
    return {
      tooth,
      offset,
      rotation: { id: `rotation-${tooth}`, tooth, name: `turn of {${tooth}}, mesial end forward`, figure },
    };
  });
}

/** How unsure the direction of a curve laid through ten edges is, degrees. House value from virtual patients. */
const TANGENT_PM_DEG = 1.5;
