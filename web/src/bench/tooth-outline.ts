import { type CrownSize, crown, type Fdi, facialOutline } from '@radiant/core';

export interface ToothOutline {
  /** SVG path in mm; z up becomes y down. */
  readonly path: string;
  /** Highest point over the edge, mm. */
  readonly heightMm: number;
}

/** The last outlines asked for: while one tooth is changed, the others of a drawing are not made again. */
const kept = new Map<string, ToothOutline>();
const KEEP = 120;

/** A crown's facial outline seen from the front, for drawing. */
export function toothOutline(tooth: Fdi, size: CrownSize): ToothOutline {
  const key = `${tooth} ${JSON.stringify(size)}`;
  const own = kept.get(key) ?? draw(facialOutline(crown(tooth, size)));
  kept.delete(key);
  kept.set(key, own);
  if (kept.size > KEEP) kept.delete(kept.keys().next().value as string);
  return own;
}

function draw(outline: Float64Array): ToothOutline {
  let path = '';
  let heightMm = 0;
  for (let i = 0; i < outline.length; i += 2) {
    const z = outline[i + 1] as number;
    path += `${i === 0 ? 'M' : 'L'}${(outline[i] as number).toFixed(2)} ${(-z).toFixed(2)}`;
    if (z > heightMm) heightMm = z;
  }
  return { path: `${path}Z`, heightMm };
}
