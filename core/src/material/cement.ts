import type { Lab } from '../colour/lab.js';
import type { CeramicClass } from './ceramics.js';
import type { CementId } from './ids.js';

/** A cement as a layer: how much it scatters, and in which shade. Illustrative, like the ceramic classes. */
export interface Cement extends CeramicClass {
  readonly shade: Lab;
}

/** A film of cement, mm: common practice, no source; thin enough to seat, thick enough to be seen where it is opaque. */
export const CEMENT_MM = 0.05;

/** Cements with their try-in pastes, from clear to covering. All values illustrative. */
export const CEMENTS = [
  { id: 'clear', name: 'clear', scatter: 0.4, falls: 0.5, shade: { L: 80, a: -1, b: 8 } },
  { id: 'light', name: 'light', scatter: 5, falls: 0.4, shade: { L: 82, a: -1.5, b: 10 } },
  { id: 'warm', name: 'warm', scatter: 5, falls: 0.4, shade: { L: 74, a: 2, b: 22 } },
  { id: 'opaque', name: 'light, covering', scatter: 25, falls: 0.2, shade: { L: 84, a: -1, b: 10 } },
] as const satisfies readonly (Cement & { readonly id: CementId })[];

/** A cement by its id; ids come checked. */
export const cementOf = (id: CementId): Cement => CEMENTS.find((c) => c.id === id) as Cement;
