import { hypot } from '../geometry/vec.js';
import { isFrontKind, RATIO_CLINICAL, RATIO_UNWORN, ratioOff, WIDTH } from '../teeth/norms.js';
import { type Fdi, kindName, kindOf, opposite } from '../teeth/notation.js';
import { differs } from '../working/working.js';
import type { ToothMeasure } from './measures.js';

/** How near one existing tooth comes to the norms of its kind. */
export interface ReferenceCandidate {
  readonly tooth: Fdi;
  /** Root mean square of its deviations, each over the norm's own band: 0 is on the norm, 1 at the end of the band. */
  readonly off: number;
  /** Half-width of the 95 % interval of `off`. */
  readonly pm: number;
  /** Why, as sentences; teeth stand as `{11}`. */
  readonly reasons: readonly string[];
}

/**
 * What is taken off a tooth that is shorter than its fellow by more than the error: wear is the usual cause. In bands.
 * House preference.
 */
const SHORTER_THAN_FELLOW = 1;

/**
 * The measured teeth, the one nearest to the norms first: width to length between whole unworn crowns (Magne 2003) and
 * clinical ones of living people (Sterrett 1999), width (Chu 2007), and no shorter than the same tooth of the other
 * side. A proposal; the dentist picks.
 */
export function rankReference(measures: readonly ToothMeasure[]): ReferenceCandidate[] {
  const by = new Map(measures.map((m) => [m.tooth, m]));
  return measures
    .flatMap((m): ReferenceCandidate[] => {
      const kind = kindOf(m.tooth);
      if (!m.ratio || !m.width || !m.length || !isFrontKind(kind)) return [];
      const { off, norm: ratio } = ratioOff(kind, m.ratio.value);
      const width = WIDTH[kind];
      const byRatio = off / ratio.band;
      const byWidth = (m.width.value - width.value) / width.band;
      const fellow = by.get(opposite(m.tooth))?.length;
      const shorter =
        fellow && fellow.value > m.length.value && differs(fellow, m.length) ? fellow.value - m.length.value : 0;
      return [
        {
          tooth: m.tooth,
          off: hypot(byRatio, byWidth) / Math.SQRT2 + (shorter > 0 ? SHORTER_THAN_FELLOW : 0),
          pm: hypot(m.ratio.pm / ratio.band, m.width.pm / width.band) / Math.SQRT2,
          reasons: [
            `width to length ${m.ratio.value.toFixed(0)} %, right from ${RATIO_UNWORN[kind].value} (unworn, whole) to ${RATIO_CLINICAL[kind].value.toFixed(0)} (living, clinical)`,
            `${m.width.value.toFixed(1)} mm wide, norm of a ${kindName(m.tooth)} ${width.value.toFixed(1)} mm`,
            ...(shorter > 0 ? [`${shorter.toFixed(1)} mm shorter than {${opposite(m.tooth)}}`] : []),
          ],
        },
      ];
    })
    .sort((a, b) => a.off - b.off || a.tooth - b.tooth);
}
