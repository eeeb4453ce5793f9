import type { DirectKind, DirectSettings } from '../direct/words.js';
import type { Course, Impression, Maker, TissueWork } from '../schedule/course.js';
import type { Fdi } from '../teeth/notation.js';
import type { MouthNow, Piece } from './piece.js';
import type { Cord, OldWork, Provisional } from './words.js';

/** A tooth that is cut for a piece. */
export interface Cut {
  readonly tooth: Fdi;
  readonly kind: 'veneer' | 'crown';
  /** Its finish line lies below the gum. */
  readonly belowGum: boolean;
}

/** Everything from which the steps of a visit follow. */
export interface AtVisit {
  /** All planned teeth. */
  readonly teeth: readonly Fdi[];
  /** What becomes of them. */
  readonly works: Course['teeth'];
  readonly cuts: readonly Cut[];
  readonly pieces: readonly Piece[];
  /** Teeth that are there, planned or not. */
  readonly present: readonly Fdi[];
  readonly oldWorks: readonly { readonly tooth: Fdi; readonly work: OldWork }[];
  /** Teeth that get a post. */
  readonly posts: readonly Fdi[];
  readonly cord: Cord;
  readonly provisional: Provisional;
  readonly maker: Maker;
  readonly impression: Impression;
  readonly tissue: TissueWork;
  /** How composite is built up, and what it does on which tooth; as is usual where left out. */
  readonly composite?: {
    readonly settings: DirectSettings;
    readonly kinds: readonly { readonly tooth: Fdi; readonly kind: DirectKind }[];
  };
  readonly mouth: MouthNow;
}

/** How gum is kept away, where nobody chose: two cords for crowns and below the gum, one for veneers at it. Common practice, no source. */
export const usualCord = (cuts: readonly Cut[]): Cord =>
  cuts.length === 0 ? 'none' : cuts.some((c) => c.kind === 'crown' || c.belowGum) ? 'two' : 'one';

/** From so many crowns in one jaw on, the teeth that hold the bite are not all cut at once. House value. */
export const WHOLE_ARCH_FROM = 6;
