import type { CaseEngine } from '../case-engine.js';
import { biteAt, closedBite, sideLeads } from './bite.js';
import { contactOf, contactsSet, roomMade } from './contacts.js';
import { cut, frameOf } from './cut.js';
import { difference, proudTeeth } from './difference.js';
import { direct, directLayers } from './direct.js';
import { directColours } from './direct-colours.js';
import { directGaps } from './direct-gaps.js';
import { directLead } from './direct-lead.js';
import { directView } from './direct-view.js';
import { asItStands, existing, existingPlan } from './existing.js';
import { faces } from './faces.js';
import { alignedFirst, proposedCrowns } from './first-contour.js';
import { edgeGuide, facialIndex, leafGuide, mockUpGuide, palatalGuide, sagittalSlices } from './guide.js';
import { colourOverStump } from './match.js';
import { optionsTold } from './options.js';
import { inPhoto, onPhoto } from './photograph.js';
import { commonWay, preparedView, prepStanding, prepTooth, prepVerdict, shellTried } from './preparation.js';
import { cutList, reductions, roomInBite, sectionOf, target } from './reduction.js';
import { smileColours } from './smile-colours.js';
import { strokeFits, strokeMirrored } from './stroke.js';
import { whatIf } from './what-if.js';

/** Everything that can be asked of a case, by name. */
export const QUERIES = {
  alignedFirst,
  asItStands,
  biteAt,
  closedBite,
  colourOverStump,
  commonWay,
  contactOf,
  contactsSet,
  cut,
  cutList,
  difference,
  direct,
  directColours,
  directGaps,
  directLayers,
  directLead,
  directView,
  edgeGuide,
  existing,
  existingPlan,
  faces,
  facialIndex,
  frameOf,
  inPhoto,
  leafGuide,
  mockUpGuide,
  onPhoto,
  optionsTold,
  palatalGuide,
  preparedView,
  prepStanding,
  prepTooth,
  prepVerdict,
  proposedCrowns,
  proudTeeth,
  reductions,
  roomInBite,
  roomMade,
  sagittalSlices,
  sectionOf,
  shellTried,
  sideLeads,
  smileColours,
  strokeFits,
  strokeMirrored,
  target,
  whatIf,
} as const;

export type QueryName = keyof typeof QUERIES;
type Rest<A> = A extends readonly [unknown, ...infer R] ? R : never;
/** What a question is asked with, and what is answered. */
export type QueryInput<N extends QueryName> = Rest<Parameters<(typeof QUERIES)[N]>>;
export type QueryOutput<N extends QueryName> = ReturnType<(typeof QUERIES)[N]>;

/** Asks a case by the name of the question. @throws Refusal of the question */
export function ask<N extends QueryName>(engine: CaseEngine, name: N, ...input: QueryInput<N>): QueryOutput<N> {
  const answer = QUERIES[name] as unknown as (engine: CaseEngine, ...input: QueryInput<N>) => QueryOutput<N>;
  return answer(engine, ...input);
}
