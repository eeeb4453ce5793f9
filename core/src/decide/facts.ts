import { VISIBLE } from '../colour/lab.js';
import type { CeramicId } from '../material/ids.js';
import type { Fdi } from '../teeth/notation.js';
import type { OptionId } from './ids.js';

/** What is known of a tooth and its mouth. What nobody said is left out, and no rule speaks of it. */
export interface ToothFacts {
  readonly tooth: Fdi;
  readonly ageYears?: number | undefined;
  readonly grinding: boolean;
  readonly acid: boolean;
  /** Bleeds easily, or its gum is inflamed. */
  readonly bleeding: boolean;
  /** Whether it can be kept dry; left out while nobody has tried. */
  readonly dry?: boolean | undefined;
  /** Known as dark, or read as dark. */
  readonly dark: boolean;
  /** Crowned already, with a post, or decayed; `crowned` says which. */
  readonly broken: boolean;
  readonly crowned: boolean;
  /** The patient wants lighter teeth, may bleach later, wants gaps closed. */
  readonly lighter: boolean;
  /** Longer, wider, more even teeth or closed gaps are wished. */
  readonly formWished: boolean;
  readonly bleachLater: boolean;
  readonly gaps: boolean;
  /** A provisional that was splinted came off. */
  readonly cameOff: boolean;
  /** Least room that a crown of glass-ceramic would have behind, mm, closed or sliding. */
  readonly palatalRoomMm?: number | undefined;
  /** How far it is from the wanted shade now, ΔE00. */
  readonly nowDE?: number | undefined;
  /** What is chosen for the other central, where this is one; and for the teeth beside it. */
  readonly otherCentral?: OptionId | undefined;
  readonly neighbours: readonly OptionId[];
}

/** How far one ceramic of an option is from what is wanted, ΔE00. */
export interface CeramicDifference {
  readonly ceramic: CeramicId;
  readonly dE: number;
}

/**
 * The ceramic of an option by its predicted colour: the usual one where it does, the next where that shows, and where
 * none does the nearest.
 */
export const usualOf = (all: readonly CeramicDifference[]): CeramicDifference | undefined =>
  all.find((c) => c.dE <= VISIBLE.notTaken) ?? [...all].sort((a, b) => a.dE - b.dE)[0];

/** What an option would come to on this tooth. */
export interface OptionFigures {
  readonly removedMm3: number;
  /** Of the crown. */
  readonly removedShare: number;
  /** Of what is cut of the face, how much would still be enamel, 0 to 1; nothing where nothing is cut. */
  readonly enamelShare?: number | undefined;
  /** Predicted difference to the wanted shade of each ceramic that it is made in, ΔE00, where colours are known. */
  readonly ceramics?: readonly CeramicDifference[] | undefined;
  /** The same of the first of them that does, or of the nearest where none does. */
  readonly dE?: number | undefined;
  readonly ceramic?: CeramicId | undefined;
  /** The least its design has room for over the face, and what its material is made in, mm. */
  readonly leastMm?: { readonly planned: number; readonly material: number } | undefined;
  /** What the way out leaves standing, mm. */
  readonly hiddenMm?: number | undefined;
  /** What the bite lacks behind and at the edge, mm. */
  readonly lacksMm?: number | undefined;
  /** Height of its walls and its taper, both walls together, where it could hold by its form. */
  readonly wallMm?: number | undefined;
  readonly taperDeg?: number | undefined;
  /** Where its margin lies: how far over the gum at most and how far under it, mm; below 0 it lies the other way. */
  readonly margin?: { readonly overMm: number; readonly underMm: number } | undefined;
}

/** Without figures nothing is known of an option but what it is. */
export const NO_FIGURES: OptionFigures = { removedMm3: 0, removedShare: 0 };
