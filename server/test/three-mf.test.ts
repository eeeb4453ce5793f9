import { box, sphere } from '@radiant/core';
import { XMLParser } from 'fast-xml-parser';
import { strFromU8, unzipSync } from 'fflate';
import { writeThreeMf } from '../src/work/three-mf.js';

// 3MF Core Specification 1.x and Open Packaging Conventions, from memory: read back by unzipping and by an XML parser
// that is not ours.
const bodies = [
  { name: 'planned 11 <"&">', mesh: box(2, 3, 4) },
  { name: 'planned 21', mesh: sphere(3, 8) },
];
const files = unzipSync(writeThreeMf(bodies, 'planned contour & more, mm'));
const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '',
  isArray: (name) => ['object', 'item', 'vertex', 'triangle'].includes(name),
});
const read = (name: string) => parser.parse(strFromU8(files[name] as Uint8Array));

it('is a package that says where its model is and of which type', () => {
  expect(Object.keys(files).sort()).toEqual(['3D/3dmodel.model', '[Content_Types].xml', '_rels/.rels']);
  expect(read('_rels/.rels').Relationships.Relationship.Target).toBe('/3D/3dmodel.model');
  const types = read('[Content_Types].xml').Types.Default as { Extension: string; ContentType: string }[];
  expect(types.find((t) => t.Extension === 'model')?.ContentType).toBe(
    'application/vnd.ms-package.3dmanufacturing-3dmodel+xml',
  );
});

it('holds every body in millimetres with its name, its points and its triangles', () => {
  const { model } = read('3D/3dmodel.model');
  expect(model.unit).toBe('millimeter');
  expect(model.metadata['#text']).toBe('planned contour & more, mm');
  expect(model.build.item.map((i: { objectid: string }) => i.objectid)).toEqual(['1', '2']);
  bodies.forEach(({ name, mesh }, i) => {
    const object = model.resources.object[i];
    expect(object.name).toBe(name);
    const points = object.mesh.vertices.vertex as { x: string; y: string; z: string }[];
    expect(points).toHaveLength(mesh.positions.length / 3);
    points.forEach((p, v) => {
      [p.x, p.y, p.z].forEach((c, k) => {
        expect(Number(c)).toBeCloseTo(mesh.positions[3 * v + k] as number, 4);
      });
    });
    const triangles = object.mesh.triangles.triangle as { v1: string; v2: string; v3: string }[];
    expect(triangles.flatMap((t) => [Number(t.v1), Number(t.v2), Number(t.v3)])).toEqual([...mesh.triangles]);
  });
});
