import { contourPlan, crownTargets } from '@radiant/contract';
import { WORTH_MOVING_MM3 } from '@radiant/core';
import { useMemo } from 'react';
import { useSection, useToothLabel } from '../../data/case-context.js';
import { shownOf, useAsked } from '../../engine/use-asked.js';
import { clientOf, useContour } from '../../engine/use-contour.js';
import { useProposal } from '../../engine/use-front.js';
import { number } from '../../ui/format.js';

const NOTHING = [] as const;
const ENAMEL = { kept: 'keeps enamel', doubtful: 'may reach dentin', gone: 'goes through the enamel' } as const;

/**
 * What moving the teeth first would save, in volume and in enamel: worked out from the contour in shape, or, before
 * there is one, from a first contour for the targets; said only when it is worth a thought.
 */
export function AlignFirst() {
  const { teeth } = useSection('shape').data;
  const plan = useMemo(() => contourPlan(teeth), [teeth]);
  const contour = useContour();
  const name = useToothLabel();
  const proposal = useProposal();
  const { gumMm = 0 } = useSection('propose').data;
  const args = useMemo(() => {
    if (teeth.length > 0) return NOTHING;
    const targets = proposal ? crownTargets(proposal, gumMm) : [];
    return targets.length > 0 ? ([targets] as const) : undefined;
  }, [teeth.length, proposal, gumMm]);
  const asked = useAsked(clientOf(contour), plan, 'alignedFirst', args);
  const found = shownOf(asked);
  if (asked.state === 'failed')
    return (
      <p className="mt-3 text-note text-ink-2">
        What moving the teeth first would save: {asked.sentence}{' '}
        <button type="button" className="how" onClick={asked.retry}>
          try again
        </button>
      </p>
    );
  if (!found) return null;
  const now = found.reduce((n, t) => n + t.removedMm3, 0);
  const saved = found.reduce((n, t) => n + t.removedMm3 - t.removedAlignedMm3, 0);
  const most = [...found].sort((a, b) => b.removedMm3 - b.removedAlignedMm3 - (a.removedMm3 - a.removedAlignedMm3))[0];
  if (saved < WORTH_MOVING_MM3 || !most)
    return (
      <p className="mt-3 text-note text-ink-2">
        {teeth.length > 0 ? 'The contour in shape' : 'A first contour for these targets'} takes {number(now, 0)} mm³ of
        tooth in all; moving the teeth first would save {number(Math.max(0, saved), 0)} mm³.
      </p>
    );
  return (
    <div className="finding mt-3 text-note" data-weight="watch">
      <b className="font-[650]">
        Moving the teeth first would save {number(saved, 0)} of {number(now, 0)} mm³ of tooth
      </b>
      <span className="block text-ink-2">
        Most on {name(most.tooth)}: {number(most.removedMm3, 1)} → {number(most.removedAlignedMm3, 1)} mm³. It stands{' '}
        {number(most.proudMm, 1)} mm proud, and bringing it into line by cutting {ENAMEL[most.enamel]}; moved first{' '}
        {number(most.alignedProudMm, 1)} mm, which {ENAMEL[most.alignedEnamel]}.{' '}
        {teeth.length === 0 && 'Worked out from a first contour for these targets. '}Told from {WORTH_MOVING_MM3} mm³
        on, a house preference; what the movement asks of time, bone and gum is for the clinician to weigh.
      </span>
    </div>
  );
}
