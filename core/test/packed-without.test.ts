import { buildTree, closestPoints, sphere } from '@radiant/core';
import { pack } from '../src/geometry/tree/packed.js';

it('where the engine runs no WebAssembly, a large tree is searched all the same', () => {
  Object.defineProperty(globalThis, 'WebAssembly', { value: undefined });
  const tree = buildTree(sphere(20, 110));
  expect(pack(tree)).toBeUndefined();
  const q = new Float64Array(3 * 3000).map((_, i) => (i % 3 === 0 ? 25 : 0));
  expect([...new Set(closestPoints(tree, q).distances)]).toHaveLength(1);
  expect(closestPoints(tree, q).distances[0]).toBeCloseTo(5, 2);
});
