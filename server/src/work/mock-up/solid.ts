import { bounds, buildTree, closestPoint, closestPoints, type Mesh, pieces, rayCaster, type Vec3 } from '@radiant/core';
import Module, { type Manifold, type ManifoldToplevel } from 'manifold-3d';

/** How a model for the printer is made. House values. */
export interface ModelSetting {
  /** Hears what is being done, and which share of all is done, 0 to 1. */
  readonly tell?: (what: string, share: number) => void;
  /** Grain of the gum, mm: its surface is followed to about a quarter of this. */
  readonly grainMm?: number;
}

export const MODEL = { grainMm: 0.5 } as const;

export interface Model {
  readonly mesh: Mesh;
  readonly volumeMm3: number;
}

let loaded: Promise<ManifoldToplevel> | undefined;

/** The solids' library, set up once. */
export function solids(): Promise<ManifoldToplevel> {
  loaded ??= Module().then((wasm) => {
    wasm.setup();
    return wasm;
  });
  return loaded;
}

/**
 * One closed solid of all teeth and the gum, with a flat foot.
 * @param teeth closed surfaces in the mouth's coordinates: the untouched ones and the planned crowns
 * @param gum open sheets, wound either way
 * @throws Error when the parts do not join into one piece
 */
export async function joinedModel(teeth: readonly Mesh[], gum: Mesh, setting: ModelSetting = {}): Promise<Model> {
  const { grainMm = MODEL.grainMm, tell = () => undefined } = setting;
  const wasm = await solids();
  const parts = teeth.map((t) => solidOf(wasm, t));
  tell('Looking where the gum is', 0.25);
  const foot = gumSolid(wasm, teeth, gum, grainMm, (share) => tell('Filling the gum', 0.35 + 0.4 * share));
  tell('Joining teeth and gum', 0.78);
  const joined = wasm.Manifold.union([...parts, foot]);
  const whole = largest(joined);
  const lost = joined.volume() - whole.volume();
  if (Math.abs(lost) > 0.02 * whole.volume())
    throw new Error('The teeth and the gum of the scan do not join into one piece.');
  // Taking slivers out can pinch off grains and hollows of its own.
  const clean = largest(whole.simplify(SIMPLIFY_MM));
  const mesh = meshOf(clean);
  const volumeMm3 = clean.volume();
  for (const s of [...parts, foot, joined, whole, clean]) s.delete();
  return { mesh, volumeMm3 };
}

/** Grains beside a guide and hollows within it of so much together are no part of it, mm³. House value. */
const GRAIN_MM3 = 0.5;

/** Closed parts that lie in each other as one solid. @throws Error when they do not join into one piece */
export async function joinedParts(parts: readonly Mesh[]): Promise<Mesh> {
  const wasm = await solids();
  const own = parts.map((p) => solidOf(wasm, p));
  const joined = wasm.Manifold.union(own);
  const clean = joined.simplify(SIMPLIFY_MM);
  const pieces = clean.decompose().sort((p, q) => q.volume() - p.volume());
  const mesh = meshOf(pieces[0] as Manifold);
  const lost = pieces.slice(1).reduce((n, p) => n + Math.abs(p.volume()), 0);
  for (const s of [...own, joined, clean, ...pieces]) s.delete();
  if (lost > GRAIN_MM3) throw new Error('The parts of the guide do not join into one piece.');
  return mesh;
}

/** The piece with the greatest volume; grains beside it and hollows within it are no part of a model. */
function largest(solid: Manifold): Manifold {
  const all = solid.decompose();
  const best = all.reduce((p, q) => (q.volume() > p.volume() ? q : p));
  for (const other of all) if (other !== best) other.delete();
  return best;
}

function solidOf(wasm: ManifoldToplevel, m: Mesh): Manifold {
  return new wasm.Manifold(
    new wasm.Mesh({ numProp: 3, vertProperties: Float32Array.from(m.positions), triVerts: m.triangles }),
  );
}

function meshOf(solid: Manifold): Mesh {
  const m = solid.getMesh();
  const positions = new Float64Array((m.vertProperties.length / m.numProp) * 3);
  for (let v = 0; v < positions.length / 3; v++)
    for (let k = 0; k < 3; k++) positions[3 * v + k] = m.vertProperties[v * m.numProp + k] as number;
  return { positions, triangles: Uint32Array.from(m.triVerts) };
}

/** Slivers of the joining are taken out as long as nothing moves by more than this, mm. */
const SIMPLIFY_MM = 0.01;
/** Index entries that a piece of gum must have to count as a sheet: a hundred triangles. */
const LEAST_SHEET = 300;

/**
 * What lies between the facial and the palatal gum: a place from which the gum is met both outward and inward across
 * the arch. It ends level at the foot, and plane behind the last teeth. Only how near the gum is, not which way it
 * faces, is asked of the scan, so that sheets that roll over the margin do no harm; what closes under the margins lies
 * inside the teeth.
 */
function gumSolid(
  wasm: ManifoldToplevel,
  teeth: readonly Mesh[],
  gum: Mesh,
  grainMm: number,
  told: (share: number) => void,
): Manifold {
  const box = bounds(gum);
  const tree = buildTree(gum);
  const cast = rayCaster(tree);
  const { x: cx, y: cy } = { x: (box.min[0] + box.max[0]) / 2, y: box.max[1] };
  const { top, back } = reachOf(gum, cx, cy);
  const low = Math.min(...teeth.map((t) => bounds(t).min[2]));
  const depthOf = (y: number, z: number) => Math.min(top - z, back - y, z - low);
  const extent = { min: [box.min[0] - 1, box.min[1] - 1, low], max: [box.max[0] + 1, back + 1, top + 1] } as never;
  // The grid is walked once to learn where it asks: how near the gum is there is found for all places at once, which
  // takes a fifth of the time of asking one by one.
  const asked: number[] = [];
  wasm.Manifold.levelSet(
    ((p: readonly [number, number, number]) => {
      if (depthOf(p[1], p[2]) > -grainMm) asked.push(...p);
      return -1;
    }) as never,
    extent,
    grainMm,
  ).delete();
  const places = Float64Array.from(asked);
  const { distances } = closestPoints(tree, places);
  let at = 0;
  const nearest = (x: number, y: number, z: number): number => {
    if (at % TOLD_EVERY === 0) told((3 * at) / Math.max(1, places.length));
    if (places[3 * at] === x && places[3 * at + 1] === y && places[3 * at + 2] === z) return distances[at++] as number;
    return closestPoint(tree, [x, y, z]).distance;
  };
  const inside = ([x, y, z]: readonly [number, number, number]): number => {
    const depth = depthOf(y, z);
    if (depth <= -grainMm) return depth;
    const near = nearest(x, y, z);
    const p: Vec3 = [x, y, z];
    const r = Math.hypot(x - cx, y - cy) || 1;
    const out: Vec3 = [(x - cx) / r, (y - cy) / r, 0];
    const between = cast.first(p, out, ACROSS_MM) && cast.first(p, [-out[0], -out[1], 0], ACROSS_MM);
    return between ? Math.min(depth, near) : Math.min(depth, -near);
  };
  return wasm.Manifold.levelSet(inside as never, extent, grainMm);
}

/** Progress is told at every so many places. */
const TOLD_EVERY = 20_000;
/** The gum is met within this way across the arch, mm. */
const ACROSS_MM = 16;
/** Directions in which the gum's upper border is looked for. */
const SECTORS = 36;

/** How high the gum reaches all round, and how far back on both sides of the teeth. */
function reachOf(gum: Mesh, cx: number, cy: number): { top: number; back: number } {
  const { positions: p } = gum;
  const tops = new Float64Array(SECTORS).fill(Number.NEGATIVE_INFINITY);
  for (let v = 0; v < p.length; v += 3) {
    const turn = Math.atan2((p[v] as number) - cx, cy - (p[v + 1] as number)) / Math.PI + 0.5;
    const sector = Math.min(SECTORS - 1, Math.max(0, Math.floor(turn * SECTORS)));
    tops[sector] = Math.max(tops[sector] as number, p[v + 2] as number);
  }
  const ends = pieces(gum)
    .filter((piece) => piece.triangles.length > LEAST_SHEET)
    .flatMap((piece) => {
      const b = bounds(piece);
      const side = (way: 1 | -1) => {
        let y = Number.NEGATIVE_INFINITY;
        for (let v = 0; v < piece.positions.length; v += 3)
          if (way * ((piece.positions[v] as number) - (b.min[0] + b.max[0]) / 2) > 0)
            y = Math.max(y, piece.positions[v + 1] as number);
        return y;
      };
      return [side(1), side(-1)];
    });
  return { top: Math.min(...[...tops].filter(Number.isFinite)) - EDGE_MM, back: Math.min(...ends) - EDGE_MM };
}

/** The last of the gum's border is left out: it is ragged in a scan, mm. */
const EDGE_MM = 0.3;
