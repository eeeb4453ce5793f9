import type { FrontKind } from '../teeth/norms.js';
import type { Fdi } from '../teeth/notation.js';
import type { Figure } from '../working/working.js';
import type { SchoolSetting } from './schools.js';

/** How targets are asked for. */
export interface ProposalChoice extends SchoolSetting {
  readonly referenceTooth: Fdi;
  /** Central edges below (+) where the lower of them stands today, mm. */
  readonly edgeMm: number;
  /** Gum line of the planned teeth moved up (+), mm: length comes there too. */
  readonly gumMm?: number;
  /** Gaps are closed, or kept as they are. */
  readonly gaps?: 'close' | 'keep';
  /** Left and right are kept alike unless told. */
  readonly alike?: boolean;
  /**
   * First premolars that take part in sharing the space, by their widths, mm: the room then goes from premolar to
   * premolar.
   */
  readonly premolars?: { readonly right: number; readonly left: number };
  /**
   * The teeth that are changed; all of the front where nothing is said. The others stay as they are and keep their
   * room.
   */
  readonly planned?: readonly Fdi[];
  /** Widths set by hand, mm. */
  readonly locked?: Readonly<Partial<Record<Fdi, number>>>;
}

/** What one tooth is to measure. */
export interface ToothTarget {
  readonly tooth: Fdi;
  /** For which kind of front tooth it stands. */
  readonly role: FrontKind;
  /** It is not in the plan: its target is what it is. */
  readonly stays: boolean;
  readonly length: Figure;
  readonly width: Figure;
  /** Width over length, %. */
  readonly ratio: Figure;
  /** How far the gum would have to move up for this length and edge, mm; only where a reference tooth sets both. */
  readonly gumMm?: Figure;
}

/** Targets for a row, and what is to be known of them. */
export interface Proposal {
  readonly targets: readonly ToothTarget[];
  /** Room from canine to canine along the arch, or from premolar to premolar where they take part, mm. */
  readonly space: Figure;
  /** Widths of the first premolars where they take part, mm. */
  readonly premolars?: readonly { readonly tooth: Fdi; readonly isMm: number; readonly widthMm: number }[];
  /** The recurring ratio that was taken, where that school was asked. */
  readonly recurring?: number;
  /** What could not be kept, and by how much. Sentences; `{11}` stands for a tooth number. */
  readonly notes: readonly string[];
}

/** How far a width may be from its wish when the space is shared out, as a share of it. House preference; no source. */
export const WIDTH_BAND = 0.15;

/** Sum of numbers. */
export const sum = (v: readonly number[]) => v.reduce((a, b) => a + b, 0);
