import { readStl, weld } from '@radiant/core';
import { AVOCET, INTRAORAL_SCANNER, makePatient, random, scan } from '@radiant/standins';

/** The demo patient's scanned arch with its longest triangles halved until there are `count` of them. */
export function archOf(count) {
  const mesh = weld(readStl(scan(makePatient(AVOCET), INTRAORAL_SCANNER)).mesh);
  const positions = [...mesh.positions];
  const triangles = [...mesh.triangles];
  const at = (v) => [positions[3 * v], positions[3 * v + 1], positions[3 * v + 2]];
  const longest = (t) => {
    const side = (k) =>
      Math.hypot(...at(triangles[3 * t + k]).map((x, c) => x - at(triangles[3 * t + ((k + 1) % 3)])[c]));
    return [0, 1, 2].map((k) => [side(k), k]).sort((a, b) => b[0] - a[0])[0];
  };
  const order = Array.from({ length: triangles.length / 3 }, (_, t) => [longest(t), t]).sort(
    (a, b) => b[0][0] - a[0][0],
  );
  for (const [[, k], t] of order) {
    if (triangles.length / 3 >= count) break;
    const [a, b, c] = [0, 1, 2].map((i) => triangles[3 * t + ((k + i) % 3)]);
    const m = positions.length / 3;
    positions.push(...at(a).map((x, i) => (x + at(b)[i]) / 2));
    [a, m, c].forEach((v, i) => {
      triangles[3 * t + i] = v;
    });
    triangles.push(m, b, c);
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** Points beside the surface, up to `reachMm` from it, as a planned contour lies beside the scan. */
export function pointsBeside(mesh, n, reachMm) {
  const r = random(7);
  const points = new Float64Array(3 * n);
  const count = mesh.triangles.length / 3;
  for (let i = 0; i < n; i++) {
    const v = mesh.triangles[3 * Math.floor(r.next() * count)];
    for (let k = 0; k < 3; k++) points[3 * i + k] = mesh.positions[3 * v + k] + (2 * r.next() - 1) * reachMm;
  }
  return points;
}
