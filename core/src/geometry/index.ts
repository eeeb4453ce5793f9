export {
  type Adjacency,
  acrossOf,
  adjacencyOf,
  CROWDED,
  neighbourhoodOf,
  OPEN,
  openLoops,
} from './adjacency.js';
export { type Axes, type ColumnGrid, eachMeeting, gridOver, lengthOutside, spans } from './columns.js';
export { type Curve, monotoneCurve, smoothstep } from './curve.js';
export {
  directionToParent,
  type Frame,
  frameFrom,
  inverse,
  nested,
  shift,
  toLocal,
  toParent,
  turn,
  WORLD,
} from './frame.js';
export {
  area,
  type Bounds,
  bounds,
  cutOut,
  type Mesh,
  mergeMeshes,
  meshInFrame,
  pieces,
  placeMesh,
  triangleArea,
  triangleCount,
  vertex,
  vertexCount,
  vertexNormals,
  volume,
  weld,
} from './mesh.js';
export { type CutGraph, cutInTwo } from './min-cut.js';
export { type AlignOptions, alignFrame } from './register.js';
export { enclosedArea, reachAtLevel, type SectionLine, section } from './section.js';
export { box, cylinder, sphere } from './shapes.js';
export { leastSquares, solve } from './solve.js';
export { buildTree, refitTree, type Tree } from './tree/build.js';
export { type Cells, cellsOf, firstThrough } from './tree/cells.js';
export { type ClosestPoints, closestPoint, closestPoints } from './tree/closest.js';
export { liesInside, type RayCaster, type RayHit, rayCaster } from './tree/ray.js';
export { faceNormals, type SignedField, sheetDistances, signedDistances, signedField } from './tree/signed.js';
export { type Defect, describeDefects, inspectMesh, type MeshReport, requireSound } from './validate.js';
export * from './vec.js';
