import type { Fdi } from '../teeth/notation.js';

/** So far to the side the lead is looked at, mm. House value: the canine's slope still carries there. */
export const SIDE_STEP_MM = 1.5;
/** A canine worn by at least so much is said with it, mm: what the form of a whole one tells is not finer. House value. */
export const CANINE_WEAR_MM = 0.8;

/** What touches when the lower jaw slides to one side on the teeth as they are. */
export interface SideLead {
  readonly to: 'right' | 'left';
  /** Upper teeth that touch on the side to which the jaw goes. */
  readonly leading: readonly Fdi[];
  /** And on the other side, where none should. */
  readonly balancing: readonly Fdi[];
  /** Space over the nearest of the teeth that do not touch, mm. */
  readonly othersMm: number | undefined;
  readonly canine: Fdi;
  /** By how much the canine's tip is worn, as the library form that fits best says; undefined where it is missing. */
  readonly canineWearMm: number | undefined;
}

/** A lead in words. Teeth stand as `{13}`. */
export interface LeadSaid {
  readonly weight: 'good' | 'watch';
  readonly words: string;
}

const list = (teeth: readonly Fdi[]): string => teeth.map((t) => `{${t}}`).join(', ');

/**
 * What a side movement means for what is planned on front teeth: whether the canine leads, whether teeth on the other
 * side touch, and whether the canine is worn. Many healthy mouths are led by several teeth: that is told, not judged.
 * Common practice, no source.
 */
export function leadSaid(lead: SideLead): LeadSaid {
  const { to, leading, balancing, canine, canineWearMm, othersMm } = lead;
  const worn =
    canineWearMm !== undefined && canineWearMm >= CANINE_WEAR_MM
      ? ` {${canine}} is worn by about ${canineWearMm.toFixed(1)} mm.`
      : '';
  const other =
    balancing.length > 0
      ? ` On the other side ${list(balancing)} ${balancing.length > 1 ? 'touch' : 'touches'}: what is planned there would be rubbed.`
      : '';
  if (leading.length === 0)
    return { weight: 'watch', words: `To the ${to}: no tooth of that side touches.${worn}${other}` };
  const alone = leading.length === 1 && leading[0] === canine;
  const clear = alone && othersMm !== undefined ? `, all others are ${othersMm.toFixed(1)} mm clear` : '';
  const leads = `To the ${to}: ${list(leading)} ${leading.length > 1 ? 'lead together' : 'leads'}${clear}.`;
  const lost = leading.includes(canine)
    ? ''
    : ` The canine does not touch${worn ? '' : '; ask whether its tip was longer once'}.`;
  return { weight: lost || worn || other ? 'watch' : 'good', words: `${leads}${lost}${worn}${other}` };
}
