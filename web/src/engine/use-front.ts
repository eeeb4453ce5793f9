import { type Front, frontOf, proposalChoice } from '@radiant/contract';
import { type Proposal, propose, type ScannedTooth } from '@radiant/core';
import { useMemo } from 'react';
import { useSection } from '../data/case-context.js';
import { useContour } from './use-contour.js';

const NO_SCAN: readonly ScannedTooth[] = [];

/** The front that targets are set for; while the scan is on its way there is no answer yet. */
export type FrontState =
  | { readonly state: 'loading' }
  /** `apart`: why the scan could not be taken, so that the photograph speaks alone. */
  | {
      readonly state: 'ready';
      readonly front: Front;
      readonly proposal: Proposal | undefined;
      readonly apart?: string;
    };

/** What photograph and scan tell of the front together, and the targets by the chosen school. */
export function useFront(): FrontState {
  const read = useSection('read').data;
  const meet = useSection('meet').data;
  const choice = useSection('propose').data;
  const contour = useContour();
  const scan = contour.state === 'ready' ? contour.arch.existing : NO_SCAN;
  const loading = contour.state === 'loading';
  const front = useMemo(() => (loading ? undefined : frontOf(read, meet, scan)), [loading, read, meet, scan]);
  const proposal = useMemo(
    () => front && propose(front.measures, proposalChoice(choice), front.gaps, front.roles),
    [front, choice],
  );
  const apart = contour.state === 'failed' ? contour.sentence : undefined;
  return useMemo(
    () => (front ? { state: 'ready', front, proposal, ...(apart && { apart }) } : { state: 'loading' }),
    [front, proposal, apart],
  );
}

/** The targets by the chosen school, where there are some. */
export function useProposal(): Proposal | undefined {
  const front = useFront();
  return front.state === 'ready' ? front.proposal : undefined;
}
