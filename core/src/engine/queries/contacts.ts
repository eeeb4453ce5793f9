import { type Contact, contactLeftOf, madeRoom, type NarrowedSide, setContacts } from '../../contour/contacts.js';
import type { ContourPlan } from '../../contour/plan.js';
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

/** The upper plan with its sides narrowed where crowns press into neighbours that stay. */
export const roomMade = (
  engine: CaseEngine,
  tightMm: number,
): { plan: ContourPlan; narrowed: readonly NarrowedSide[] } => madeRoom(engine.arch('upper'), engine.contour, tightMm);

/** The upper plan with crowns slid apart where one presses into its neighbour by more; gaps stay as they are. */
export const pressedApart = (engine: CaseEngine, tightMm: number): ContourPlan =>
  setContacts(engine.arch('upper'), engine.contour, tightMm, 'pressed').plan;
