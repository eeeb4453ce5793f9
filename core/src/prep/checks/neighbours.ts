import type { PrepFinding } from '../finding.js';
import { PREP_LIMITS } from '../limits.js';
import { nicks } from '../nicks.js';
import { crownOnly } from '../seen.js';
import { type Check, mm } from './checked.js';

/** The teeth beside that were not to be cut: as they were, or nicked. */
export const neighboursCheck: Check = (c) =>
  c.beside
    .filter((n) => !n.cut)
    .map((n): PrepFinding => {
      const { nick } = PREP_LIMITS;
      const over = nick.value + c.pmMm;
      const found = nicks(n.before, n.after, over, crownOnly(n.before.mesh));
      const worst = found.reduce<(typeof found)[number] | undefined>(
        (a, b) => (a && a.deepMm >= b.deepMm ? a : b),
        undefined,
      );
      const base = {
        check: 'neighbours' as const,
        tooth: c.tooth,
        place: `{${n.tooth}}`,
        pm: c.pmMm,
        unit: 'mm' as const,
        limit: nick.value,
        source: nick.source,
      };
      return worst
        ? {
            ...base,
            state: 'over',
            value: worst.deepMm,
            says: `{${n.tooth}} is nicked: ${mm(worst.deepMm)} mm deep over ${worst.areaMm2.toFixed(1)} mm²`,
            todo: 'polish it, tell the patient, and write it down',
            at: worst.at,
          }
        : {
            ...base,
            state: 'right',
            value: 0,
            says: `{${n.tooth}} is as it was${n.after.made ? ', as far as the scan shows its sides' : ''}`,
          };
    });
