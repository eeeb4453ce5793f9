import { type Contact, contactLeftOf, setContacts } from '../../contour/contacts.js';
import type { ContourPlan } from '../../contour/plan.js';
import { type RoomMade, roomAmong } from '../../contour/proposed.js';
import { type Fdi, jawOf } from '../../teeth/notation.js';
import type { CaseEngine } from '../case-engine.js';

/** The contact on the left of one tooth of the row; nothing where its jaw is not there. */
export const contactOf = (engine: CaseEngine, right: Fdi): Contact | undefined =>
  engine.isMeasured(jawOf(right)) ? contactLeftOf(engine.archOf(right), engine.crowns(), right) : undefined;

/** The plan with the contacts of both rows set to a tightness, mm, and those that could not be. */
export function contactsSet(engine: CaseEngine, tightMm: number): { plan: ContourPlan; left: readonly [Fdi, Fdi][] } {
  const upper = setContacts(engine.arch('upper'), engine.contour, tightMm);
  if (engine.teeth('lower').length === 0) return upper;
  const both = setContacts(engine.arch('lower'), upper.plan, tightMm);
  return { plan: both.plan, left: [...upper.left, ...both.left] };
}

/** The upper plan without crowns that pass into their neighbours: slid outward, narrowed where a tooth stays. */
export const roomMade = (engine: CaseEngine): RoomMade => roomAmong(engine.arch('upper'), engine.contour);
