import { hypot } from '../geometry/vec.js';
/** One length known from two sides, each with its error, mm. */
export interface Sided {
  readonly value: number;
  readonly pm: number;
}

/** A length of the scan beside the same one of the photograph. */
export interface Linked {
  readonly scan?: Sided;
  readonly photo?: Sided;
  /** Which one is used for planning, and why; nothing where there is neither. */
  readonly used?: 'scan' | 'photo';
  readonly why: string;
  /** The two differ by more than their errors together: one of them is wrong, or they are of different days. */
  readonly apart: boolean;
}

/**
 * Which of two measures of one length counts: the one with the smaller error, which is the scan's wherever there is
 * one, since a photograph also leans on its scale and its perspective. Errors are added in quadrature.
 */
export function linked(scan: Sided | undefined, photo: Sided | undefined): Linked {
  if (!scan && !photo) return { why: 'measured on neither', apart: false };
  if (!scan) return { ...(photo && { photo }), used: 'photo', why: 'the scan has no such tooth', apart: false };
  if (!photo) return { scan, used: 'scan', why: 'not marked on the photograph', apart: false };
  const both = hypot(scan.pm, photo.pm);
  const apart = Math.abs(scan.value - photo.value) > both;
  const used = scan.pm <= photo.pm ? 'scan' : 'photo';
  return {
    scan,
    photo,
    used,
    apart,
    why: apart
      ? 'further apart than both errors: look at the marks, the scale and the days they were taken on'
      : used === 'scan'
        ? 'the smaller error; no scale and no perspective in it'
        : 'the smaller error',
  };
}
