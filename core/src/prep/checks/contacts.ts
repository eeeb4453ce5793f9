import { onlyAdded } from '../../restoration/design.js';
import type { PrepFinding } from '../finding.js';
import { PREP_LIMITS } from '../limits.js';
import { isUnseenAt, meetingOf } from '../meeting.js';
import { type Check, mm } from './checked.js';

/** Contacts: opened where the design asks for room, left where it leaves them. */
export const contactsCheck: Check = (c) => {
  if (onlyAdded(c.design)) return [];
  return c.beside.map((n): PrepFinding => {
    const now = meetingOf(c.scan, n.after);
    const base = {
      check: 'contacts' as const,
      tooth: c.tooth,
      place: `to {${n.tooth}}`,
      value: now.gapMm,
      pm: c.pmMm,
      unit: 'mm' as const,
      at: now.at,
    };
    if (c.design.covers.includes('proximal') || c.design.contact === 'broken') {
      const { value: limit, source } = c.design.around ? PREP_LIMITS.contactRoom : PREP_LIMITS.contactOpened;
      return now.gapMm < limit - c.pmMm
        ? {
            ...base,
            state: 'cut',
            limit,
            source,
            says: now.bridged
              ? `{${c.tooth}} to {${n.tooth}}: they still meet in the scan; ${mm(limit)} mm is wanted to saw and to seat`
              : `{${c.tooth}} to {${n.tooth}}: ${mm(Math.max(0, now.gapMm))} mm apart, ${mm(limit)} is wanted to saw and to seat`,
            todo: `open it by ${mm(limit - now.gapMm)} mm, with a metal strip at the neighbour`,
            cutMm: limit - now.gapMm,
          }
        : { ...base, state: 'right', limit, source, says: `{${c.tooth}} to {${n.tooth}}: ${mm(now.gapMm)} mm apart` };
    }
    const was = meetingOf(c.before, n.before);
    if (!now.bridged && isUnseenAt(c.scan, was.at) && isUnseenAt(n.after, was.at))
      return {
        ...base,
        state: 'unknown',
        limit: 0,
        source: PREP_LIMITS.contactOpened.source,
        says: `{${c.tooth}} to {${n.tooth}}: the scan does not show the place where they met`,
        todo: 'try it with floss',
      };
    const opened = now.gapMm - was.gapMm;
    const { value: limit, source } =
      c.design.contact === 'left' ? PREP_LIMITS.contactOpened : PREP_LIMITS.contactHalfWay;
    return opened > limit + c.pmMm
      ? {
          ...base,
          state: 'over',
          value: opened,
          limit,
          source,
          says: `{${c.tooth}} to {${n.tooth}}: the contact was to stay, and is ${mm(opened)} mm more open`,
          todo: 'write it on the prescription: the restoration has to close it',
        }
      : {
          ...base,
          state: 'right',
          value: opened,
          limit,
          source,
          says: `{${c.tooth}} to {${n.tooth}}: as it was${c.design.contact === 'half way' ? '; whether a strip went through, so that dies can be sawn, no scan shows' : ''}`,
        };
  });
};
