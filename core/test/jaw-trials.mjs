// Trials on many virtual jaws, in a process of its own: inside Jest's context the same work takes five times as long. It is told
// what to try and answers with one line of JSON. The jaws' seeds are none of the demo's.
import {
  asSegmented,
  box,
  buildTree,
  closestPoints,
  existingArch,
  frameToArch,
  groundOf,
  inMouthOf,
  inverse,
  laidByClicks,
  laidByShape,
  layOnto,
  lookedAnew,
  mouthFrame,
  pickedCrowns,
  pickTeeth,
  placeMesh,
  repaired,
  toLocal,
  toParent,
  turn,
} from '@radiant/core';
import { AVOCET, makePatient, random, scatteredRecipe, WHOLE_SCANNER, wholeJaw } from '@radiant/standins';

const KINDS = ['plain', 'crowded', 'spaced', 'worn', 'missing'];
const LOWER = [45, 44, 43, 42, 41, 31, 32, 33, 34, 35];

function recipeOf(seed) {
  const r = random(seed);
  const traits = { ...scatteredRecipe(seed).traits };
  for (const t of LOWER) traits[t] = { rotationDeg: r.normal(5) };
  const kind = KINDS[seed % KINDS.length];
  const missing = [];
  const add = (t, more) => {
    traits[t] = { ...traits[t], ...more };
  };
  if (kind === 'crowded')
    for (const t of [12, 22, 32, 42, 11, 41]) add(t, { rotationDeg: (r.next() < 0.5 ? -1 : 1) * (10 + 8 * r.next()), forwardMm: r.normal(0.6) });
  if (kind === 'spaced') for (const t of [11, 21, 12, 22, 13, 31, 42]) add(t, { gapMesialMm: 0.2 + 0.9 * r.next() });
  if (kind === 'worn') for (const t of [11, 21, 12, 22, 13, 23, 31, 41]) add(t, { wearMm: 1 + r.next(), lengthMm: 7.6 + r.next() });
  if (kind === 'missing') missing.push(r.next() < 0.5 ? 12 : 22, r.next() < 0.5 ? 32 : 42);
  return { seed, traits, missing };
}

/** The truth of each triangle of a mended mesh: that of the nearest triangle as it was scanned. */
function truthOn(mesh, whole) {
  const n = mesh.triangles.length / 3;
  const middles = new Float64Array(3 * n);
  for (let t = 0; t < n; t++)
    for (let k = 0; k < 3; k++) for (let c = 0; c < 3; c++) middles[3 * t + k] += mesh.positions[3 * mesh.triangles[3 * t + c] + k] / 3;
  return closestPoints(buildTree(whole.mesh), middles).faces.reduce((out, f, t) => {
    out[t] = whole.truth[f];
    return out;
  }, new Uint8Array(n));
}

/** Middles of the edges between a tooth and the gum. */
function neckLine(mesh, across, tooth) {
  const out = [];
  for (let k = 0; k < across.length; k++) {
    const [t, other] = [Math.floor(k / 3), across[k]];
    if (other <= t || (tooth[t] === 0) === (tooth[other] === 0)) continue;
    const [a, b] = [mesh.triangles[k], mesh.triangles[3 * t + ((k + 1) % 3)]];
    out.push([0, 1, 2].map((c) => (mesh.positions[3 * a + c] + mesh.positions[3 * b + c]) / 2));
  }
  return out;
}

function pickTrial(seed, jaw) {
  const patient = makePatient(recipeOf(seed));
  const whole = wholeJaw(patient, jaw, { ...WHOLE_SCANNER, seed });
  const { mesh } = repaired(whole.mesh);
  const { look } = laidByShape(mesh, jaw, undefined, new Set(patient.recipe.missing));
  const row = (jaw === 'upper' ? patient.teeth : patient.lower).map((t) => t.tooth);
  // In the order in which x grows in the arch's own frame.
  const order = jaw === 'upper' ? row : [...row].reverse();
  const places = [...look.teeth.values()].sort((p, q) => p.from - q.from);
  const numbersRight = [...look.teeth].every(([t, p]) => order[places.indexOf(p)] === t);
  if (places.length !== order.length) return { seed, jaw, kind: KINDS[seed % 5], found: places.length, of: order.length, iou: [], necks: [], numbersRight };
  const picked = pickTeeth(look, new Map(places.map((p, i) => [order[i], p])));
  const truth = truthOn(mesh, whole);
  const both = new Map();
  const either = new Map();
  const one = (m, k) => m.set(k, (m.get(k) ?? 0) + 1);
  picked.triangles.forEach((t, i) => {
    if (t === truth[i]) one(both, t);
    else one(either, truth[i]);
    one(either, t);
  });
  const line = neckLine(look.mesh, look.adjacency.across, truth);
  const necks = neckLine(look.mesh, look.adjacency.across, picked.triangles).map((p) =>
    Math.sqrt(line.reduce((least, q) => Math.min(least, (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2), Infinity)),
  );
  return {
    seed,
    jaw,
    kind: KINDS[seed % 5],
    found: places.length,
    of: order.length,
    iou: order.map((t) => [t, (both.get(t) ?? 0) / (either.get(t) ?? 1)]),
    necks,
    numbersRight,
    doubts: picked.doubts,
  };
}

/** Stands on the middle of a tooth's face: 3.4 mm wide, 3 high, a good millimetre and a half out of it. */
function bracketOn(t) {
  const p = t.crown.mesh.positions;
  const up = 0.45 * t.crown.size.lengthMm;
  let face = 0;
  for (let v = 0; v < p.length; v += 3) if (Math.abs(p[v + 2] - up) < 0.4 && Math.abs(p[v]) < 0.5) face = Math.min(face, p[v + 1]);
  return { ...t, mesh: placeMesh(box(t.tooth > 40 && t.tooth % 10 < 3 ? 2.8 : 3.4, 2.4, 3), { ...t.frame, origin: toParent(t.frame, [0, face - 0.4, up]) }) };
}

/** A tooth whose corner to where x grows, or whose whole edge, is broken off by so many mm. */
function brokenOff(t, jaw, what, mm) {
  const frame = frameToArch(jaw, t.frame);
  const half = t.crown.size.widthMm / 2;
  const cut = (places) =>
    new Float64Array(places.length / 3).map((_, i) => {
      const [x, , z] = toLocal(frame, places.subarray(3 * i, 3 * i + 3));
      return what === 'edge' ? mm - z + 0.2 * x : (x - z - half + mm) / Math.SQRT2;
    });
  return { ...t, cut };
}

/** What is said of jaws with brackets from canine to canine, and of jaws with a central's corner and half a lateral gone. */
function troubleTrial(seeds) {
  const out = [];
  for (const seed of seeds)
    for (const jaw of ['upper', 'lower']) {
      const patient = makePatient(recipeOf(seed));
      const row = jaw === 'upper' ? patient.teeth : patient.lower;
      const [corner, half] = jaw === 'upper' ? [11, 22] : [41, 32];
      const damaged = row.map((t) => (t.tooth === corner ? brokenOff(t, jaw, 'corner', 3.2) : t.tooth === half ? brokenOff(t, jaw, 'edge', 4) : t));
      const brackets = row.filter((t) => t.tooth % 10 <= 3).map(bracketOn);
      for (const [what, mouth, over] of [
        ['brackets', patient, brackets],
        ['broken', { ...patient, [jaw === 'upper' ? 'teeth' : 'lower']: damaged }, []],
      ]) {
        const whole = wholeJaw(mouth, jaw, { ...WHOLE_SCANNER, seed }, over);
        const { mesh } = repaired(whole.mesh);
        const { look } = laidByShape(mesh, jaw, undefined, new Set(patient.recipe.missing));
        const { doubts, triangles } = pickTeeth(look, look.teeth);
        const truth = truthOn(mesh, whole);
        let [both, either] = [0, 0];
        triangles.forEach((t, i) => {
          if (t !== half && truth[i] !== half) return;
          either++;
          if (t === truth[i]) both++;
        });
        out.push({ seed, jaw, what, corner, half, doubts, halfIou: both / either });
      }
    }
  return out;
}

/** Triangles with their own vertices alone. */
function compacted(positions, kept) {
  const map = new Map();
  const own = kept.map((v) => {
    if (!map.has(v)) map.set(v, map.size);
    return map.get(v);
  });
  const p = new Float64Array(3 * map.size);
  for (const [v, i] of map) p.set(positions.subarray(3 * v, 3 * v + 3), 3 * i);
  return { positions: p, triangles: Uint32Array.from(own) };
}

/** The triangles whose first corner is wanted, as a surface of its own. */
function partOfScan({ mesh: { positions, triangles }, truth }, wanted) {
  const kept = [];
  for (let t = 0; t < truth.length; t++) {
    const at = 3 * triangles[3 * t];
    if (wanted(positions.subarray(at, at + 3), truth[t])) kept.push(...triangles.subarray(3 * t, 3 * t + 3));
  }
  return compacted(positions, kept);
}

/** What is said of scans that are no whole row: each part of one upper jaw, and its front laid by three clicks. */
function partsTrial() {
  const patient = makePatient(scatteredRecipe(611));
  const whole = wholeJaw(patient, 'upper', { ...WHOLE_SCANNER, stepMm: 0.35, seed: 611 });
  const parts = {
    whole: () => true,
    palate: ([x, y], tooth) => tooth === 0 && y > 10 && Math.abs(x) < 18,
    gum: (_, tooth) => tooth === 0,
    side: ([x]) => x > 2,
    front: ([, y]) => y < 9,
  };
  const said = (look) => {
    const { doubt, doubts, crowns } = pickTeeth(look, look.teeth);
    return { teeth: [...crowns.keys()].sort(), doubt: doubt ?? '', contacts: doubts.filter((d) => d.about === 'contact') };
  };
  const out = {};
  for (const [name, wanted] of Object.entries(parts)) {
    const { mesh } = repaired(partOfScan(whole, wanted));
    out[name] = said(laidByShape(mesh, 'upper').look);
    if (name !== 'front') continue;
    const tip = (tooth) => patient.teeth.find((t) => t.tooth === tooth).frame.origin;
    const middle = tip(11).map((v, k) => (v + tip(21)[k]) / 2);
    out.clicked = said(laidByClicks(mesh, 'upper', [middle, tip(13), tip(23)]).look);
  }
  // The centrals joined in their contact, and over their faces.
  const [right, left] = [11, 21].map((tooth) => patient.teeth.find((t) => t.tooth === tooth));
  const faceOf = ({ mesh: { positions: p }, frame }) =>
    p.reduce((least, y, i) => (i % 3 === 1 && Math.abs(p[i + 1] - frame.origin[2] - 4.5) < 0.5 ? Math.min(least, y) : least), Infinity);
  const face = (faceOf(right) + faceOf(left)) / 2;
  for (const [name, wide, high, behind] of [
    ['splint', 3, 8, 1.2],
    ['block', 5, 6, 0.3],
  ]) {
    const middle = [(right.frame.origin[0] + left.frame.origin[0]) / 2, face + 2.5 + behind, right.frame.origin[2] + 4];
    const joint = { ...right, mesh: placeMesh(box(wide, 5, high), { origin: middle, x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] }) };
    const { mesh } = repaired(wholeJaw(patient, 'upper', { ...WHOLE_SCANNER, seed: 611 }, [joint]).mesh);
    out[name] = said(laidByShape(mesh, 'upper').look);
  }
  return out;
}

function sizeTrial() {
  const out = [];
  for (const jaw of ['upper', 'lower']) {
    const patient = makePatient(scatteredRecipe(611));
    const { mesh } = repaired(wholeJaw(patient, jaw, { ...WHOLE_SCANNER, seed: 611 }).mesh);
    const { look } = laidByShape(mesh, jaw);
    const picked = pickTeeth(look, look.teeth);
    const arch = existingArch(asSegmented(inMouthOf(look), picked.triangles, jaw));
    const seen = picked.crowns;
    // The same jaw laid with the front seven degrees too high.
    const [s, c] = [Math.sin((7 * Math.PI) / 180), Math.cos((7 * Math.PI) / 180)];
    const tilted = pickedCrowns(lookedAnew(look, { origin: [0, 0, 0], x: [1, 0, 0], y: [0, c, s], z: [0, -s, c] }), picked.vertices);
    for (const { tooth, crown } of jaw === 'upper' ? patient.teeth : patient.lower) {
      const own = arch.teeth.get(tooth);
      const list = seen.get(tooth);
      out.push({
        tooth,
        widthOff: own.widthMm - crown.size.widthMm,
        lengthOff: own.lengthMm - crown.size.lengthMm,
        fitMm: own.fitMm,
        seenWidthOff: list.widthMm - crown.size.widthMm,
        seenLengthOff: list.lengthMm - crown.size.lengthMm,
        tiltedBy: tilted.get(tooth).lengthMm - list.lengthMm,
      });
    }
  }
  return out;
}

/** Most of the palate left out, in the mouth's coordinates. */
function withoutVault({ positions, triangles }) {
  const at = (t, k) => (positions[3 * triangles[t] + k] + positions[3 * triangles[t + 1] + k] + positions[3 * triangles[t + 2] + k]) / 3;
  const kept = [];
  for (let t = 0; t < triangles.length; t += 3) if (at(t, 1) < 9 || Math.abs(at(t, 0)) > 18) kept.push(triangles[t], triangles[t + 1], triangles[t + 2]);
  return compacted(positions, kept);
}

/** A jaw in its mock-up laid on itself before it from many starts. */
function layTrial(starts) {
  const setting = { ...WHOLE_SCANNER, stepMm: 0.3 };
  // Every tooth fuller and longer, nothing moved: the faces of all ten are another surface.
  const fuller = Object.fromEntries([15, 14, 13, 12, 11, 21, 22, 23, 24, 25].map((t) => [t, { ...AVOCET.traits[t], facialVolumeMm: 1.4, wearMm: 0 }]));
  const over = makePatient({ ...AVOCET, traits: { ...AVOCET.traits, ...fuller } }).teeth;
  const fixed = repaired(wholeJaw(makePatient(AVOCET), 'upper', { ...setting, seed: 404 }).mesh).mesh;
  // The second scan holds less of the palate, so that more of what it holds is altered.
  const other = withoutVault(repaired(wholeJaw(makePatient(AVOCET), 'upper', { ...setting, seed: 405 }, over).mesh).mesh);
  const ground = groundOf(fixed);
  const mouth = mouthFrame(fixed, 'upper').frame;
  const r = random(77);
  const off = [];
  for (let k = 0; k < starts; k++) {
    let f = { origin: [r.normal(40), r.normal(40), r.normal(40)], x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
    for (const axis of ['x', 'y', 'z']) f = turn(f, axis, r.next() * 360);
    const moved = placeMesh(other, f);
    const own = inverse(mouthFrame(moved, 'upper').frame);
    const start = {
      origin: toParent(mouth, own.origin),
      ...Object.fromEntries(['x', 'y', 'z'].map((a) => [a, [0, 1, 2].map((i) => mouth.x[i] * own[a][0] + mouth.y[i] * own[a][1] + mouth.z[i] * own[a][2])])),
    };
    const found = layOnto(moved, ground, start);
    // Every place comes back to where it was.
    const places = [
      [0, 0, 0],
      [22, 24, 2],
      [-22, 24, 2],
      [0, 14, 12],
    ];
    const mm = Math.max(...places.map((p) => Math.hypot(...toParent(found.frame, toParent(f, p)).map((v, i) => v - p[i]))));
    const back = inverse(f);
    const trace = ['x', 'y', 'z'].reduce((s, a) => s + found.frame[a].reduce((q, v, i) => q + v * back[a][i], 0), 0);
    off.push({
      mm: Math.hypot(...toParent(found.frame, toParent(f, [0, 12, 5])).map((v, i) => v - [0, 12, 5][i])),
      farthestMm: mm,
      deg: (Math.acos(Math.min(1, (trace - 1) / 2)) * 180) / Math.PI,
      share: found.share,
      doubt: found.doubt ?? '',
    });
  }
  return {
    off,
    shifted: layOnto(placeMesh(other, { origin: [25, 3, -6], x: [0, 1, 0], y: [-1, 0, 0], z: [0, 0, 1] }), ground, {
      origin: [0, 0, 0],
      x: [1, 0, 0],
      y: [0, 1, 0],
      z: [0, 0, 1],
    }),
  };
}

const [what, ...args] = process.argv.slice(2);
const answer =
  what === 'pick'
    ? args.flatMap((seed) => ['upper', 'lower'].map((jaw) => pickTrial(Number(seed), jaw)))
    : what === 'trouble'
      ? troubleTrial(args.map(Number))
      : what === 'size'
        ? sizeTrial()
        : what === 'parts'
          ? partsTrial()
          : layTrial(Number(args[0]));
process.stdout.write(JSON.stringify(answer));
