import type { Groove, GrooveSite } from '../bur.js';
import type { Removal } from '../removal.js';

/** A way of bringing the depth into the tooth. One file each; a new one is its file and a line in `index.ts`. */
export interface Strategy {
  readonly id: string;
  /** What is chosen on the screen and named on paper: `grooves ${name}`. */
  readonly name: string;
  /** What it means for whoever cuts, in a sentence. */
  readonly meaning: string;
  /** The groove of a zone. */
  readonly groove: (r: Removal, where: GrooveSite) => Groove;
}

/** No groove, and why. */
export const noGroove = (why: string): Groove => ({ kind: 'none', depthMm: 0, why });
