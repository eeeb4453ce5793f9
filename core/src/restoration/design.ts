import type { FacialThird } from '../teeth/norms.js';
import type { Source } from '../working/working.js';

/** What is done to a tooth. */
export const RESTORATION_KINDS = {
  none: 'left as it is',
  direct: 'direct composite',
  veneer: 'veneer',
  crown: 'crown',
} as const;
export type RestorationKind = keyof typeof RESTORATION_KINDS;

/** What of a crown a restoration lies on. */
export type Surface = 'facial' | 'edge' | 'proximal' | 'palatal';

/** Teeth that ask for thicknesses of their own. */
export type ToothGroup = 'premolars' | 'lower front';

/** What the edge needs: a thickness, only flattening where the plan lengthens, or nothing. */
export type EdgeNeed =
  /** At the facial corner; behind it the cut edge rises by so many degrees, square to the axis where left out. */
  | { readonly kind: 'thickness'; readonly mm: number; readonly slopeDeg?: number }
  | { readonly kind: 'flatten' }
  | { readonly kind: 'left' };

/** Where what is put on from the front ends at the contacts: before them, in their middle, or behind them. */
export const CONTACT_RULES = ['left', 'half way', 'broken'] as const;
export type ContactRule = (typeof CONTACT_RULES)[number];

/** How a preparation ends; `no ledge` runs out, under a crown that is not made for this tooth. */
export type FinishForm = 'none' | 'rounded chamfer' | 'rounded shoulder' | 'bevelled shoulder' | 'no ledge';

/** Where the preparation ends, and how. */
export interface FinishLine {
  /** In front; at the sides and behind too where these have none of their own. Forms run into each other. */
  readonly form: FinishForm;
  readonly sides?: FinishForm;
  readonly behind?: FinishForm;
  /** Against the gum line, mm: + below it. */
  readonly belowGumMm: number;
}

/** A way out as it is set by hand. */
export interface WayByHand {
  /** From straight to the front down to the edge, degrees; along the axis at 90. */
  readonly downDeg: number;
  /** To the patient's left, degrees; to the right below 0. */
  readonly leftDeg: number;
}

/** How far a way out may be turned down and aside, degrees: beyond it nothing is put on any more. House limits. */
export const WAY_LIMITS = { downDeg: { min: 0, max: 85 }, turnDeg: { min: -30, max: 30 } } as const;

/** A design of a restoration: what it covers, where it ends, and the thickness that its material needs, mm. */
export interface Design {
  readonly id: string;
  /** Of a family: the design that stands for all, and the teeth for which this one is made. */
  readonly variant?: { readonly of: string; readonly on: ToothGroup };
  readonly kind: RestorationKind;
  readonly name: string;
  readonly reason: string;
  readonly covers: readonly Surface[];
  /** Needed in the middle of each third of the face; see `neededAt` for every other place. */
  readonly needs: Readonly<Record<FacialThird, number>>;
  /** The least that its material is made in over the face, mm. */
  readonly leastMm: number;
  /** Needed at the sides and behind, where these are covered. */
  readonly around?: { readonly proximalMm: number; readonly palatalMm: number };
  /** More than the material needs, for room in the bite, mm; part of `edge` and `around` already. */
  readonly forBite?: { readonly edge?: number; readonly palatal?: number };
  /** In the quarter at the gum, where that lies under a bulge: less, or the neck would be cut away. */
  readonly belowBulgeMm?: number;
  /** Over the edge and down behind it: how far from the prepared edge, and how deep, mm. */
  readonly wrap?: { readonly downMm: number; readonly deepMm: number };
  readonly edge: EdgeNeed;
  /** Where it ends at the contacts: before them, in their middle, or behind them. */
  readonly contact?: ContactRule;
  /** The way on which it is to come off, where somebody set it by hand; else it is looked for. */
  readonly way?: WayByHand;
  /** In so many planes the face is cut where grooves are joined; common practice, no source. */
  readonly facialPlanes?: 2 | 3;
  /** Lean of each wall towards the edge where it goes on along the axis, degrees. */
  readonly taperDeg?: number;
  /** Radius to which cut corners are rounded, mm. */
  readonly cornerMm?: number;
  readonly palatal: string;
  readonly finish: FinishLine;
  readonly source: Source;
}

/** Whether a design is only added: no thickness is cut for it. */
export const onlyAdded = ({ finish }: Design): boolean => finish.form === 'none';

/** All of a design that a preparation depends on, as one word. */
export const designKey = ({ id, needs, edge, finish, around, taperDeg, contact, way, forBite }: Design): string =>
  [
    id,
    needs.cervical,
    needs.middle,
    needs.incisal,
    edge.kind === 'thickness' ? `${edge.mm} ${edge.slopeDeg ?? 0}` : edge.kind,
    finish.belowGumMm,
    around?.proximalMm,
    around?.palatalMm,
    taperDeg,
    contact,
    way && `${way.downDeg} ${way.leftDeg}`,
    forBite && `${forBite.edge} ${forBite.palatal}`,
  ].join(' ');
