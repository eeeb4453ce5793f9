import { AS_IT_CAME, isAsItCame, type Lay } from '@radiant/contract';
import { withoutOwner } from '@radiant/core';
import sharp, { type Sharp } from 'sharp';

/** Of the picture that is measured on where it is not the camera’s own file; no grain of it is seen at 1:1. */
const WHOLE_QUALITY = 95;

/** Pictures that every browser shows as they came. */
export const isShownByAll = (mime: string): boolean => mime === 'image/jpeg' || mime === 'image/png';

/** A picture upright by its camera’s note, and then as it was put: mirrored first, turned after. */
export function laid(bytes: Uint8Array, lay: Lay): Sharp {
  const upright = sharp(bytes).autoOrient();
  const mirrored = lay.mirrored ? upright.flop() : upright;
  return lay.quarterTurns === 0 ? mirrored : mirrored.rotate(90 * lay.quarterTurns);
}

/**
 * A picture as it is shown, measured on and handed on: without where and by whom it was taken, upright, in a format
 * that every browser reads.
 * @param mime of `bytes`, which `sharp` reads
 */
export async function shownPicture(bytes: Uint8Array, mime: string, lay: Lay = AS_IT_CAME): Promise<Uint8Array> {
  if (isShownByAll(mime) && isAsItCame(lay)) return withoutOwner(bytes);
  return laid(bytes, lay).keepIccProfile().jpeg({ quality: WHOLE_QUALITY, chromaSubsampling: '4:4:4' }).toBuffer();
}
