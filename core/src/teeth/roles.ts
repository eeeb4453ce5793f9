import { isFrontKind } from './norms.js';
import { type Fdi, kindOf, LOWER_TEN, type ToothKind, UPPER_TEN } from './notation.js';

/** For which kind of tooth each one stands: its own, or that of a missing one in whose place it is. */
export type Roles = ReadonlyMap<Fdi, ToothKind>;

const PLACES: readonly ToothKind[] = ['central', 'lateral', 'canine', 'premolar1', 'premolar2'];

/** A gap narrower than this where a tooth is missing counts as closed, mm. House value. */
export const CLOSED_GAP_MM = 1.5;

/**
 * The roles of the front teeth and premolars of both jaws, counted from the midline outward: where a tooth is missing
 * and its gap has closed, the next one stands in its place; where the gap is kept, its place is kept for what may come
 * into it.
 * @param missing teeth that the record calls missing
 * @param isClosed whether the gap of a missing tooth has closed
 */
export function rolesOf(missing: ReadonlySet<Fdi>, isClosed: (missing: Fdi) => boolean): Roles {
  const roles = new Map<Fdi, ToothKind>();
  for (const quadrant of [1, 2, 3, 4]) {
    let place = 0;
    for (let position = 1; position <= PLACES.length; position++) {
      const tooth = 10 * quadrant + position;
      if (missing.has(tooth)) {
        if (!isClosed(tooth)) place++;
        continue;
      }
      roles.set(tooth, PLACES[place] as ToothKind);
      place++;
    }
  }
  return roles;
}

/** Every tooth stands for its own kind. */
export const OWN_ROLES: Roles = new Map([...UPPER_TEN, ...LOWER_TEN].map((t) => [t, kindOf(t)]));

/** The kind for which a tooth stands. */
export const roleOf = (roles: Roles, tooth: Fdi): ToothKind => roles.get(tooth) ?? kindOf(tooth);

/**
 * The upper teeth that stand in front, patient's right first: those that stand for an incisor or a canine. With all
 * teeth there and no gap closed they are the six from canine to canine.
 */
export const frontRow = (roles: Roles = OWN_ROLES): readonly Fdi[] =>
  UPPER_TEN.filter((t) => roles.has(t) && isFrontKind(roleOf(roles, t)));
