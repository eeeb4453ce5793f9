import { triangleArea } from '../geometry/mesh.js';
import type { Fdi } from '../teeth/notation.js';
import { usualSize } from '../teeth/usual-sizes.js';
import { cuspOf, otherSide } from './crown-edge.js';
import type { Doubt } from './doubts.js';
import type { LookedAt } from './own-scan.js';
import type { PickedCrown } from './picked-crown.js';
import type { ToothRoom } from './row.js';
import { CUSP_MM } from './row-path.js';

/** Two places of the row are one where they lie within so much, mm. */
const BESIDE_MM = 0.3;
/** A room so much over its usual size may be of two teeth, or of another one. House limit. */
const WIDE = 1.3;
/** The same tooth of both sides differs in width by less, mm. House limit: on whole virtual jaws it is up to 1.7. */
const UNLIKE_MM = 1.8;

/** A crown of so much less surface than the same tooth of the other side has is hardly all of it. House limit. */
const PART = 0.6;

/** What speaks against the numbers: stretches and rooms that fit none, sides that are unlike, a canine without a cusp. */
export function numberDoubts(
  look: LookedAt,
  labels: Uint8Array,
  crowns: ReadonlyMap<Fdi, PickedCrown>,
  teeth: ReadonlyMap<Fdi, ToothRoom>,
): Doubt[] {
  const doubts: Doubt[] = [];
  const at = (a: number, b: number) => Math.abs(a - b) < BESIDE_MM;
  const rooms = [...teeth];
  for (const s of look.unnumbered) {
    const tooth = (rooms.find(([, r]) => at(r.to, s.from)) ?? rooms.find(([, r]) => at(r.from, s.to)))?.[0];
    if (tooth !== undefined)
      doubts.push({
        tooth,
        about: 'room',
        sentence: `beside it ${(s.to - s.from).toFixed(1)} mm of the row have no number: is a tooth there?`,
      });
  }
  for (const [tooth, room] of teeth) {
    const times = (room.to - room.from) / (usualSize(tooth).widthMm * look.scale);
    if (times > WIDE)
      doubts.push({
        tooth,
        about: 'room',
        sentence: `its room is ${times.toFixed(1)} times as wide as usual: are these two teeth, or another one?`,
      });
  }
  const mm2 = new Float64Array(256);
  for (let t = 0; t < labels.length; t++) mm2[labels[t]] = mm2[labels[t]] + triangleArea(look.mesh, 3 * t);
  for (const c of crowns.values()) {
    const fellow = crowns.get(otherSide(c.tooth));
    const part = fellow ? mm2[c.tooth] / mm2[fellow.tooth] : 1;
    if (part < PART)
      doubts.push({
        tooth: c.tooth,
        about: 'unlike',
        sentence: `only ${Math.round(100 * part)} % of the surface that {${otherSide(c.tooth)}} has: is all of it picked?`,
      });
    if (fellow && c.widthMm - fellow.widthMm > UNLIKE_MM)
      for (const [own, other] of [
        [c, fellow],
        [fellow, c],
      ] as const)
        doubts.push({
          tooth: own.tooth,
          about: 'unlike',
          sentence: `${own.widthMm.toFixed(1)} mm wide, {${other.tooth}} is ${other.widthMm.toFixed(1)}`,
        });
    if (c.tooth % 10 === 3 && cuspOf(c) < CUSP_MM.canine)
      doubts.push({ tooth: c.tooth, about: 'cusp', sentence: 'a canine without a cusp: worn flat, or another tooth?' });
  }
  return doubts;
}
