import type { Fdi } from '../teeth/notation.js';
import type { Design } from './design.js';
import { type DesignId, designOn } from './designs.js';
import { type OwnThickness, withThickness } from './own-thickness.js';

/** What a tooth is restored with. */
export interface Restoration {
  readonly tooth: Fdi;
  readonly design: Design;
}

/** How a case says it: one design for all planned teeth, and another for some of them. */
export interface DesignChoice {
  readonly design: DesignId;
  readonly own?: readonly { readonly tooth: Fdi; readonly design: DesignId }[];
  /** Thicknesses of somebody's own, design by design. */
  readonly thickness?: readonly OwnThickness[];
}

/** The restoration of a planned tooth. */
export function restorationOf(tooth: Fdi, choice: DesignChoice): Restoration {
  const own = choice.own?.find((o) => o.tooth === tooth);
  // Whatever of a family is chosen, a premolar or a lower front tooth takes the one that is made for it.
  const design: Design = designOn(own?.design ?? choice.design, tooth);
  const thickness = choice.thickness?.find((t) => t.design === design.id);
  return { tooth, design: thickness ? withThickness(design, thickness) : design };
}
