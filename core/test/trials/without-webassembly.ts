// A process of its own, from which WebAssembly is taken before anything is loaded: a large tree is searched, and what
// comes of it told.
Object.defineProperty(globalThis, 'WebAssembly', { value: undefined });
const { buildTree, closestPoints, sphere } = await import('@radiant/core');
const { pack } = await import('../../src/geometry/tree/packed.js');
const tree = buildTree(sphere(20, 110));
const queries = new Float64Array(3 * 3000).map((_, i) => (i % 3 === 0 ? 25 : 0));
const distances = [...new Set(closestPoints(tree, queries).distances)];
process.stdout.write(JSON.stringify({ packed: pack(tree) !== undefined, distances }));

export {};
