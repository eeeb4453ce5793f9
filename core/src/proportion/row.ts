import type { ToothMeasure } from '../smile/measures.js';
import { type FrontKind, isFrontKind } from '../teeth/norms.js';
import { type Fdi, UPPER_TEN } from '../teeth/notation.js';
import { type Roles, roleOf } from '../teeth/roles.js';

type Measured = ToothMeasure & Required<Pick<ToothMeasure, 'width' | 'length' | 'edgeLevel' | 'zenithLevel'>>;

const isMeasured = (m: ToothMeasure): m is Measured => !!(m.width && m.length && m.edgeLevel && m.zenithLevel);

/** A tooth of the front and the kind for which it stands. */
export interface InRow {
  readonly tooth: Fdi;
  readonly role: FrontKind;
  readonly is: Measured;
  readonly stays: boolean;
}

/** The teeth that stand for the six of the front and are measured, patient's right first. */
export function rowOf(
  measures: readonly ToothMeasure[],
  choice: { readonly planned?: readonly Fdi[] | undefined },
  roles: Roles,
): InRow[] {
  const by = new Map<Fdi, Measured>();
  for (const m of measures) if (isMeasured(m)) by.set(m.tooth, m);
  return UPPER_TEN.flatMap((tooth): InRow[] => {
    const [is, role] = [by.get(tooth), roleOf(roles, tooth)];
    return is && isFrontKind(role)
      ? [{ tooth, role, is, stays: !!choice.planned && !choice.planned.includes(tooth) }]
      : [];
  });
}
