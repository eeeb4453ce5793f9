import {
  ask,
  CaseEngine,
  ceramicOf,
  ceramicOfClass,
  deltaE00,
  type Fdi,
  firstContour,
  type Lab,
  lookedUp,
  type MeasuredCeramic,
  matched,
  readScan,
  screenRgb,
  shadeOf,
  type ToothRead,
  throughCeramic,
} from '@radiant/core';
import { CURLEW, INTRAORAL_SCANNER, inState, makePatient, scan, shadeReadings } from '@radiant/standins';
import * as THREE from 'three';
import { MeshBVH } from 'three-mesh-bvh';

const engine = new CaseEngine();
engine.take(readScan(scan(makePatient(CURLEW), INTRAORAL_SCANNER)));
engine.setPlan(firstContour(engine.arch('upper'), new Map()));
const readings = shadeReadings('Curlew', 'tooth', '2026-11-20T09:10:00.000Z');
const at = (tooth: Fdi, zone: 'gum' | 'body' | 'edge'): Lab => {
  const own = readings.find((r) => r.tooth === tooth && r.zone === zone);
  if (!own) throw new Error(`${tooth} ${zone} was not read.`);
  return { L: own.L, a: own.a, b: own.b };
};
const read = (ceramic: string): ToothRead => {
  const of = (zone: 'gum' | 'body' | 'edge') => ({
    wanted: at(11, zone),
    cement: 'clear' as const,
    tooth: at(21, zone),
  });
  return { tooth: 21, ceramic, colours: { cervical: of('gum'), middle: of('body'), incisal: of('edge') } };
};
const CHOICE = { design: 'ceramic-crown', own: [] } as const;
const lookOf = (ceramic: string, plates: readonly MeasuredCeramic[] = []) =>
  ask(engine, 'smileColours', [read(ceramic)], CHOICE, plates)[0];

describe('the planned smile in predicted colour', () => {
  const clear = lookOf('glass-high');
  const dense = lookOf('zirconia-strong');
  if (!clear || !dense) throw new Error('Nothing is predicted.');

  it('each third looks as it does where it is matched alone', () => {
    for (const t of clear.thirds) {
      const zone = ({ cervical: 'gum', middle: 'body', incisal: 'edge' } as const)[t.third];
      const own = ask(engine, 'colourOverStump', 21, CHOICE, {
        ...read('glass-high').colours[t.third],
        third: t.third,
        ceramic: 'glass-high',
        wanted: at(11, zone),
        cement: 'clear',
      });
      const planned = own?.candidates.find((c) => c.ceramic === 'glass-high')?.planned.lab;
      expect(deltaE00(planned ?? t.lab, t.lab)).toBeLessThan(0.15);
      expect(planned).toBeDefined();
    }
  });

  it('where the ceramic is clear the stump shows all over, and through dense zirconia nowhere on the thick of the face', () => {
    const shown = (l: typeof clear) =>
      [...l.showsDE].filter((v) => v > 1.8).length / l.showsDE.filter((v) => v >= 0).length;
    expect(shown(clear)).toBeGreaterThan(0.5);
    expect(shown(dense)).toBeLessThan(0.2);
  });

  it('at a place it is as thick as three-mesh-bvh measures, and looks so', () => {
    const { surface } = ask(engine, 'target', 21, CHOICE);
    const g = new THREE.BufferGeometry();
    g.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(surface.mesh.positions), 3));
    g.setIndex(new THREE.BufferAttribute(surface.mesh.triangles, 1));
    const bvh = new MeshBVH(g);
    const { positions } = engine.crown(21).mesh;
    const zone = read('glass-high').colours.middle;
    if (!zone) throw new Error('The middle was not read.');
    const q = ask(engine, 'colourOverStump', 21, CHOICE, { ...zone, third: 'middle', ceramic: 'glass-high' });
    if (!q) throw new Error('No ceramic is planned.');
    const through = throughCeramic(
      { ...zone, enamelMm: q.enamelMm, cutMm: q.cutMm, ceramicMm: q.ceramicMm },
      ceramicOfClass(ceramicOf('glass-high')),
    );
    let tried = 0;
    for (let v = 0; v < positions.length / 3; v += 5) {
      const p = new THREE.Vector3(...positions.subarray(3 * v, 3 * v + 3));
      // Half way up the crown the middle third alone has a say.
      if (Math.abs(p.z - 5.25) > 0.12) continue;
      const mm = bvh.closestPointToPoint(p)?.distance ?? 0;
      if (mm < 0.15) continue;
      tried++;
      const rgb = screenRgb(lookedUp(through, mm).lab);
      for (let c = 0; c < 3; c++) expect(Math.abs((clear.rgb[3 * v + c] ?? 0) - (rgb[c] ?? 0))).toBeLessThan(0.02);
    }
    expect(tried).toBeGreaterThan(5);
  });

  it('between the thicknesses that were worked out the colour is that of the theory within 0.1', () => {
    const q = { tooth: at(21, 'body'), wanted: at(11, 'body'), cement: 'clear', enamelMm: 0.9, cutMm: 0.6 } as const;
    const glass = ceramicOfClass(ceramicOf('glass-medium'));
    const curve = throughCeramic({ ...q, ceramicMm: 1 }, glass);
    for (const mm of [0.35, 0.77, 1.23, 1.95]) {
      const [own] = matched({ ...q, ceramicMm: mm }, [glass]).candidates;
      expect(deltaE00(lookedUp(curve, mm).lab, own?.planned.lab ?? q.wanted)).toBeLessThan(0.1);
    }
  });

  it('teeth without a reading are left out', () => {
    expect(ask(engine, 'smileColours', [], CHOICE)).toEqual([]);
    const uncovered = ask(engine, 'smileColours', [{ tooth: 21, ceramic: 'glass-high', colours: {} }], CHOICE);
    expect(uncovered).toEqual([]);
  });

  it('the sample patient’s camera and shade meter see the same: a root darkens both alike', () => {
    // The reading of the dark tooth is that of the sound one with the light that the root leaves.
    expect(at(21, 'body').L).toBeLessThan(at(11, 'body').L - 8);
    expect(shadeOf('A2').lab.L).toBeGreaterThan(at(21, 'body').L);
    expect(makePatient(inState(CURLEW, 'final')).teeth.find((t) => t.tooth === 21)?.trait.dark).toBe(0);
  });
});
