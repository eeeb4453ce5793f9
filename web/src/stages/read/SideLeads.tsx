import { leadSaid } from '@radiant/core';
import { useMemo } from 'react';
import { useSentence } from '../../data/case-context.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { clientOf, useContour } from '../../engine/use-contour.js';
import { useLower } from '../../engine/use-lower.js';

/** Which teeth lead when the lower jaw slides to either side, on the scans of both jaws, with the canines' wear. */
export function SideLeads() {
  const contour = useContour();
  const lower = useLower(contour, true);
  const sentence = useSentence();
  const input = useMemo(() => [] as const, []);
  const asked = useAsked(lower.state === 'ready' ? clientOf(contour) : undefined, undefined, 'sideLeads', input);
  const leads = shownOf(asked);
  const trouble = lower.state === 'failed' ? lower.sentence : asked.state === 'failed' ? asked.sentence : undefined;
  const waiting = contour.state === 'loading' || lower.state === 'loading' || asked.state === 'waiting';
  return (
    <section aria-label="In side movement" className="mt-6">
      <h2 className="subtitle mb-1">In side movement</h2>
      {leads ? (
        <>
          {leads.map((lead) => {
            const { weight, words } = leadSaid(lead);
            return (
              <p key={lead.to} className="finding mb-2 text-note" data-weight={weight} data-testid={`lead-${lead.to}`}>
                {sentence(words)}
              </p>
            );
          })}
          <p className="text-fine text-ink-2">
            On the scans, 1.5 mm to each side with the teeth in touch. A jaw moves as its joints let it: look in the
            mouth with foil.
          </p>
        </>
      ) : (
        <p className="text-note text-ink-2">
          {trouble
            ? sentence(trouble)
            : contour.state === 'no-scan' || lower.state === 'none'
              ? 'Scans of both jaws in their bite tell which teeth lead, and how the canines are worn.'
              : waiting
                ? 'looking at the scans…'
                : 'The scans do not tell it.'}
        </p>
      )}
    </section>
  );
}
