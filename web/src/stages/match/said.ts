import { type Candidate, DARK_L, differenceWords, type ThirdMatch, VISIBLE } from '@radiant/core';
import { number } from '../../ui/format.js';

/** A sentence of this stage, and how much it matters. */
export interface Said {
  readonly text: string;
  readonly weight: 'good' | 'watch' | 'stop';
}

/** What the colour of a zone comes to under the chosen ceramic, most important first. */
export function saidOf(match: ThirdMatch, own: Candidate): readonly Said[] {
  const { planned, from, to } = own;
  const band = `ΔE00 ${number(planned.dE, 1)} (${number(from, 1)} to ${number(to, 1)})`;
  const fits = planned.dE <= VISIBLE.notTaken;
  return [
    {
      text: `${capital(own.name)}, ${number(match.ceramicMm, 2)} mm as planned: ${band} to the wanted shade; ${differenceWords(planned.dE)}.`,
      weight: planned.dE <= VISIBLE.seen ? 'good' : fits ? 'watch' : 'stop',
    },
    ...hiding(match, own),
    ...(fits ? [] : deeperOrDenser(match)),
    ...(Math.abs(own.warmDE - planned.dE) > VISIBLE.seen
      ? [
          {
            text: `Under a warm lamp the difference is ${number(own.warmDE, 1)}: they match in one light and not in the other (metamerism).`,
            weight: 'watch' as const,
          },
        ]
      : []),
  ];
}

function hiding({ ceramicMm, stumpRead }: ThirdMatch, { hidesFromMm }: Candidate): Said[] {
  const guess = stumpRead ? '' : ' The stump is worked out from the uncut tooth: read it once it is cut.';
  if (hidesFromMm === undefined)
    return [{ text: `The stump shows through this ceramic at any thickness up to 2 mm.${guess}`, weight: 'watch' }];
  const hides = ceramicMm >= hidesFromMm;
  return [
    {
      text: hides
        ? `From ${number(hidesFromMm, 2)} mm on this ceramic hides the stump.${guess}`
        : `The stump shows: this ceramic hides it from ${number(hidesFromMm, 2)} mm on, ${number(hidesFromMm - ceramicMm, 2)} mm more than is planned.${guess}`,
      weight: hides ? 'good' : 'watch',
    },
  ];
}

/** What cutting deeper would bring, and which ceramic does as it is planned. */
function deeperOrDenser(match: ThirdMatch): Said[] {
  const { deeper, cutMm, enamelMm } = match;
  const denser = match.candidates.filter((c) => c.planned.dE <= VISIBLE.notTaken);
  const first = denser[0];
  const instead = first
    ? `${capital(first.name)} would do as it is planned (ΔE00 ${number(first.planned.dE, 1)}).`
    : 'No ceramic does at this thickness: an opaque core, bleaching first, or another wanted shade.';
  if (!deeper) return [{ text: instead, weight: 'watch' }];
  const { curve, turnsAt } = deeper.middle;
  const reaches = curve.find((p) => p.cutMm >= cutMm && p.dE <= VISIBLE.notTaken);
  const dark = match.stump.L < DARK_L;
  const tenth = dropBy(curve, cutMm);
  const said: string = turnsAt
    ? `Cutting deeper than ${number(turnsAt.cutMm, 2)} mm makes it worse, for the enamel that goes had lightened the stump: past here, an opaque crown.`
    : reaches
      ? `By cutting alone it takes ${number(reaches.cutMm, 2)} mm instead of ${number(cutMm, 2)}${
          reaches.cutMm > enamelMm ? `, through all the enamel${dark ? ': past here, an opaque crown' : ''}` : ''
        }; a tenth more brings ${number(tenth, 1)}.`
      : `Cutting deeper never brings it near enough; a tenth more brings ${number(tenth, 1)}: an opaque crown.`;
  return [{ text: `${said} ${instead}`, weight: 'stop' }];
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** By how much a tenth of a millimetre more of cutting brings the colour nearer, ΔE00. */
function dropBy(curve: readonly { readonly cutMm: number; readonly dE: number }[], cutMm: number): number {
  const at = (mm: number) => curve.reduce((a, b) => (Math.abs(b.cutMm - mm) < Math.abs(a.cutMm - mm) ? b : a)).dE;
  return at(cutMm) - at(cutMm + 0.1);
}
