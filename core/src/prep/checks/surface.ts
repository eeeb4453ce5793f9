import { smoothed } from '../../scan/concavity.js';
import { hoodOf } from '../hood.js';
import { PREP_LIMITS } from '../limits.js';
import { type Check, mm } from './checked.js';

/**
 * How rough the cut is, as far as the scan tells: how far its places lie off the surface smoothed over a third of a
 * millimetre, root mean square. A scanner's own noise is in it, so that little says nothing.
 */
export const surfaceCheck: Check = (c) => {
  const { mesh } = c.scan;
  const { mesh: even, normals } = smoothed(mesh, hoodOf(mesh));
  let [sum, n] = [0, 0];
  for (const v of c.facing.vertex) {
    let off = 0;
    for (let k = 0; k < 3; k++) off += (mesh.positions[3 * v + k]! - even.positions[3 * v + k]!) * normals[3 * v + k]!;
    sum += off * off;
    n++;
  }
  if (n === 0) return [];
  const value = Math.sqrt(sum / n);
  const { value: limit, source } = PREP_LIMITS.rough;
  const base = {
    check: 'surface' as const,
    tooth: c.tooth,
    place: 'cut surface',
    value,
    pm: 0.02,
    unit: 'mm' as const,
    limit,
    source,
  };
  return [
    value > limit + base.pm
      ? {
          ...base,
          state: 'look',
          says: `{${c.tooth}}: the cut is rough, ${mm(value)} mm off a smooth surface; a scan shows no finer grooves`,
          todo: 'finish it with a fine-grit bur, then a disc',
        }
      : { ...base, state: 'right', says: `{${c.tooth}}: smooth as far as the scan shows, ${mm(value)} mm` },
  ];
};
