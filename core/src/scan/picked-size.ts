import type { Fdi } from '../teeth/notation.js';
import type { LookedAt } from './own-scan.js';
import { onRow, placeOnRow } from './row.js';

/** How large a crown looks as it was picked: greatest width along the row, calliper length from the highest facial place of its neck to its edge. */
export interface PickedSize {
  readonly widthMm: number;
  readonly lengthMm: number;
}

type Looked = Pick<LookedAt, 'mesh' | 'smooth' | 'row' | 'neighbourhood'>;

/** So many rings about where two teeth meet are the scanner's bridge, of neither's surface. */
const BRIDGE_RINGS = 2;
/** A place faces outward where its normal does by so much: the neck is measured there. */
const FACING = 0.35;
/** The row's direction at a tooth is taken over so much to both sides, mm. */
const CHORD_MM = 2.5;
/** Rounds in which the direction that the length is measured in is taken from the length's own ends. */
const ROUNDS = 3;

/**
 * Sizes of picked crowns. The length is measured along the crown itself, from edge to neck, and so hardly depends on how the jaw was laid.
 * @param labels the tooth of each vertex, 0 for gum
 */
export function pickedSizes(look: Looked, labels: Uint8Array): Map<Fdi, PickedSize> {
  const own = new Map<Fdi, number[]>();
  labels.forEach((tooth, v) => {
    if (tooth === 0) return;
    const list = own.get(tooth);
    if (list) list.push(v);
    else own.set(tooth, [v]);
  });
  const bridged = bridges(look, labels);
  return new Map([...own].map(([tooth, vertices]) => [tooth, sizeOf(look, tooth, vertices, bridged)]));
}

/** The places within so many rings of where two teeth meet. */
function bridges({ neighbourhood: { from, beside } }: Looked, labels: Uint8Array): Set<number> {
  const near = new Set<number>();
  let last: number[] = [];
  for (let v = 0; v < labels.length; v++) {
    if (labels[v] === 0) continue;
    for (let k = from[v] as number; k < (from[v + 1] as number); k++) {
      const other = labels[beside[k] as number];
      if (other === 0 || other === labels[v]) continue;
      near.add(v);
      last.push(v);
      break;
    }
  }
  for (let ring = 1; ring < BRIDGE_RINGS; ring++) {
    const next: number[] = [];
    for (const v of last)
      for (let k = from[v] as number; k < (from[v + 1] as number); k++) {
        const w = beside[k] as number;
        if (labels[w] === 0 || near.has(w)) continue;
        near.add(w);
        next.push(w);
      }
    last = next;
  }
  return near;
}

function sizeOf({ mesh, smooth, row }: Looked, tooth: Fdi, vertices: readonly number[], bridged: ReadonlySet<number>): PickedSize {
  const p = mesh.positions;
  let [x, y] = [0, 0];
  for (const v of vertices) {
    x += (p[3 * v] as number) / vertices.length;
    y += (p[3 * v + 1] as number) / vertices.length;
  }
  const { along } = onRow(row, x, y);
  const [a, b] = [placeOnRow(row, along - CHORD_MM), placeOnRow(row, along + CHORD_MM)];
  const chord = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const [ux, uy] = [(b[0] - a[0]) / chord, (b[1] - a[1]) / chord];
  // Outward of the row, as x grows along it and y goes back.
  const [ox, oy] = [uy, -ux];
  const place = vertices.map((v) => {
    const [dx, dy] = [(p[3 * v] as number) - x, (p[3 * v + 1] as number) - y];
    const n = smooth.normals;
    return {
      along: dx * ux + dy * uy,
      out: dx * ox + dy * oy,
      up: p[3 * v + 2] as number,
      seen: !bridged.has(v),
      facial: (n[3 * v] as number) * ox + (n[3 * v + 1] as number) * oy > FACING,
    };
  });
  let [least, most] = [Infinity, -Infinity];
  let [lingual, facial] = [Infinity, -Infinity];
  for (const q of place) {
    if (q.seen) {
      least = Math.min(least, q.along);
      most = Math.max(most, q.along);
    }
    lingual = Math.min(lingual, q.out);
    facial = Math.max(facial, q.out);
  }
  // The facial of two cusps; an edge may lean back as it likes.
  const front = tooth % 10 > 3 ? (lingual + facial) / 2 : -Infinity;
  let [wayOut, wayUp, lengthMm] = [0, 1, 0];
  for (let r = 0; r < ROUNDS; r++) {
    let [edge, neck] = [place[0], place[0]];
    let [low, high] = [Infinity, -Infinity];
    for (const q of place) {
      const h = q.out * wayOut + q.up * wayUp;
      if (q.out >= front && h < low) [low, edge] = [h, q];
      if (q.facial && h > high) [high, neck] = [h, q];
    }
    if (!edge || !neck || high <= low) break;
    const [dOut, dUp] = [neck.out - edge.out, neck.up - edge.up];
    lengthMm = Math.hypot(dOut, dUp);
    [wayOut, wayUp] = [dOut / (lengthMm || 1), dUp / (lengthMm || 1)];
  }
  return { widthMm: Math.max(0, most - least), lengthMm };
}
