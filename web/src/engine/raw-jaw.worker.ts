import {
  type ByHand,
  type Cells,
  cellsOf,
  type Fdi,
  type FirstScan,
  type FrameMatrix,
  type FromWaxUp,
  firstScan,
  type Jaw,
  type Laid,
  type Opened,
  type PickedView,
  type Progress,
  RawJaw,
  Refusal,
  type ThreePlaces,
  type Vec3,
  type WorkingCopy,
} from '@radiant/core';
import { expose, transfer } from 'comlink';
import { buffers, type DrawableMesh, drawable, drawableJaw } from './drawable.js';
import { fetched } from './fetched.js';
import type { JawView } from './views.js';
import './wire.js';

// The work on a raw jaw in a thread of its own. What is done with it is done by core.

/** What a file turned out to hold, for looking at. */
export type OpenedView = Omit<Opened, 'preview'> & { readonly preview?: DrawableMesh };

/** The jaw as it lies, for looking at, its teeth told apart. */
export interface LaidView {
  readonly mesh: DrawableMesh;
  /** Its triangles by their place, for what lies under the pointer. */
  readonly cells: Cells;
  /** Of each vertex, 0–1 each of red, green, blue, where the scanner gave colours. */
  readonly colours?: Float32Array;
  readonly symmetry: number;
  /** Where it was laid on another scan: how well, and how far off each vertex is, mm. */
  readonly on?: Omit<NonNullable<Laid['on']>, 'offMm'> & { readonly offMm: Float32Array };
  readonly bite?: NonNullable<Laid['bite']>;
  readonly picked: PickedView;
}

let jaw: RawJaw | undefined;
/** Teeth that the case's record calls missing. */
let missing: ReadonlySet<Fdi> = new Set();
/** The case's scan of the same jaw, for laying others on it. */
let first: { readonly url: string; readonly scan: FirstScan } | undefined;

function need(): RawJaw {
  if (!jaw) throw new Refusal('scan-not-laid', 'The scan is not open.');
  return jaw;
}

async function firstOf(url: string): Promise<FirstScan> {
  if (first?.url !== url) first = { url, scan: firstScan(await fetched(url)) };
  return first.scan;
}

function shown(laid: Laid): LaidView {
  const mesh = drawable(laid.mesh);
  const cells = cellsOf(mesh);
  const picked = need().picking.view();
  const { on, ...rest } = laid;
  const view: LaidView = {
    ...rest,
    mesh,
    cells,
    picked,
    ...(on && { on: { ...on, offMm: Float32Array.from(on.offMm) } }),
  };
  return transfer(view, [...buffers(mesh), cells.faces.buffer as ArrayBuffer, picked.tooth.buffer as ArrayBuffer]);
}

const service = {
  /** Begins with another jaw. */
  begin(): void {
    jaw = undefined;
    missing = new Set();
  },

  /** Tells which teeth the case's record calls missing: their numbers are passed over. */
  know(teeth: readonly Fdi[]): void {
    missing = new Set(teeth);
    if (jaw) jaw.missing = missing;
  },

  /** Reads and mends a scan, from its address or the file itself. @throws Refusal */
  async open(from: string | File, told: Progress, mend = true): Promise<OpenedView> {
    const bytes =
      typeof from === 'string'
        ? await fetched(from, (share) => told('Fetching', share))
        : new Uint8Array(await from.arrayBuffer());
    told('Reading', 0);
    jaw = new RawJaw(bytes, told, mend);
    jaw.missing = missing;
    const { preview: surface, ...opened } = jaw.opened;
    const preview = surface && drawable(surface);
    return preview ? transfer({ ...opened, preview }, buffers(preview)) : opened;
  },

  lay: (as: Jaw, unitMm: number): LaidView => shown(need().lay(as, unitMm)),

  /** The case's scan, to be looked at beside this one. */
  async firstView(url: string): Promise<JawView> {
    const made = drawableJaw((await firstOf(url)).scan);
    return transfer(made.view, made.buffers);
  },

  layOn: async (as: Jaw, url: string, places?: readonly [own: ThreePlaces, first: ThreePlaces]): Promise<LaidView> =>
    shown(need().layOn(as, await firstOf(url), places)),

  layByBite: (as: Jaw, other: FrameMatrix | null): LaidView => shown(need().layByBite(as, other)),

  layByHand: async (otherUrl: string, hand: ByHand): Promise<LaidView> =>
    shown(need().layByHand(await firstOf(otherUrl), hand)),

  layBy: (middle: Vec3, right: Vec3, left: Vec3): LaidView => shown(need().layBy([middle, right, left])),

  asPlan: async (url: string): Promise<FromWaxUp> => need().asPlan(await firstOf(url)),

  renumber: (from: Fdi, to: Fdi | undefined): PickedView => need().picking.renumber(from, to),
  add: (vertex: number, tooth: Fdi): PickedView => need().picking.add(vertex, tooth),
  paint: (vertices: readonly number[], radiusMm: number, tooth: Fdi | 0): PickedView =>
    need().picking.paint(vertices, radiusMm, tooth),
  pull: (tooth: Fdi, from: Vec3, to: Vec3): PickedView => need().picking.pull(tooth, from, to),

  finish(): WorkingCopy {
    const made = need().finish();
    return transfer(made, [made.bytes.buffer as ArrayBuffer]);
  },
};

export type RawJawService = typeof service;
expose(service);
