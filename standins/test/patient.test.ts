import { createHash } from 'node:crypto';
import {
  frontRow,
  inspectMesh,
  kindOf,
  readScan,
  readStl,
  signedDistances,
  signedField,
  UPPER_TEN,
  vertexNormals,
  volume,
} from '@radiant/core';
import {
  AVOCET,
  INTRAORAL_SCANNER,
  inMouth,
  makePatient,
  type Patient,
  type PatientTooth,
  project,
  RETRACTED_FRONT,
  random,
  SCALE_PLANE_Y,
  scalePoints,
  scan,
  scatteredRecipe,
  truePoints,
} from '@radiant/standins';

const patient = makePatient(AVOCET);
const tooth = (n: number, p: Patient = patient) => p.teeth.find((t) => t.tooth === n) as PatientTooth;

describe('the random source', () => {
  it('gives the same for the same seed and other for another', () => {
    const ten = (seed: number) => {
      const r = random(seed);
      return Array.from({ length: 10 }, () => r.next());
    };
    expect(ten(5)).toEqual(ten(5));
    expect(ten(5)).not.toEqual(ten(6));
  });

  it('is even between 0 and 1: mean a half, variance a twelfth', () => {
    const r = random(17);
    const v = Array.from({ length: 20_000 }, () => r.next());
    const mean = v.reduce((a, b) => a + b) / v.length;
    expect(Math.abs(mean - 0.5)).toBeLessThan(0.01);
    expect(Math.abs(v.reduce((s, x) => s + (x - mean) ** 2, 0) / v.length - 1 / 12)).toBeLessThan(0.003);
    expect(Math.min(...v)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...v)).toBeLessThan(1);
  });

  it('its normal numbers lie within 1.96 standard deviations 95 times in 100', () => {
    const r = random(18);
    const v = Array.from({ length: 20_000 }, () => r.normal(2));
    expect(Math.abs(v.filter((x) => Math.abs(x) <= 1.96 * 2).length / v.length - 0.95)).toBeLessThan(0.01);
  });
});

describe('the virtual patient Avocet', () => {
  it('has ten upper teeth, each a closed solid of the size of a crown', () => {
    expect(patient.teeth.map((t) => t.tooth)).toEqual(UPPER_TEN);
    for (const t of patient.teeth) {
      expect(inspectMesh(t.mesh).ok).toBe(true);
      expect(volume(t.mesh)).toBeGreaterThan(80);
      expect(volume(t.mesh)).toBeLessThan(700);
    }
  });

  it('is who the case says: a small right lateral, worn centrals, the left lateral turned', () => {
    expect(tooth(12).crown.size.widthMm).toBeLessThan(tooth(22).crown.size.widthMm - 0.8);
    for (const t of [11, 21]) expect(tooth(t).crown.size.wearMm).toBeGreaterThan(0.5);
    const facing = (t: number) => Math.atan2(tooth(t).frame.x[1], tooth(t).frame.x[0]);
    expect(Math.abs(((facing(22) + facing(12)) * 180) / Math.PI)).toBeGreaterThan(4);
  });

  it('comes out the same each time', () => {
    expect(makePatient(AVOCET).teeth[3]?.mesh.positions).toEqual(patient.teeth[3]?.mesh.positions);
  });

  it('another seed makes another patient', () => {
    const [a, b] = [makePatient(scatteredRecipe(1)), makePatient(scatteredRecipe(2))];
    expect(a.teeth[0]?.crown.size).not.toEqual(b.teeth[0]?.crown.size);
  });

  it('right teeth stand on the patient’s right, and the canines behind the centrals', () => {
    for (const t of patient.teeth) expect(Math.sign(t.frame.origin[0])).toBe(t.tooth < 20 ? -1 : 1);
    for (const [canine, central] of [
      [13, 11],
      [23, 21],
    ] as const)
      expect(tooth(canine).frame.origin[1]).toBeGreaterThan(tooth(central).frame.origin[1] + 3);
  });

  it('no tooth stands in its neighbour by more than a contact’s worth', () => {
    for (const [a, b] of [
      [14, 13],
      [12, 11],
      [11, 21],
      [21, 22],
    ] as const) {
      const depth = -Math.min(...signedDistances(signedField(tooth(a).mesh), tooth(b).mesh.positions));
      expect(depth).toBeLessThan(0.35);
    }
  });

  it('its gum leaves the faces of the teeth free and covers their necks', () => {
    const sheet = patient.gum;
    expect([...vertexNormals(sheet)].every(Number.isFinite)).toBe(true);
    const low = (side: (x: number) => boolean) => {
      let z = Infinity;
      for (let i = 0; i < sheet.positions.length; i += 3)
        if (side(sheet.positions[i] as number)) z = Math.min(z, sheet.positions[i + 2] as number);
      return z;
    };
    // Papillae reach down between the teeth, not to the edges.
    expect(low(() => true)).toBeGreaterThan(truePoints(tooth(11)).edge[2] + 2);
  });
});

describe('the true points', () => {
  it.each(frontRow().map((t) => [t] as const))('of %i: zenith above edge, mesial towards the midline', (n) => {
    const p = truePoints(tooth(n));
    expect(p.zenith[2] - p.edge[2]).toBeGreaterThan(7);
    expect(Math.abs(p.mesial[0])).toBeLessThan(Math.abs(p.distal[0]));
    expect(kindOf(n)).toBe(kindOf(tooth(n).crown.tooth));
  });

  it('lie on the tooth', () => {
    for (const n of frontRow()) {
      const field = signedField(tooth(n).mesh);
      const off = signedDistances(field, Float64Array.from(Object.values(truePoints(tooth(n))).flat()));
      expect(Math.max(...[...off].map(Math.abs))).toBeLessThan(1e-9);
    }
  });

  it('a point of the tooth’s own frame goes to the mouth with it', () => {
    expect(inMouth(tooth(11), [0, 0, 0])).toEqual(tooth(11).frame.origin);
  });
});

describe('the camera’s geometry', () => {
  it('shows the patient’s right on the picture’s left, and up above down', () => {
    const [right, left] = [project(RETRACTED_FRONT, [-5, 0, 5]), project(RETRACTED_FRONT, [5, 0, 5])];
    expect(right[0]).toBeLessThan(left[0]);
    expect(project(RETRACTED_FRONT, [0, 0, 9])[1]).toBeLessThan(project(RETRACTED_FRONT, [0, 0, 0])[1]);
  });

  it('what lies further back looks smaller', () => {
    const size = (y: number) => project(RETRACTED_FRONT, [5, y, 0])[0] - project(RETRACTED_FRONT, [-5, y, 0])[0];
    expect(size(8)).toBeLessThan(size(0));
    expect(size(8) / size(0)).toBeGreaterThan(0.9);
  });

  it('its scale says how many millimetres lie between its ends, in its own plane', () => {
    const s = scalePoints(RETRACTED_FRONT);
    const a = project(RETRACTED_FRONT, [0, SCALE_PLANE_Y, 0]);
    const b = project(RETRACTED_FRONT, [s.mm, SCALE_PLANE_Y, 0]);
    expect(Math.hypot(s.to[0] - s.from[0], s.to[1] - s.from[1])).toBeCloseTo(Math.hypot(b[0] - a[0], b[1] - a[1]), 6);
  });
});

describe('the scanner', () => {
  const bytes = scan(patient, INTRAORAL_SCANNER);
  const read = readScan(bytes);

  it('says in its title that it is simulated, and writes millimetres', () => {
    expect(Buffer.from(bytes.subarray(0, 80)).toString('latin1')).toMatch(/simulated scanner.*mm/);
  });

  it('numbers the triangles of each tooth', () => {
    expect([...read.teeth.keys()].sort((a, b) => a - b)).toEqual([...UPPER_TEN].sort((a, b) => a - b));
    const numbers = new Set(readStl(bytes).attributes);
    expect(numbers.has(0)).toBe(true);
    expect(numbers.size).toBe(11);
  });

  it('errs by its noise: about 0.02 mm, rarely three times as much', () => {
    for (const n of [11, 13]) {
      const field = signedField(tooth(n).mesh);
      const off = [...signedDistances(field, (read.teeth.get(n) as { positions: Float64Array }).positions)]
        .map(Math.abs)
        .sort((a, b) => a - b);
      expect(off[off.length >> 1]).toBeGreaterThan(0.003);
      expect(off[off.length >> 1]).toBeLessThan(0.02);
      expect(off[Math.floor(0.99 * off.length)]).toBeLessThan(0.06);
    }
  });

  it('scans the same again for the same seed, and otherwise for another', () => {
    const hash = (b: Uint8Array) => createHash('sha256').update(b).digest('hex');
    expect(hash(scan(patient, INTRAORAL_SCANNER))).toBe(hash(bytes));
    expect(hash(scan(patient, { ...INTRAORAL_SCANNER, seed: 91 }))).not.toBe(hash(bytes));
  });
});
