import { Refusal } from '../errors.js';
import { type Mesh, triangleArea, vertexCount } from './mesh.js';

export type Defect = 'empty' | 'not-finite' | 'index-out-of-range' | 'degenerate' | 'open' | 'not-oriented';

export interface MeshReport {
  /** No defect of any kind. */
  readonly ok: boolean;
  /** How many vertices, triangles or edges show each defect; only those found. */
  readonly defects: ReadonlyMap<Defect, number>;
}

const WORDS: Record<Defect, string> = {
  empty: 'it has no triangles',
  'not-finite': 'coordinates are not numbers',
  'index-out-of-range': 'triangles point to vertices that are not there',
  degenerate: 'triangles without area',
  open: 'open edges',
  'not-oriented': 'neighbouring triangles that face opposite ways',
};

/** Triangles of less than this area count as degenerate, mm². Far below what any scanner resolves. */
export const DEGENERATE_AREA_MM2 = 1e-10;

/**
 * Checks what every solid must keep: finite coordinates, indices in range, no triangle without area, each edge shared
 * by exactly two triangles that run along it in opposite directions.
 */
export function inspectMesh(m: Mesh, options: { closed: boolean } = { closed: true }): MeshReport {
  const found = new Map<Defect, number>();
  const count = (d: Defect) => found.set(d, (found.get(d) ?? 0) + 1);
  const n = vertexCount(m);
  if (m.triangles.length === 0) count('empty');
  for (let i = 0; i < m.positions.length; i++) if (!Number.isFinite(m.positions[i])) count('not-finite');
  const edges = new Map<number, number>();
  for (let t = 0; t < m.triangles.length; t += 3) {
    let inRange = true;
    for (let c = 0; c < 3; c++) if (m.triangles[t + c] >= n) inRange = false;
    if (!inRange) {
      count('index-out-of-range');
      continue;
    }
    if (!(triangleArea(m, t) > DEGENERATE_AREA_MM2)) count('degenerate');
    if (options.closed) {
      for (let c = 0; c < 3; c++) {
        const key = m.triangles[t + c] * n + m.triangles[t + ((c + 1) % 3)];
        edges.set(key, (edges.get(key) ?? 0) + 1);
      }
    }
  }
  for (const [key, times] of edges) {
    const a = Math.floor(key / n);
    const b = key - a * n;
    if (times > 1) count('not-oriented');
    else if (edges.get(b * n + a) === undefined) count('open');
  }
  return { ok: found.size === 0, defects: found };
}

/** The report as one sentence. */
export function describeDefects(report: MeshReport): string {
  if (report.ok) return 'The surface is sound.';
  const parts = [...report.defects].map(([d, k]) => (d === 'empty' ? WORDS[d] : `${k} × ${WORDS[d]}`));
  return `The surface can't be used: ${parts.join('; ')}.`;
}

/** @throws Refusal `mesh-invalid` with the report as its sentence. */
export function requireSound(m: Mesh, options?: { closed: boolean }): void {
  const report = inspectMesh(m, options);
  if (!report.ok) throw new Refusal('mesh-invalid', describeDefects(report));
}
