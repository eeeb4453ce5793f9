import type { ToothKind } from '../teeth/notation.js';

/**
 * Which edition of the library's forms this is. The numbers of a plan make other crowns with other forms: what was
 * kept with an earlier edition looks another way now, and says so. One more with each change that can be seen.
 */
export const FORMS_EDITION = 2;

/** A profile: places and what stands there, in pairs. */
export type Knots = readonly (readonly [number, number])[];

/** A profile written flat: place, value, place, value, … */
export const knots = (flat: readonly number[]): Knots =>
  Array.from({ length: flat.length / 2 }, (_, i) => [flat[2 * i], flat[2 * i + 1]] as const);

/** One cusp: its place along c, and how far its tip stands back from the tooth's longest one, as share of the length. */
export interface Cusp {
  readonly at: number;
  readonly shorter: number;
  /** How far its arms fall to the mesial and distal border, as share of the length. */
  readonly mesialDrop: number;
  readonly distalDrop: number;
  /** How blunt it is, along c. */
  readonly tipRadius: number;
}

/** What lies between the facial and the oral cusps. */
export interface ChewingSurface {
  /** The cusps behind it. */
  readonly cusps: readonly Cusp[];
  /** Depth of the groove in the middle under a line from cusp to cusp, mm. */
  readonly grooveMm: number;
  /** How much of that depth the marginal ridges have. */
  readonly marginalShare: number;
  /** Where the groove runs between facial (0) and oral (1) cusps. */
  readonly grooveAt: number;
}

/**
 * The library form of one kind of upper tooth, for a tooth of the patient's left with mesial at negative x.
 *
 * Heights `h` run from 0 at the edge to 1 at the facial zenith. Lateral places `c` run from −1 at the distal to +1 at
 * the mesial border. Facial and palatal profiles are mm in front of (+) or behind (−) the axis of a tooth of the usual
 * depth at the given height. The numbers are house morphology, drawn so that the whole has the dimensions of a textbook
 * (Wheeler, Dental Anatomy, from memory); sizes come from the parameters.
 */
export interface CrownForm {
  readonly kind: ToothKind;
  /** Greatest width and facio-oral depth of a tooth of the usual size, mm. */
  readonly usualWidthMm: number;
  readonly usualDepthMm: number;
  /** Share of the half width at the proximal border by height, mesial and distal. */
  readonly mesial: Knots;
  readonly distal: Knots;
  /** Facial profile in the midline by height, mm: three planes between cervical bulge and edge. */
  readonly facial: Knots;
  /** Palatal profile in the midline by height, mm: cingulum, fossa, edge. */
  readonly palatal: Knots;
  /** Where facial and palatal halves meet at the proximal border, by height, mm. */
  readonly contact: Knots;
  /** Roundness of the facial outline in horizontal section, by height: 2 is an ellipse, more is squarer line angles. */
  readonly facialPower: Knots;
  readonly palatalPower: Knots;
  /** How far the marginal ridges stand out behind the palatal surface, mm. */
  readonly marginalMm: number;
  /** A ridge from the cusp to the cingulum, mm. */
  readonly palatalRidgeMm: number;
  /** Edge: corner rounding as share of the length, and where along c each corner begins. */
  readonly mesialCorner: { readonly drop: number; readonly from: number };
  readonly distalCorner: { readonly drop: number; readonly from: number };
  /** Facial cusps; none for incisors. */
  readonly cusps: readonly Cusp[];
  /** Premolars and molars have one. */
  readonly chewing?: ChewingSurface;
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
