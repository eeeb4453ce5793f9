import { contourPlan, crownTargets, planInputs, plannedOn, setTargets } from '@radiant/contract';
import type { Fdi, ToothPlan } from '@radiant/core';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { useCase, useSection } from '../../data/case-context.js';
import { type ContourState, clientOf } from '../../engine/use-contour.js';
import { useProposal } from '../../engine/use-front.js';
import { faultOf } from '../../engine/work.js';
import { useMayWrite } from '../../shell/ReadOnlyNote.js';

export interface SetToProposal {
  readonly can: boolean;
  readonly act: () => Promise<void>;
  /** Why it could not be done. */
  readonly refusal: string | undefined;
}

/**
 * Sets the crowns of the plan to the proposal; comes by itself from propose's button and on a case without a contour.
 */
export function useSetToProposal(contour: ContourState): SetToProposal {
  const shape = useSection('shape');
  const propose = useSection('propose');
  const proposal = useProposal();
  const mayWrite = useMayWrite('shape');
  const { detail } = useCase();
  const location = useLocation();
  const navigate = useNavigate();
  const asked = (location.state as { setToProposal?: boolean } | null)?.setToProposal === true;
  const can = mayWrite && contour.state === 'ready' && !!proposal;

  const [refusal, setRefusal] = useState<string>();
  const set = useCallback(async () => {
    const client = clientOf(contour);
    if (!client || !proposal) return;
    const gumMm = propose.data.gumMm ?? 0;
    const scanId = plannedOn(detail, 'upper')?.id;
    // Teeth beside the row stay as they are, but for first premolars that share the space.
    const beside = contourPlan(shape.data.teeth.filter((t) => !proposal.targets.some((o) => o.tooth === t.tooth)));
    let { plan } = await client.ask(beside, 'proposedCrowns', crownTargets(proposal, gumMm));
    if (proposal.premolars) {
      const sharing: Partial<Record<Fdi, ToothPlan>> = {};
      for (const { tooth, widthMm } of proposal.premolars)
        sharing[tooth] = {
          ...(beside[tooth] ?? (await client.ask(plan, 'asItStands', tooth))),
          widthMm: Math.round(widthMm * 100) / 100,
        };
      plan = (await client.ask({ ...plan, ...sharing }, 'roomMade')).plan;
    }
    shape.set({
      ...shape.data,
      ...(scanId && { scanId }),
      proposalVersion: propose.version,
      setTo: setTargets(proposal, gumMm),
      teeth: planInputs(plan),
    });
  }, [contour, proposal, shape, propose.version, propose.data.gumMm, detail]);

  const act = useCallback(
    () =>
      set().then(
        () => setRefusal(undefined),
        (error: unknown) => setRefusal(faultOf(error)),
      ),
    [set],
  );

  const done = useRef(false);
  useEffect(() => {
    if (!asked || !can || done.current) return;
    // The proposal must have its version before the contour can name it.
    if (propose.status === 'waiting' || propose.status === 'saving') return;
    done.current = true;
    navigate('.', { replace: true, state: null });
    void act();
  }, [asked, can, act, navigate, propose.status]);
  return { can, act, refusal };
}
