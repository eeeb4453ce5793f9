import {
  type Jaw,
  type Mesh,
  mergeMeshes,
  triangleCount,
  vertexNormals,
  writePly,
  writeStlBinary,
} from '@radiant/core';
import { gum } from './gum.js';
import type { Patient } from './patient.js';
import { random, smoothNoise } from './random.js';

export interface ScannerSetting {
  /** Standard deviation of the surface error along the normal, mm. */
  readonly noiseMm: number;
  readonly seed: number;
}

export const INTRAORAL_SCANNER: ScannerSetting = { noiseMm: 0.02, seed: 90 };

/**
 * Scans the teeth and gum of one of the patient's jaws, in the closed bite, mm, to binary STL or PLY. The free bytes of
 * each triangle, or its property `tooth`, hold the FDI number of the tooth it belongs to, 0 for gum: our stand-in's own
 * convention, by which the program knows the teeth apart.
 */
export function scan(
  patient: Patient,
  s: ScannerSetting,
  format: 'stl' | 'ply' = 'stl',
  jaw: Jaw = 'upper',
): Uint8Array {
  return jaw === 'upper'
    ? scanOf(patient.teeth, gum(patient.teeth, patient.recipe.gum, GUM_REACH_MM), s, format)
    : scanOf(patient.lower, patient.lowerGumTo(GUM_REACH_MM), s, format, jaw);
}

/** Teeth and gum of one jaw, in the same way. */
export function scanOf(
  teeth: readonly { readonly tooth: number; readonly mesh: Mesh }[],
  gumOfJaw: Mesh,
  s: ScannerSetting,
  format: 'stl' | 'ply' = 'stl',
  jaw: Jaw = 'upper',
): Uint8Array {
  const parts: { mesh: Mesh; tooth: number }[] = [
    ...teeth.map((t) => ({ mesh: t.mesh, tooth: t.tooth })),
    { mesh: gumOfJaw, tooth: 0 },
  ];
  const noisy = parts.map((p, i) => roughened(p.mesh, s, i));
  const whole = mergeMeshes(noisy);
  const attributes = new Uint16Array(triangleCount(whole));
  let at = 0;
  parts.forEach((p, i) => {
    const n = triangleCount(noisy[i] as Mesh);
    attributes.fill(p.tooth, at, at + n);
    at += n;
  });
  if (format === 'ply') return writePly(whole, attributes, `simulated scanner, ${jaw} jaw, mm`);
  return writeStlBinary(whole, attributes, `simulated scanner, ${jaw} jaw, mm, free bytes: FDI tooth`);
}

/** A scanner does not reach into the fold above the gum: the scan ends this far over the margin, mm. */
export const GUM_REACH_MM = 6;

/** Two thirds of the error comes as broad waves, the rest from point to point, as scanners do after smoothing. */
export function roughened(mesh: Mesh, s: ScannerSetting, part: number): Mesh {
  const r = random(s.seed * 1000 + part);
  const normals = vertexNormals(mesh);
  const positions = mesh.positions.slice();
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [positions[i], positions[i + 1], positions[i + 2]];
    const wave = smoothNoise(x * 0.8, y * 0.8, z * 0.8, s.seed) * s.noiseMm * 1.6;
    const e = wave + r.normal(s.noiseMm * 0.3);
    for (let k = 0; k < 3; k++) positions[i + k] = positions[i + k] + e * normals[i + k];
  }
  return { positions, triangles: mesh.triangles };
}
