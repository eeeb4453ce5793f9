/**
 * How a photograph lies beside the way the camera wrote it: mirrored left to right first, where it is, and then turned
 * by so many quarters clockwise. Pictures taken over a mirror, or with the camera on its side, are put right by it; the
 * bytes stay as they came.
 */
export interface Lay {
  /** 0 to 3, clockwise. */
  readonly quarterTurns: number;
  readonly mirrored: boolean;
}

export const AS_IT_CAME: Lay = { quarterTurns: 0, mirrored: false };

const quarters = (n: number) => ((n % 4) + 4) % 4;

/** The picture as it is seen, turned further. @param by quarters clockwise; left is negative */
export const turnedBy = (lay: Lay, by: number): Lay => ({ ...lay, quarterTurns: quarters(lay.quarterTurns + by) });

/** The picture as it is seen, left and right exchanged: what was turned clockwise is turned the other way. */
export const mirroredOf = (lay: Lay): Lay => ({ quarterTurns: quarters(-lay.quarterTurns), mirrored: !lay.mirrored });

export const isAsItCame = (lay: Lay): boolean => lay.quarterTurns === 0 && !lay.mirrored;

/** Whether its sides are exchanged. */
export const isOnItsSide = (lay: Lay): boolean => lay.quarterTurns % 2 === 1;
