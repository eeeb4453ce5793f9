export { type AnyMesh, MOST_TRIANGLES, meshFormat, readMesh, requireMesh } from './any-mesh.js';
export { isObj, readObj, writeObj } from './obj.js';
export { withoutOwner } from './picture-owner.js';
export { isPly, type PlyContent, readPly, writePly } from './ply.js';
export { readStl, type StlContent, writeStlAscii, writeStlBinary } from './stl.js';
