import {
  areasBefore,
  cross,
  crownZenith,
  designOf,
  type ExistingArch,
  existingArch,
  firstContour,
  frontRow,
  neededAt,
  planFromWaxUp,
  plannedTooth,
  readScan,
  signedDistances,
  signedField,
  sub,
  targetSurface,
  toLocal,
  toParent,
  type Vec3,
} from '@radiant/core';
import { INTRAORAL_SCANNER, makePatient, type Patient, scan, scatteredRecipe } from '@radiant/standins';
import { pickTrial } from './trials/pick.js';
import { DAY, share } from './trials/rotating.js';

/** Teeth bent, squeezed and moved by a field, so that no numbers of the library make them. */
const ODD_MM = 0.35;
const at = (list: readonly number[], part: number): number =>
  [...list].sort((p, q) => p - q)[Math.min(list.length - 1, Math.floor(part * list.length))] as number;

describe('on teeth that the library can’t make', () => {
  const mouths = [60, 61, 62, 63].map((seed) => {
    const patient = makePatient({ ...scatteredRecipe(seed), oddMm: ODD_MM });
    return { patient, arch: existingArch(readScan(scan(patient, INTRAORAL_SCANNER))) };
  });
  const each = <T>(of: (patient: Patient, arch: ExistingArch, tooth: Patient['teeth'][0]) => T): T[] =>
    mouths.flatMap(({ patient, arch }) => patient.teeth.map((t) => of(patient, arch, t)));

  it('the forms do not lie on them as they lie on their own', () => {
    const own = existingArch(readScan(scan(makePatient(scatteredRecipe(60)), INTRAORAL_SCANNER)));
    const fits = each((_, arch, t) => arch.teeth.get(t.tooth)?.fitMm ?? 9);
    expect(at(fits, 0.5)).toBeGreaterThan(
      2 *
        at(
          [...own.teeth.values()].map((t) => t.fitMm),
          0.5,
        ),
    );
  });

  it('width and length are measured as well: 95 in 100 within 0.25 mm, each within 0.4', () => {
    const width = each((_, arch, t) => Math.abs((arch.teeth.get(t.tooth)?.widthMm ?? 0) - t.crown.size.widthMm));
    const length = each((_, arch, t) => Math.abs((arch.teeth.get(t.tooth)?.lengthMm ?? 0) - t.crown.size.lengthMm));
    for (const off of [width, length]) {
      expect(at(off, 0.95)).toBeLessThan(0.25);
      expect(at(off, 1)).toBeLessThan(0.4);
    }
  });

  it('a premolar is as long as its facial cusp: a caliper on the palatal one would read two millimetres more', () => {
    const off = each((_, arch, t) =>
      t.tooth % 10 > 3 ? Math.abs((arch.teeth.get(t.tooth)?.lengthMm ?? 0) - t.crown.size.lengthMm) : 0,
    );
    expect(at(off, 1)).toBeLessThan(0.4);
  });

  it('what is removed is within 3 % of what the face’s own triangles say, of each tooth within 10 %', () => {
    const all = { faced: 0, own: 0 };
    const { arch } = mouths[0] as (typeof mouths)[0];
    const plan = firstContour(arch, new Map());
    const design = designOf('graduated');
    for (const tooth of frontRow()) {
      const there = arch.teeth.get(tooth);
      if (!there) throw new Error(`${tooth} is gone.`);
      const planned = plannedTooth(arch, plan, tooth);
      const { frame, crown } = planned;
      const zenith = crownZenith(crown)[2];
      const { positions: p, triangles } = there.field.mesh;
      const corner = (v: number): Vec3 => toLocal(frame, [p[3 * v], p[3 * v + 1], p[3 * v + 2]] as unknown as Vec3);
      // The face away from its ends: over the cut edge, under the finish line, in front of the contacts.
      const inside = ([x, , z]: Vec3) => z > 2 && z < 0.85 * zenith && Math.abs(x) < 0.32 * crown.size.widthMm;
      const face: { at: Vec3; share: number; areaMm2: number }[] = [];
      for (let t = 0; t < triangles.length; t += 3) {
        const [q, r, s] = [0, 1, 2].map((k) => corner(triangles[t + k] as number)) as [Vec3, Vec3, Vec3];
        const n = cross(sub(r, q), sub(s, q));
        const twice = Math.hypot(...n);
        const middle = [0, 1, 2].map((k) => ((q[k] as number) + (r[k] as number) + (s[k] as number)) / 3) as [
          number,
          number,
          number,
        ];
        if (-n[1] / twice < 0.25 || middle[1] > 0.5 || !inside(middle)) continue;
        face.push({ at: toParent(frame, middle), share: middle[2] / zenith, areaMm2: twice / 2 });
      }
      const gaps = signedDistances(signedField(planned.mesh), Float64Array.from(face.flatMap((f) => f.at)));
      const own = face.reduce(
        (n, f, i) => n + Math.max(0, neededAt(design, f.share) + (gaps[i] as number)) * f.areaMm2,
        0,
      );
      const target = targetSurface(arch, plan, tooth, design);
      const areas = areasBefore(target);
      let faced = 0;
      for (let i = 0; i < areas.length; i++) {
        const at = toLocal(frame, target.before.positions.subarray(3 * i, 3 * i + 3) as unknown as Vec3);
        if (target.covered[i] === 1 && inside(at)) faced += (areas[i] as number) * (target.removedMm[i] as number);
      }
      expect(Math.abs(faced / own - 1)).toBeLessThan(0.1);
      all.faced += faced;
      all.own += own;
    }
    expect(Math.abs(all.faced / all.own - 1)).toBeLessThan(0.03);
  });

  it('a wax-up of such teeth is followed as near as the forms go, and what they miss is told', () => {
    const { arch } = mouths[1] as (typeof mouths)[0];
    const waxed = (mouths[2] as (typeof mouths)[0]).arch;
    const { off } = planFromWaxUp(arch, waxed, [11, 21]);
    for (const o of off) {
      expect(o.medianMm).toBeLessThan(0.3);
      expect(o.p95Mm).toBeGreaterThan(0.05);
    }
  });
});

/** Five kinds of mouth with such teeth; one jaw each day. */
describe(`picked out of a whole jaw, such teeth (${share})`, () => {
  const [seed, jaw] = [700 + (DAY % 5), DAY % 2 === 0 ? 'upper' : 'lower'] as const;
  it(`${seed} ${jaw}: every tooth is found, with its number, and overlaps the true crown by 0.85 at least`, () => {
    const t = pickTrial(seed, jaw, ODD_MM);
    expect(t.found).toBe(t.of);
    expect(t.numbersRight).toBe(true);
    expect(at(t.iou, 0)).toBeGreaterThan(0.85);
    expect(at(t.iou, 0.5)).toBeGreaterThan(0.93);
    expect(at(t.necks, 0.5)).toBeLessThan(0.2);
  });
});
