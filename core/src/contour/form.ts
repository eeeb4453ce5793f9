import type { ToothKind } from '../teeth/notation.js';

/**
 * The library form of one kind of upper tooth, for a tooth of the patient's left with mesial at negative x.
 *
 * Heights `h` run from 0 at the edge to 1 at the facial zenith. Lateral places `c` run from −1 at the distal to +1 at
 * the mesial border. Facial and palatal profiles are mm in front of (+) or behind (−) the tooth's axis at the given
 * height. The numbers are house morphology, drawn to the textbook descriptions of each tooth; sizes come from the
 * parameters.
 */
export interface CrownForm {
  readonly kind: ToothKind;
  /** Share of the half width at the proximal border by height, mesial and distal. */
  readonly mesial: readonly (readonly [number, number])[];
  readonly distal: readonly (readonly [number, number])[];
  /** Facial profile in the midline by height, mm: three planes between cervical bulge and edge. */
  readonly facial: readonly (readonly [number, number])[];
  /** Palatal profile in the midline by height, mm: cingulum, fossa, edge. */
  readonly palatal: readonly (readonly [number, number])[];
  /** Where facial and palatal halves meet at the proximal border, by height, mm. */
  readonly contact: readonly (readonly [number, number])[];
  /** Roundness of the facial outline in horizontal section, by height: 2 is an ellipse, more is squarer line angles. */
  readonly facialPower: readonly (readonly [number, number])[];
  readonly palatalPower: number;
  /** How deep the palatal surface dips between the marginal ridges, mm. */
  readonly fossaMm: number;
  /** Edge: corner rounding as share of the length, and where along c each corner begins. */
  readonly mesialCorner: { readonly drop: number; readonly from: number };
  readonly distalCorner: { readonly drop: number; readonly from: number };
  /** Cusp tip: its place along c, the slope drop at the borders as share of the length; none for incisors. */
  readonly cusp?: {
    readonly at: number;
    readonly mesialDrop: number;
    readonly distalDrop: number;
    readonly tipRadius: number;
  };
  /**
   * Palatal cusp of premolars: how much shorter than the facial one as share of the length, and the groove's depth, mm.
   */
  readonly palatalCusp?: { readonly shorter: number; readonly grooveMm: number };
  /** How far the neck line falls from the zenith to the proximal borders, mm. */
  readonly neckMesialMm: number;
  readonly neckDistalMm: number;
  /** Zenith distal of the axis, mm. */
  readonly zenithDistalMm: number;
  /** Depth of the two grooves that part the three facial lobes, mm. */
  readonly lobesMm: number;
  /** Facial ridge of canines and premolars, mm. */
  readonly ridgeMm: number;
}

const central: CrownForm = {
  kind: 'central',
  mesial: [
    [0, 0.965],
    [0.12, 0.995],
    [0.2, 1],
    [0.45, 0.96],
    [0.7, 0.88],
    [0.85, 0.805],
    [1, 0.71],
  ],
  distal: [
    [0, 0.93],
    [0.18, 0.985],
    [0.3, 1],
    [0.5, 0.96],
    [0.72, 0.86],
    [0.86, 0.785],
    [1, 0.69],
  ],
  facial: [
    [0, 0.42],
    [0.02, 0.6],
    [0.12, 1.14],
    [0.35, 2.12],
    [0.6, 2.92],
    [0.82, 3.32],
    [0.93, 3.26],
    [1.06, 2.86],
  ],
  palatal: [
    [0, -0.5],
    [0.02, -0.62],
    [0.15, -0.78],
    [0.35, -1.05],
    [0.52, -1.65],
    [0.68, -2.85],
    [0.8, -3.5],
    [0.9, -3.5],
    [1.06, -3.1],
  ],
  contact: [
    [0, -0.05],
    [0.15, 0.15],
    [0.5, 0.35],
    [1, 0.1],
  ],
  facialPower: [
    [0, 4.2],
    [0.25, 3.5],
    [0.6, 2.7],
    [1, 2.15],
  ],
  palatalPower: 1.75,
  fossaMm: 0.85,
  mesialCorner: { drop: 0.075, from: 0.8 },
  distalCorner: { drop: 0.17, from: 0.52 },
  neckMesialMm: 3.2,
  neckDistalMm: 2.6,
  zenithDistalMm: 1,
  lobesMm: 0.15,
  ridgeMm: 0,
};

const lateral: CrownForm = {
  ...central,
  kind: 'lateral',
  mesial: [
    [0, 0.92],
    [0.16, 0.985],
    [0.27, 1],
    [0.5, 0.95],
    [0.72, 0.85],
    [0.86, 0.765],
    [1, 0.67],
  ],
  distal: [
    [0, 0.86],
    [0.25, 0.975],
    [0.38, 1],
    [0.55, 0.96],
    [0.75, 0.85],
    [0.88, 0.755],
    [1, 0.65],
  ],
  facial: [
    [0, 0.4],
    [0.02, 0.56],
    [0.12, 1.06],
    [0.35, 1.92],
    [0.6, 2.6],
    [0.82, 2.92],
    [0.93, 2.86],
    [1.06, 2.5],
  ],
  palatal: [
    [0, -0.45],
    [0.02, -0.56],
    [0.15, -0.75],
    [0.35, -1.05],
    [0.52, -1.65],
    [0.68, -2.65],
    [0.8, -3.15],
    [0.9, -3.15],
    [1.06, -2.8],
  ],
  facialPower: [
    [0, 3.2],
    [0.25, 2.8],
    [0.6, 2.35],
    [1, 2.05],
  ],
  mesialCorner: { drop: 0.13, from: 0.6 },
  distalCorner: { drop: 0.25, from: 0.3 },
  neckMesialMm: 2.6,
  neckDistalMm: 2.1,
  zenithDistalMm: 0.4,
  lobesMm: 0.1,
};

const canine: CrownForm = {
  ...central,
  kind: 'canine',
  mesial: [
    [0, 0.92],
    [0.2, 0.98],
    [0.3, 1],
    [0.5, 0.96],
    [0.72, 0.87],
    [0.86, 0.79],
    [1, 0.7],
  ],
  distal: [
    [0, 0.92],
    [0.3, 0.985],
    [0.42, 1],
    [0.58, 0.96],
    [0.75, 0.86],
    [0.88, 0.775],
    [1, 0.68],
  ],
  facial: [
    [0, 0.42],
    [0.025, 0.72],
    [0.12, 1.42],
    [0.35, 2.6],
    [0.6, 3.5],
    [0.8, 3.92],
    [0.93, 3.82],
    [1.06, 3.4],
  ],
  palatal: [
    [0, -0.55],
    [0.03, -0.85],
    [0.15, -1.25],
    [0.35, -1.85],
    [0.52, -2.65],
    [0.68, -3.7],
    [0.8, -4.1],
    [0.9, -4.05],
    [1.06, -3.7],
  ],
  contact: [
    [0, -0.1],
    [0.2, 0.2],
    [0.5, 0.3],
    [1, 0],
  ],
  facialPower: [
    [0, 1.9],
    [0.25, 2.05],
    [0.6, 2.1],
    [1, 2],
  ],
  palatalPower: 1.75,
  fossaMm: 0.5,
  mesialCorner: { drop: 0.09, from: 0.62 },
  distalCorner: { drop: 0.12, from: 0.55 },
  cusp: { at: 0.08, mesialDrop: 0.13, distalDrop: 0.2, tipRadius: 0.16 },
  neckMesialMm: 2.5,
  neckDistalMm: 1.7,
  zenithDistalMm: 0,
  lobesMm: 0.06,
  ridgeMm: 0.12,
};

const premolar1: CrownForm = {
  ...canine,
  kind: 'premolar1',
  mesial: [
    [0, 0.9],
    [0.28, 0.985],
    [0.4, 1],
    [0.6, 0.95],
    [0.78, 0.82],
    [1, 0.66],
  ],
  distal: [
    [0, 0.9],
    [0.3, 0.985],
    [0.42, 1],
    [0.6, 0.95],
    [0.78, 0.82],
    [1, 0.66],
  ],
  facial: [
    [0, 2.35],
    [0.03, 2.7],
    [0.15, 3.3],
    [0.4, 4.1],
    [0.65, 4.55],
    [0.85, 4.5],
    [1.06, 4.05],
  ],
  palatal: [
    [0, -2.2],
    [0.03, -2.45],
    [0.15, -3.2],
    [0.35, -4.05],
    [0.6, -4.5],
    [0.85, -4.35],
    [1.06, -4],
  ],
  contact: [
    [0, 0.6],
    [0.3, 0.7],
    [0.6, 0.4],
    [1, 0],
  ],
  facialPower: [
    [0, 2.2],
    [0.3, 2.2],
    [1, 2.05],
  ],
  palatalPower: 2.1,
  fossaMm: 0,
  mesialCorner: { drop: 0.05, from: 0.7 },
  distalCorner: { drop: 0.05, from: 0.7 },
  cusp: { at: -0.04, mesialDrop: 0.17, distalDrop: 0.17, tipRadius: 0.2 },
  palatalCusp: { shorter: 0.09, grooveMm: 1.7 },
  neckMesialMm: 1.3,
  neckDistalMm: 0.9,
  zenithDistalMm: 0,
  lobesMm: 0.03,
  ridgeMm: 0.08,
};

const premolar2: CrownForm = {
  ...premolar1,
  kind: 'premolar2',
  cusp: { at: 0.04, mesialDrop: 0.15, distalDrop: 0.15, tipRadius: 0.26 },
  palatalCusp: { shorter: 0.04, grooveMm: 1.4 },
};

/** Library forms by kind of tooth. */
export const CROWN_FORMS: Readonly<Partial<Record<ToothKind, CrownForm>>> = {
  central,
  lateral,
  canine,
  premolar1,
  premolar2,
};
