import type { Fdi } from '../teeth/notation.js';

/** What becomes of a tooth, as far as visits go. */
export type CourseWork = 'veneer' | 'no-prep veneer' | 'crown' | 'composite';

/** How gum is brought to its new line before teeth are finished. */
export const TISSUE_WORK = { none: 'none', gum: 'gum contoured', bone: 'gum and bone' } as const;
export type TissueWork = keyof typeof TISSUE_WORK;

/** Who makes what is bonded or cemented. */
export const MAKERS = { laboratory: 'the laboratory', mill: 'the house’s own mill' } as const;
export type Maker = keyof typeof MAKERS;

/** When the impression or scan is made. */
export const IMPRESSIONS = { same: 'the same day', healed: 'when the gum has healed' } as const;
export type Impression = keyof typeof IMPRESSIONS;

/** Everything from which the visits of a case follow. */
export interface Course {
  readonly teeth: readonly { readonly tooth: Fdi; readonly work: CourseWork }[];
  /** Photographs and scans are there. */
  readonly hasRecords: boolean;
  /** A mock-up is worn, so many days at least; nothing where the contour is approved, or none is worn. */
  readonly mockUpDays?: number;
  readonly tissue: TissueWork;
  readonly impression: Impression;
  /** Gum of these teeth bleeds or is inflamed: nothing is taken of it the same day. */
  readonly inflamed?: boolean;
  readonly maker: Maker;
  /** Working days of the laboratory, from the scan that is sent to the work that is back. */
  readonly laboratoryDays: number;
  /** A visit for a try-in of its own, after which the laboratory finishes. */
  readonly tryIn: boolean;
  /** Teeth are bleached before their shade is taken. */
  readonly bleaching: boolean;
  /** A night guard is made at the end. */
  readonly guard: boolean;
  /** The house's own minutes, visit by visit, where it has some. */
  readonly times?: readonly OwnMinutes[];
}

/** How long a visit takes in a house: so many minutes, and so many more for each tooth. */
export interface OwnMinutes {
  readonly visit: string;
  readonly minutes: number;
  readonly perTooth: number;
}

/** Why an impression waits: a margin under the gum, or gum that was worked on or bleeds. Common practice, no source. */
export const impressionOf = (of: {
  readonly belowGum: boolean;
  readonly inflamed: boolean;
  readonly tissue: TissueWork;
}): Impression => (of.belowGum || of.inflamed || of.tissue !== 'none' ? 'healed' : 'same');
