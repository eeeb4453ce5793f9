import { meshToArch, turnedOver } from '../contour/arch.js';
import { vertex as vertexOf } from '../geometry/mesh.js';
import type { Vec3 } from '../geometry/vec.js';
import type { Doubt } from '../scan/doubts.js';
import { neckLines, pulledLine } from '../scan/neck-line.js';
import {
  type LookedAt,
  lookedAsTold,
  type Picked,
  pickedAs,
  pickTeeth,
  placeAtVertex,
  wholeNormals,
} from '../scan/own-scan.js';
import type { PickedCrown, PickedSize } from '../scan/picked-crown.js';
import { onRow, placeOnRow, type ToothRoom } from '../scan/row.js';
import type { Fdi } from '../teeth/notation.js';

export interface PickedTooth extends PickedSize {
  readonly tooth: Fdi;
  /** Where its number is written, in the mouth's coordinates. */
  readonly at: Vec3;
}

/** What is picked, as it is shown. */
export interface PickedView {
  /** The tooth of each vertex, 0 for gum. */
  readonly tooth: Uint8Array;
  readonly teeth: readonly PickedTooth[];
  readonly doubts: readonly Doubt[];
  /** Why this may be no row of teeth to plan on. */
  readonly doubt?: string;
  /** The line between each tooth and the gum: pieces of two points, in the mouth's coordinates. */
  readonly necks: readonly { readonly tooth: Fdi; readonly line: Float32Array }[];
}

/** What is picked at one moment. */
interface Memento {
  readonly rooms: Map<Fdi, ToothRoom>;
  readonly painted: Map<number, Fdi | 0>;
  readonly told: Map<Fdi, Vec3>;
  readonly gone: Map<Fdi, ToothRoom>;
  readonly now: Picked;
}

/** Further back than this nobody goes step by step; each step holds a number for every vertex. */
const MOST_STEPS = 60;

const NO_TRIANGLES = new Uint32Array();

/**
 * The teeth of a jaw that lies in the mouth: proposed by its shape, changed by hand. Each change answers what is picked
 * then.
 */
export class Picking {
  private rooms: Map<Fdi, ToothRoom>;
  /** Vertices that a hand has given to a tooth or, with 0, to the gum. */
  private painted = new Map<number, Fdi | 0>();
  /**
   * Places on teeth that a hand or the case's first scan has numbered, in the arch's own frame, and the rooms of
   * numbers that a hand has taken away.
   */
  private told: Map<Fdi, Vec3>;
  private gone = new Map<Fdi, ToothRoom>();
  private now: Picked;
  /** Of the whole scan's vertices. */
  private readonly normals: Float64Array;
  /** How it was before each change by hand. */
  private readonly before: Memento[] = [];

  constructor(private readonly look: LookedAt) {
    this.normals = wholeNormals(look);
    this.rooms = new Map(look.teeth);
    this.told = new Map(look.told.teeth);
    this.now = pickTeeth(look, this.rooms, this.painted);
  }

  get picked(): Picked {
    return this.now;
  }

  /** Teeth that are asked for, whether they were found or not. */
  get numbers(): readonly Fdi[] {
    return [...this.rooms.keys()];
  }

  /** What is picked now. */
  view(): PickedView {
    const { vertices, crowns, doubts, doubt } = this.now;
    const teeth = [...crowns.values()]
      .map((c) => ({ tooth: c.tooth, at: this.middleOf(c), widthMm: c.widthMm, lengthMm: c.lengthMm }))
      .sort((p, q) => p.tooth - q.tooth);
    const necks = [...neckLines(this.look.whole.mesh, this.normals, vertices)].map(([tooth, line]) => ({
      tooth,
      line: Float32Array.from(
        meshToArch(this.look.jaw, { positions: Float64Array.from(line), triangles: NO_TRIANGLES }).positions,
      ),
    }));
    return { tooth: vertices.slice(), teeth, doubts, necks, ...(doubt && { doubt }) };
  }

  /** Takes the last change back. @returns nothing where none was made */
  undo(): PickedView | undefined {
    const was = this.before.pop();
    if (!was) return undefined;
    this.rooms = was.rooms;
    this.painted = was.painted;
    this.told = was.told;
    this.gone = was.gone;
    this.now = was.now;
    return this.view();
  }

  private remember(): void {
    this.before.push({
      rooms: new Map(this.rooms),
      painted: new Map(this.painted),
      told: new Map(this.told),
      gone: new Map(this.gone),
      now: this.now,
    });
    if (this.before.length > MOST_STEPS) this.before.shift();
  }

  /** Another number for a tooth, or none; its own number is taken from whoever had it. */
  renumber(from: Fdi, to: Fdi | undefined): PickedView {
    this.remember();
    const own = this.rooms.get(from);
    const other = to === undefined ? undefined : this.rooms.get(to);
    if (own && to === undefined) this.gone.set(from, own);
    this.rooms.delete(from);
    if (own && to !== undefined) this.rooms.set(to, own);
    if (other) this.rooms.set(from, other);
    this.tell(from, other);
    if (to !== undefined) this.tell(to, own);
    for (const [v, t] of this.painted) {
      if (t === from) {
        if (to === undefined) this.painted.delete(v);
        else this.painted.set(v, to);
      } else if (t === to) this.painted.set(v, from);
    }
    return this.anew();
  }

  /**
   * A tooth where a place was clicked. The row is numbered anew by it and by whatever else a hand has told; where that
   * fits no row, the tooth takes the room about the place.
   */
  add(vertex: number, tooth: Fdi): PickedView {
    this.remember();
    const place = vertexOf(this.look.whole.mesh, vertex);
    this.told.set(tooth, place);
    this.gone.delete(tooth);
    const { along: clicked } = onRow(this.look.row, place[0], place[1]);
    for (const [t, room] of this.gone) if (clicked >= room.from && clicked <= room.to) this.gone.delete(t);
    const missing = new Set([...this.look.missing, ...this.gone.keys()].filter((t) => !this.told.has(t)));
    const told = { ...this.look.told, teeth: this.told, none: [...this.gone.values()] };
    const found = lookedAsTold(this.look, told, missing).teeth;
    const room = found.get(tooth);
    const holds = [...this.told].every(([t, [x, y]]) => {
      const own = found.get(t);
      const { along } = onRow(this.look.row, x, y);
      return own && along >= own.from && along <= own.to;
    });
    if (room && holds) this.rooms = new Map(found);
    else this.rooms.set(tooth, placeAtVertex(this.look, vertex).place);
    return this.anew();
  }

  /** Keeps where a tooth is that a hand has numbered; without a room nothing is known of it. */
  private tell(tooth: Fdi, room: ToothRoom | undefined): void {
    if (room) {
      this.told.set(tooth, this.placeIn(room));
      this.gone.delete(tooth);
    } else this.told.delete(tooth);
  }

  private placeIn(room: ToothRoom): Vec3 {
    const [x, y] = placeOnRow(this.look.row, (room.from + room.to) / 2);
    return [x, y, room.edgeMm];
  }

  /** Gives what lies about some vertices to a tooth or, with 0, to the gum. */
  paint(vertices: readonly number[], radiusMm: number, tooth: Fdi | 0): PickedView {
    this.remember();
    for (const v of this.about(vertices, radiusMm)) this.painted.set(v, tooth);
    return this.anew();
  }

  /**
   * Pulls the line between a tooth and the gum from one place of the mouth to another; what lies about it stays as it
   * is then.
   */
  pull(tooth: Fdi, from: Vec3, to: Vec3): PickedView {
    const own = (p: Vec3): Vec3 => (this.look.jaw === 'upper' ? p : turnedOver(p));
    const vertices = this.now.vertices.slice();
    const pulled = pulledLine(this.look.whole, vertices, tooth, own(from), own(to));
    this.remember();
    for (const [v, label] of pulled) {
      vertices[v] = label;
      this.painted.set(v, label);
    }
    this.now = pickedAs(this.look, vertices, this.rooms);
    return this.view();
  }

  private anew(): PickedView {
    this.now = pickTeeth(this.look, this.rooms, this.painted);
    return this.view();
  }

  /** The vertices within so far of some, along the surface. */
  private about(vertices: readonly number[], radiusMm: number): ReadonlySet<number> {
    const { mesh, neighbourhood } = this.look.whole;
    const p = mesh.positions;
    const { from: first, beside } = neighbourhood;
    const seen = new Set<number>();
    const todo = [...vertices];
    const origin = new Map<number, number>(vertices.map((v) => [v, v]));
    for (let i = 0; i < todo.length; i++) {
      const v = todo[i] as number;
      if (seen.has(v)) continue;
      seen.add(v);
      const o = origin.get(v) as number;
      for (let k = first[v] as number; k < (first[v + 1] as number); k++) {
        const w = beside[k] as number;
        const far = Math.hypot(...([0, 1, 2] as const).map((c) => (p[3 * w + c] as number) - (p[3 * o + c] as number)));
        if (far > radiusMm || seen.has(w)) continue;
        origin.set(w, o);
        todo.push(w);
      }
    }
    return seen;
  }

  /** Where a tooth's number stands: before the middle of what was picked, nearer to the edge than to the neck. */
  private middleOf({ vertices }: PickedCrown): Vec3 {
    const p = this.look.mesh.positions;
    let [x, y] = [0, 0];
    let [least, most] = [Infinity, -Infinity];
    for (const v of vertices) {
      x += p[3 * v] as number;
      y += p[3 * v + 1] as number;
      least = Math.min(least, p[3 * v + 2] as number);
      most = Math.max(most, p[3 * v + 2] as number);
    }
    const n = vertices.length;
    const at: Vec3 = [x / n, y / n, least + 0.4 * (most - least)];
    return this.look.jaw === 'upper' ? at : turnedOver(at);
  }
}
