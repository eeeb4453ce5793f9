import { type Fdi } from '../teeth/notation.js';
import { type Design, type DesignId, designOf, type OwnThickness, withThickness } from './design.js';

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
  const design: Design = designOf(own?.design ?? choice.design);
  const thickness = choice.thickness?.find((t) => t.design === design.id);
  return { tooth, design: thickness ? withThickness(design, thickness) : design };
}
