import { closestPoints, designOf, type Mesh, meshInFrame, placeMesh, signedDistances, signedField, toLocal, vertexNormals } from '@radiant/core';
import type { Patient, PatientTooth } from './patient.js';

// Taken once: a global looked up in an inner loop is slow wherever the engine runs the code in a context of its own.
const { max, min } = Math;

/** Prepared as the graduated design asks for, measured from the final contour. */
const { needs, edge } = designOf('graduated');
const EDGE_MM = edge.kind === 'thickness' ? edge.mm : 0;
/** The chamfer runs out into the tooth over so much above the neck, mm. */
const CHAMFER_MM = 0.6;
/** Cutting and drawing back, by turns, until both hold. */
const ROUNDS = 6;
/** Where a surface begins to face forward, and where it does so fully: share of its normal. */
const FACES = { from: 0, full: 0.3 } as const;

const ramp = (v: number, from: number, to: number): number => {
  const k = max(0, min(1, (v - from) / (to - from)));
  return k * k * (3 - 2 * k);
};

/** What the ceramic needs at a share of the crown's height from edge (0) to zenith (1), mm: each third's own in its middle. */
function needAt(share: number): number {
  if (share < 1 / 6) return needs.incisal;
  if (share < 1 / 2) return needs.incisal + (needs.middle - needs.incisal) * ((share - 1 / 6) * 3);
  if (share < 5 / 6) return needs.middle + (needs.cervical - needs.middle) * ((share - 1 / 2) * 3);
  return needs.cervical;
}

/**
 * The patient's teeth with those that are restored later prepared for veneers: from the final contour inward, so that where the plan adds
 * enough nothing is taken. Deterministic.
 * @param later the same patient with the final contour
 */
export function prepared(patient: Patient, later: Patient): PatientTooth[] {
  const restored = Object.keys(patient.recipe.planned?.traits ?? {}).map(Number);
  return patient.teeth.map((t) => {
    const final = later.teeth.find((l) => l.tooth === t.tooth);
    return final && t.tooth % 10 <= 3 && restored.includes(t.tooth) ? { ...t, mesh: cut(t, final) } : t;
  });
}

function cut(t: PatientTooth, final: PatientTooth): Mesh {
  const p = t.mesh.positions;
  const n = vertexNormals(t.mesh);
  const over = signedField(final.mesh);
  const out = p.slice();
  for (let round = 0; round < ROUNDS; round++) {
    // Where the tooth stands askew to its final contour, a cut along its own normal reaches the depth only by and by.
    const outside = signedDistances(over, out);
    for (let v = 0; v < p.length; v += 3) {
      const share = toLocal(final.frame, [out[v] as number, out[v + 1] as number, out[v + 2] as number])[2] / final.crown.size.lengthMm;
      const towards = toLocal({ ...final.frame, origin: [0, 0, 0] }, [n[v] as number, n[v + 1] as number, n[v + 2] as number]);
      const facial = ramp(-towards[1], FACES.from, FACES.full);
      const chamfer = ramp(t.crown.size.lengthMm - toLocal(t.frame, [p[v] as number, p[v + 1] as number, p[v + 2] as number])[2], 0, CHAMFER_MM);
      const taken = max(0, needAt(share) * facial * chamfer + (outside[v / 3] as number)) * (facial * chamfer > 0 ? 1 : 0);
      for (let k = 0; k < 3; k++) out[v + k] = (out[v + k] as number) - taken * (n[v + k] as number);
    }
  }
  // The edge is cut level, as far below the final one as its ceramic is thick; behind it the tooth is hollow, and what would stand out
  // there is drawn back to it.
  const was = signedField(t.mesh);
  let mesh: Mesh = { positions: out, triangles: t.mesh.triangles };
  for (let round = 0; round < ROUNDS; round++) {
    const local = meshInFrame(mesh, final.frame);
    for (let v = 2; v < local.positions.length; v += 3) local.positions[v] = max(EDGE_MM, local.positions[v] as number);
    mesh = placeMesh(local, final.frame);
    const off = signedDistances(was, mesh.positions);
    const { points } = closestPoints(was.tree, mesh.positions);
    for (let v = 0; v < off.length; v++) if ((off[v] as number) > 0) mesh.positions.set(points.subarray(3 * v, 3 * v + 3), 3 * v);
  }
  return mesh;
}
