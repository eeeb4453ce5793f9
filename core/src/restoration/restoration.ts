import { type Fdi } from '../teeth/notation.js';
import { type Design, type DesignId, designOf } from './design.js';

/** What a tooth is restored with. */
export interface Restoration {
  readonly tooth: Fdi;
  readonly design: Design;
}

/** How a case says it: one design for all planned teeth, and another for some of them. */
export interface DesignChoice {
  readonly design: DesignId;
  readonly own?: readonly { readonly tooth: Fdi; readonly design: DesignId }[];
}

/** The restoration of a planned tooth. */
export function restorationOf(tooth: Fdi, choice: DesignChoice): Restoration {
  const own = choice.own?.find((o) => o.tooth === tooth);
  return { tooth, design: designOf(own?.design ?? choice.design) };
}
