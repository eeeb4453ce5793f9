import { box, type Mesh, writeStlBinary } from '@radiant/core';
import { PRINTER, simulatedPrinter } from '@radiant/standins';
import { strToU8, zipSync } from 'fflate';

/** A 3MF package of one box, by hand: a writer of its own, so that a fault of the application's would show. */
function threeMf(mesh: Mesh, unit: string): Uint8Array {
  const rows: string[] = [];
  for (let i = 0; i < mesh.positions.length; i += 3) {
    const [x, y, z] = mesh.positions.subarray(i, i + 3);
    rows.push(`<vertex x="${x}" y="${y}" z="${z}" />`);
  }
  const faces: string[] = [];
  for (let i = 0; i < mesh.triangles.length; i += 3) {
    const [a, b, c] = mesh.triangles.subarray(i, i + 3);
    faces.push(`<triangle v1="${a}" v2="${b}" v3="${c}" />`);
  }
  const model = `<model unit="${unit}"><metadata name="Title">a box</metadata><resources><object id="1" type="model"><mesh><vertices>${rows.join('')}</vertices><triangles>${faces.join('')}</triangles></mesh></object></resources><build><item objectid="1"/></build></model>`;
  return zipSync({ '3D/3dmodel.model': strToU8(model) });
}

describe('the simulated printer', () => {
  const block = box(20, 10, 30);

  it('takes STL and says volume, walls and height of a block as a ruler does; it says that it is simulated', () => {
    const said = simulatedPrinter(writeStlBinary(block, undefined, 'a block'));
    expect(said).toMatchObject({ printer: PRINTER.name, bodies: 1, refused: [], title: 'a block' });
    expect(said.printer).toMatch(/^Simulated/);
    expect(said.check?.volumeMm3).toBeCloseTo(6000, 3);
    expect(said.check?.thinnestMm).toBeCloseTo(10, 1);
    expect(said.check?.islands).toBe(0);
  });

  it('reads the unit of 3MF: the same numbers in inches are a body of 508 mm, which does not fit', () => {
    expect(simulatedPrinter(threeMf(block, 'millimeter'))).toMatchObject({ title: 'a box', refused: [] });
    expect(simulatedPrinter(threeMf(block, 'inch')).refused).toEqual([
      'It is 762 × 508 × 254 mm and does not fit on the plate. Is its unit millimetres?',
    ]);
    expect(simulatedPrinter(threeMf(block, 'micron')).refused[0]).toContain('smaller than a millimetre');
  });

  it('refuses what is open, broken, no package, or empty, each in a sentence', () => {
    const open: Mesh = { positions: block.positions, triangles: block.triangles.slice(3) };
    expect(simulatedPrinter(writeStlBinary(open)).refused).toEqual(['1 of its bodies is not closed.']);
    expect(simulatedPrinter(writeStlBinary(block).slice(0, 200)).refused[0]).toMatch(/STL/);
    expect(simulatedPrinter(strToU8('PK no zip at all')).refused).toEqual([
      'The 3MF file can’t be read: it is no package.',
    ]);
    expect(simulatedPrinter(zipSync({ 'a.txt': strToU8('x') })).refused).toEqual([
      'The 3MF file can’t be read: it holds no model.',
    ]);
    expect(simulatedPrinter(threeMf(block, 'cubit')).refused).toEqual([
      'The 3MF file can’t be read: its unit cubit is none.',
    ]);
  });
});
