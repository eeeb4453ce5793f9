import { type Fdi, LOWER_TEN, sideOf, UPPER_TEN } from '../teeth/notation.js';
import { DERIVED, MEASURED } from '../working/working.js';
import { fitArchCurve } from './arch-fit.js';
import { type Px, Z95 } from './calibration.js';
import { propagated } from './propagate.js';
import { directionDeg, marksOf, type ViewFigure, type ViewReading, wrapped } from './reading.js';
import { pointSpec } from './views.js';

/** How one tooth stands in its arch. */
export interface ArchStanding {
  readonly tooth: Fdi;
  /** In front of the arch (+) or behind it. */
  readonly offset: ViewFigure;
  /** Turned, mesial end forward positive; absent while its ends are not marked. */
  readonly rotation?: ViewFigure;
}

/**
 * The arch through the facial edges of an occlusal view and how each tooth stands in it. The patient's left is at the
 * picture's right; the front of the upper arch at its top, of the lower arch at its foot. Nothing before six teeth are
 * marked.
 */
export function measureArch(r: ViewReading): ArchStanding[] {
  const upper = r.view === 'upper-occlusal';
  const teeth = upper ? UPPER_TEN : LOWER_TEN;
  // The lower arch is looked at upside down, so that its front too lies towards −y.
  const upright = (p: Px): Px => [p[0], upper ? p[1] : -p[1]];
  const facial = teeth.flatMap((tooth) => {
    const at = r.points[`facial-${tooth}`];
    return at ? [{ tooth, at: upright(at) }] : [];
  });
  if (facial.length < 6) return [];
  const curve = fitArchCurve(facial.map((f) => f.at));
  const sd = (pointSpec(r.view, `facial-${teeth[0]}`)?.sdMm ?? 0.1) * Z95;
  // The curve itself is as sure as its points together.
  const curvePm = sd * Math.sqrt(5 / facial.length);
  return facial.map(({ tooth, at }): ArchStanding => {
    const { offset, tangentDeg } = curve.at(at);
    const mm = offset * r.scale.value;
    const offsetFigure: ViewFigure = {
      id: `offset-${tooth}`,
      tooth,
      name: `{${tooth}} in front of the arch`,
      figure: {
        value: mm,
        pm: Math.hypot(sd, curvePm, mm * (r.scale.pm / r.scale.value)),
        unit: 'mm',
        working: {
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
      },
    };
    const ends = marksOf(r, [`mesial-${tooth}`, `distal-${tooth}`]);
    if (!ends) return { tooth, offset: offsetFigure };
    const left = sideOf(tooth) === 'left';
    const figure = propagated(
      ends,
      r.scale,
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
    );
    return {
      tooth,
      offset: offsetFigure,
      rotation: { id: `rotation-${tooth}`, tooth, name: `turn of {${tooth}}, mesial end forward`, figure },
    };
  });
}
