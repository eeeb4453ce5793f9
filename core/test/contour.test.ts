import {
  archTurn,
  bounds,
  contacts,
  contourDifference,
  type ExistingTooth,
  existingArch,
  FIRST_GAP_MM,
  facialOutline,
  firstContour,
  frontRow,
  isPlannable,
  madeRoom,
  median,
  PLAN_LIMITS,
  plannedTooth,
  planOfExisting,
  readScan,
  ringVertex,
  setContacts,
  sub,
  type ToothPlan,
  takenIn,
  toParent,
  UPPER_TEN,
} from '@radiant/core';
import {
  AVOCET,
  INTRAORAL_SCANNER,
  makePatient,
  type PatientRecipe,
  scan,
  scatteredRecipe,
  TURNSTONE,
} from '@radiant/standins';

const seen = (recipe: PatientRecipe) => {
  const patient = makePatient(recipe);
  return { patient, arch: existingArch(readScan(scan(patient, INTRAORAL_SCANNER))) };
};
const avocet = seen(AVOCET);
const found = (t: number) => avocet.arch.teeth.get(t) as ExistingTooth;

describe('a scan’s teeth, measured', () => {
  const cases = [
    ['Avocet', avocet],
    ['a patient of seed 71', seen(scatteredRecipe(71))],
  ] as const;

  it.each(cases)(
    'of %s: width within 0.15 mm and length within 0.2 mm of what was modelled',
    (_, { patient, arch }) => {
      for (const t of frontRow()) {
        const truth = patient.teeth.find((p) => p.tooth === t)?.crown.size;
        expect(Math.abs((arch.teeth.get(t)?.widthMm ?? 0) - (truth?.widthMm ?? 0))).toBeLessThan(0.15);
        expect(Math.abs((arch.teeth.get(t)?.lengthMm ?? 0) - (truth?.lengthMm ?? 0))).toBeLessThan(0.2);
      }
    },
  );

  it.each(cases)('of %s: the form lies on the tooth to less than a tenth', (_, { arch }) => {
    for (const t of frontRow()) expect(arch.teeth.get(t)?.fitMm).toBeLessThan(0.1);
  });

  it('wear is seen: more on the left central than the right, little on the laterals', () => {
    expect(found(21).wearMm).toBeGreaterThan(found(11).wearMm);
    expect(found(11).wearMm).toBeGreaterThanOrEqual(0.4);
    for (const t of [12, 22]) expect(found(t).wearMm).toBeLessThanOrEqual(0.4);
  });

  it('the turned lateral is the most turned of the six', () => {
    const turns = frontRow().map((t) => Math.abs(found(t).rotationDeg));
    expect(turns.indexOf(Math.max(...turns))).toBe(frontRow().indexOf(22));
    expect(found(22).rotationDeg).toBeGreaterThan(4);
  });

  it('the arch turns away to both sides of the midline alike', () => {
    const { arch } = avocet.arch;
    expect(archTurn(arch, arch.x0)).toBeCloseTo(0, 9);
    expect(archTurn(arch, arch.x0 + 12)).toBeCloseTo(-archTurn(arch, arch.x0 - 12), 9);
    expect(Math.abs(archTurn(arch, arch.x0 + 16))).toBeGreaterThan(20);
  });
});

describe('the teeth as a plan', () => {
  const plan = planOfExisting(avocet.arch);

  it('has the six, within the limits, in steps of five hundredths', () => {
    expect(Object.keys(plan).map(Number).sort()).toEqual([...frontRow()].sort());
    for (const t of frontRow()) {
      const p = plan[t];
      expect(p?.lengthMm).toBeCloseTo(found(t).lengthMm, 1);
      expect(Math.round((p?.widthMm ?? 0) * 20)).toBeCloseTo((p?.widthMm ?? 0) * 20, 6);
      for (const k of ['lengthMm', 'widthMm', 'facialVolumeMm', 'rotationDeg'] as const) {
        expect(p?.[k]).toBeGreaterThanOrEqual(PLAN_LIMITS[k].min);
        expect(p?.[k]).toBeLessThanOrEqual(PLAN_LIMITS[k].max);
      }
    }
  });

  it('keeps the gum line: a longer crown grows at the edge alone', () => {
    const top = (lengthMm: number) => {
      const p = plannedTooth(avocet.arch, { ...plan, 11: { ...plan[11], lengthMm } } as typeof plan, 11);
      let [hi, lo] = [-Infinity, Infinity];
      for (let i = 2; i < p.mesh.positions.length; i += 3) {
        hi = Math.max(hi, p.mesh.positions[i] as number);
        lo = Math.min(lo, p.mesh.positions[i] as number);
      }
      return { hi, lo };
    };
    const [short, long] = [top(10), top(11)];
    expect(Math.abs(long.hi - short.hi)).toBeLessThan(0.1);
    expect(short.lo - long.lo).toBeGreaterThan(0.85);
  });

  it('a wider central moves its lateral outward by as much, and leaves the other side alone', () => {
    const at = (p: typeof plan, t: number) => plannedTooth(avocet.arch, p, t).frame.origin;
    const wide = { ...plan, 11: { ...plan[11], widthMm: (plan[11]?.widthMm ?? 0) + 0.6 } } as typeof plan;
    const moved = sub(at(wide, 12), at(plan, 12));
    expect(Math.hypot(...moved)).toBeGreaterThan(0.5);
    expect(Math.hypot(...moved)).toBeLessThan(0.7);
    expect(moved[0]).toBeLessThan(0);
    expect(at(wide, 22)).toEqual(at(plan, 22));
  });

  it('a positive rotation brings the mesial edge forward on both sides', () => {
    for (const [t, mesial] of [
      [12, 1],
      [22, -1],
    ] as const) {
      const y = (rotationDeg: number) => {
        const p = plannedTooth(avocet.arch, { ...plan, [t]: { ...plan[t], rotationDeg } } as typeof plan, t);
        return toParent(p.frame, [3 * mesial, 0, 3])[1];
      };
      // y runs backward, so forward is less.
      expect(y(10)).toBeLessThan(y(0));
      expect(y(-10)).toBeGreaterThan(y(0));
    }
  });
});

describe('the first contour', () => {
  const targets = new Map(
    frontRow().map((t) => [t, { lengthMm: found(t).lengthMm + 0.6, widthMm: found(t).widthMm }] as const),
  );
  const plan = firstContour(avocet.arch, targets);

  it('takes lengths and widths from the targets, and turns the teeth into the arch', () => {
    for (const t of frontRow()) {
      expect(plan[t]?.lengthMm).toBeCloseTo(targets.get(t)?.lengthMm ?? 0, 1);
      expect(plan[t]?.widthMm).toBeCloseTo(targets.get(t)?.widthMm ?? 0, 1);
      expect(plan[t]?.rotationDeg).toBe(0);
    }
  });

  it('adds facially until the plan lies in front of the teeth, and never hollows the form', () => {
    for (const t of frontRow()) {
      const mm = plan[t]?.facialVolumeMm ?? -1;
      expect(mm).toBeGreaterThanOrEqual(0);
      expect(mm).toBeLessThanOrEqual(0.8);
    }
    const fuller = frontRow().filter((t) => (plan[t]?.facialVolumeMm ?? 0) > 0);
    expect(fuller.length).toBeGreaterThan(1);
    expect(FIRST_GAP_MM).toBe(0.25);
  });

  it('lies in front of the middle of every face by about the quarter millimetre that it aims at', () => {
    for (const t of [12, 11, 21, 22]) {
      const p = plannedTooth(avocet.arch, plan, t);
      const d = contourDifference(avocet.arch, p);
      const face = [18, 20, 22].flatMap((ring) => [20, 24, 28].map((k) => d[ringVertex(p.crown, ring, k)] as number));
      expect(median(face)).toBeGreaterThan(0.1);
      expect(median(face)).toBeLessThan(0.6);
    }
  });

  it('keeps a target that no crown form has within the limits', () => {
    const far = firstContour(avocet.arch, new Map(frontRow().map((t) => [t, { lengthMm: 30, widthMm: 1 }] as const)));
    for (const t of frontRow())
      expect([far[t]?.lengthMm, far[t]?.widthMm]).toEqual([PLAN_LIMITS.lengthMm.max, PLAN_LIMITS.widthMm.min]);
  });
});

it('front teeth and premolars of both jaws can be planned, molars not', () => {
  expect([...UPPER_TEN, 31, 35, 43].every(isPlannable)).toBe(true);
  expect([16, 26, 36, 46].some(isPlannable)).toBe(false);
});

const { arch, patient } = avocet;

describe('a premolar taken into the plan', () => {
  it.each([14, 15, 24, 25])('%i stands where it stood and measures what it measured', (tooth) => {
    const plan = { ...planOfExisting(arch), [tooth]: takenIn(arch, planOfExisting(arch), tooth) };
    const p = plannedTooth(arch, plan, tooth);
    const there = arch.teeth.get(tooth) as ExistingTooth;
    const truth = patient.teeth.find((t) => t.tooth === tooth);
    expect(Math.abs(there.widthMm - (truth?.crown.size.widthMm ?? 0))).toBeLessThan(0.1);
    expect(Math.abs(there.lengthMm - (truth?.crown.size.lengthMm ?? 0))).toBeLessThan(0.1);
    for (let i = 0; i < 3; i++)
      expect(Math.abs((p.frame.origin[i as 0] as number) - (there.frame.origin[i as 0] as number))).toBeLessThan(0.1);
    expect(median([...contourDifference(arch, p)].map(Math.abs))).toBeLessThan(0.1);
  });
});

describe('how a planned crown stands', () => {
  const plan = planOfExisting(arch);
  const at = (change: object) => plannedTooth(arch, { ...plan, 21: { ...(plan[21] as ToothPlan), ...change } }, 21);
  const still = at({});
  const zenith = (p: ReturnType<typeof at>) => {
    let best: [number, number, number] = [0, 0, -Infinity];
    for (let k = 0; k <= p.crown.ringSize / 2; k++) {
      const v = 3 * k;
      if ((p.crown.mesh.positions[v + 2] as number) > best[2]) best = [v, 0, p.crown.mesh.positions[v + 2] as number];
    }
    return [0, 1, 2].map((i) => p.mesh.positions[best[0] + i] as number);
  };

  it.each([
    ['tipDeg', 6],
    ['torqueDeg', 8],
  ])('%s turns the axis by as much about the zenith, which stays', (key, deg) => {
    const p = at({ [key]: deg });
    const cos = [0, 1, 2].reduce(
      (sum, i) => sum + (p.frame.z[i as 0] as number) * (still.frame.z[i as 0] as number),
      0,
    );
    expect((Math.acos(cos) * 180) / Math.PI).toBeCloseTo(deg, 4);
    zenith(p).forEach((v, i) => {
      expect(Math.abs(v - (zenith(still)[i] as number))).toBeLessThan(0.15);
    });
    // Positive brings the edge to the midline, and forward.
    const edge = p.frame.origin;
    if (key === 'tipDeg') expect(Math.abs(edge[0])).toBeLessThan(Math.abs(still.frame.origin[0]) - 0.5);
    else expect(edge[1]).toBeLessThan(still.frame.origin[1] - 0.8);
  });

  it('forward and away from the midline move it by as much', () => {
    const p = at({ forwardMm: 0.6, distalMm: 0.4 });
    const by = [0, 1].map((i) => (p.frame.origin[i as 0] as number) - (still.frame.origin[i as 0] as number));
    expect(Math.hypot(...by)).toBeCloseTo(Math.hypot(0.6, 0.4), 2);
    expect(by[0]).toBeGreaterThan(0.3);
    expect(by[1]).toBeLessThan(-0.3);
  });
});

describe('a mouth that lacks both laterals', () => {
  const missing = makePatient(TURNSTONE);
  const lacking = existingArch(readScan(scan(missing, INTRAORAL_SCANNER), []));

  it('is measured, and a canine taken in stands where it stands, beside the central', () => {
    expect([...lacking.teeth.keys()]).toEqual([15, 14, 13, 11, 21, 23, 24, 25]);
    const plan = { 13: takenIn(lacking, {}, 13) };
    const p = plannedTooth(lacking, plan, 13);
    const there = lacking.teeth.get(13) as ExistingTooth;
    for (let i = 0; i < 3; i++)
      expect(Math.abs((p.frame.origin[i as 0] as number) - (there.frame.origin[i as 0] as number))).toBeLessThan(0.1);
  });

  it('gets a first contour of the teeth that are there, and contacts across the missing ones', () => {
    const plan = firstContour(lacking, new Map());
    expect(Object.keys(plan).map(Number)).toEqual([11, 13, 21, 23]);
    const set = setContacts(lacking, plan, 0.02);
    expect(set.left).toEqual([]);
    const met = contacts(
      lacking,
      new Map([11, 13, 21, 23].map((t) => [t, plannedTooth(lacking, set.plan, t)] as const)),
    );
    expect(Math.abs((met.find((c) => c.right === 13 && c.left === 11)?.gapMm ?? 9) + 0.02)).toBeLessThan(0.04);
  });

  it('without a central it is refused in a sentence', () => {
    const read = readScan(scan(missing, INTRAORAL_SCANNER), []);
    const teeth = new Map([...read.teeth].filter(([t]) => t !== 21));
    expect(() => existingArch({ ...read, teeth })).toThrow(/both centrals and two more/);
  });
});

describe('room between the premolars', () => {
  it('is made by narrowing the side that has none, until the canine meets the premolar, and the other side stays', () => {
    const plan = firstContour(arch, new Map());
    const before = contacts(arch, new Map(frontRow().map((t) => [t, plannedTooth(arch, plan, t)] as const)));
    expect(before.find((c) => c.right === 23)?.gapMm).toBeLessThan(-0.2);
    const made = madeRoom(arch, plan, 0.02);
    const after = contacts(arch, new Map(frontRow().map((t) => [t, plannedTooth(arch, made.plan, t)] as const)));
    expect(Math.abs((after.find((c) => c.right === 23)?.gapMm ?? 9) + 0.02)).toBeLessThan(0.03);
    expect(made.narrowed.map((n) => n.side)).toEqual(['left']);
    const sum = (p: typeof plan) => [21, 22, 23].reduce((n, t) => n + (p[t]?.widthMm ?? 0), 0);
    expect(made.narrowed[0]?.takenMm).toBeCloseTo(sum(plan) - sum(made.plan), 9);
    for (const t of [11, 12, 13]) expect(made.plan[t]).toEqual(plan[t]);
    // All three by the same share.
    const shares = [21, 22, 23].map((t) => (made.plan[t]?.widthMm ?? 0) / (plan[t]?.widthMm ?? 1));
    expect(Math.max(...shares) - Math.min(...shares)).toBeLessThan(0.001);
  });
});

describe('contacts between neighbours', () => {
  it('are set to the wished tightness, and a neighbour passed into is told with its depth', () => {
    const plan = planOfExisting(arch);
    const set = setContacts(arch, plan, 0.03);
    const planned = new Map(frontRow().map((t) => [t, plannedTooth(arch, set.plan, t)] as const));
    expect(set.left).toEqual([]);
    for (const c of contacts(arch, planned))
      if (frontRow().includes(c.right) && frontRow().includes(c.left))
        expect(Math.abs(c.gapMm + 0.03)).toBeLessThan(0.035);
    const pushed = {
      ...set.plan,
      22: { ...(set.plan[22] as ToothPlan), distalMm: (set.plan[22]?.distalMm ?? 0) - 0.3 },
    };
    const after = contacts(arch, new Map(frontRow().map((t) => [t, plannedTooth(arch, pushed, t)] as const)));
    expect(after.find((c) => c.right === 21)?.gapMm).toBeLessThan(-0.15);
  });
});

it('the middle of a list is its middle value, or the mean of the two', () => {
  expect(median([5, 1, 3])).toBe(3);
  expect(median([4, 1, 3, 2])).toBe(2.5);
  expect(median([])).toBeNaN();
});

it('an outline runs once round the face: its area is between half and all of its box', () => {
  const p = plannedTooth(avocet.arch, planOfExisting(avocet.arch), 11);
  const o = facialOutline(p.crown);
  let twice = 0;
  for (let i = 0; i < o.length; i += 2) {
    const j = (i + 2) % o.length;
    twice += (o[i] as number) * (o[j + 1] as number) - (o[j] as number) * (o[i + 1] as number);
  }
  const box = p.crown.size.widthMm * p.crown.size.lengthMm;
  expect(Math.abs(twice) / 2).toBeGreaterThan(0.6 * box);
  expect(Math.abs(twice) / 2).toBeLessThan(box);
});

it('a zenith moved up carries the crown with it: as much longer a crown then keeps its edge', () => {
  const base = planOfExisting(avocet.arch);
  const own = base[11] as NonNullable<(typeof base)[11]>;
  const at = (over: object) => plannedTooth(avocet.arch, { ...base, 11: { ...own, ...over } }, 11);
  const levels = (t: ReturnType<typeof at>) => {
    const b = bounds(t.mesh);
    return { low: b.min[2], high: b.max[2] };
  };
  const before = levels(at({}));
  const raised = levels(at({ zenithUpMm: 1.2 }));
  expect(raised.low - before.low).toBeCloseTo(1.2, 6);
  const longer = levels(at({ zenithUpMm: 1.2, lengthMm: own.lengthMm + 1.2 }));
  expect(longer.high - before.high).toBeGreaterThan(1);
  expect(Math.abs(longer.low - before.low)).toBeLessThan(0.1);
});

describe('crowns of a first contour that press into each other', () => {
  it('are slid apart, and a gap that is wished stays', () => {
    const plan = firstContour(arch, new Map());
    const pressed = { ...plan, 12: { ...plan[12], distalMm: -0.3 }, 22: { ...plan[22], distalMm: 0.4 } } as typeof plan;
    const gap = (p: typeof plan, right: number) =>
      contacts(arch, new Map(frontRow().map((t) => [t, plannedTooth(arch, p, t)] as const))).find(
        (c) => c.right === right,
      )?.gapMm ?? 9;
    expect(gap(pressed, 12)).toBeLessThan(-0.15);
    expect(gap(pressed, 21)).toBeGreaterThan(0.2);
    const { plan: apart, left } = setContacts(arch, pressed, 0.02, 'pressed');
    expect(left).toEqual([]);
    expect(Math.abs(gap(apart, 12) + 0.02)).toBeLessThan(0.03);
    expect(gap(apart, 21)).toBeCloseTo(gap(pressed, 21), 6);
    expect(apart[22]).toEqual(pressed[22]);
  });
});

describe('room where only some of the front is planned', () => {
  it('four incisors are narrowed until their laterals meet the canines, which stay', () => {
    const four = new Map(
      [12, 11, 21, 22].map((t) => [t, { lengthMm: found(t).lengthMm, widthMm: found(t).widthMm + 0.4 }]),
    );
    const plan = firstContour(arch, four);
    const gap = (p: typeof plan, right: number) =>
      contacts(arch, new Map([12, 11, 21, 22].map((t) => [t, plannedTooth(arch, p, t)] as const))).find(
        (c) => c.right === right,
      )?.gapMm ?? 9;
    expect(Math.min(gap(plan, 13), gap(plan, 22))).toBeLessThan(-0.1);
    const made = madeRoom(arch, plan, 0.02);
    for (const right of [13, 22]) expect(gap(made.plan, right)).toBeGreaterThan(-0.03);
    for (const n of made.narrowed) expect(n.takenMm).toBeGreaterThan(0.05);
    // One lateral alone as well.
    const one = firstContour(arch, new Map([[22, { lengthMm: 9, widthMm: found(22).widthMm + 0.8 }]]));
    const alone = madeRoom(arch, one, 0.02);
    expect(alone.narrowed.map((n) => n.side)).toEqual(['left']);
    expect(Object.keys(alone.plan)).toEqual(['22']);
    // And a central before a lateral that stays, though the canine behind that is planned too.
    const apart = firstContour(
      arch,
      new Map([11, 13].map((t) => [t, { lengthMm: 10, widthMm: found(t).widthMm + (t === 11 ? 2.4 : 0) }])),
    );
    const room = madeRoom(arch, apart, 0.02);
    expect(room.plan[11]?.widthMm).toBeLessThan((apart[11]?.widthMm ?? 0) - 0.1);
    expect(room.plan[13]?.widthMm).toBeLessThanOrEqual(apart[13]?.widthMm ?? 0);
  });
});
