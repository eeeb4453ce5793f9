import {
  type Cells,
  cellsOf,
  type Fdi,
  type FirstScan,
  type FromWaxUp,
  firstScan,
  type Laid,
  type Opened,
  type PickedView,
  type Progress,
  RawJaw,
  Refusal,
  type WorkingCopy,
} from '@radiant/core';
import { expose, transfer } from 'comlink';
import { buffers, type DrawableMesh, drawable, drawableJaw } from './drawable.js';
import { fetched } from './fetched.js';
import { type Act, isLay, type Lay, type Pick } from './own-scan-acts.js';
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
    ...(on && { on: { ...on, offMm: new Float32Array(on.offMm) } }),
  };
  return transfer(view, [...buffers(mesh), cells.faces.buffer as ArrayBuffer, picked.tooth.buffer as ArrayBuffer]);
}

/** What the file's unit was taken for so far, mm: told twice it must not count twice. */
let unitMm = 1;

async function laidBy(act: Lay): Promise<Laid> {
  const own = need();
  if (act.do === 'layBy') return own.layBy(act.places);
  if (act.do === 'layByBite') return own.layByBite(act.jaw, act.other);
  if (act.do === 'layOn') return own.layOn(act.jaw, await firstOf(act.url), act.places);
  if (act.do === 'layByHand') return own.layByHand(await firstOf(act.url), act.hand);
  const laid = own.lay(act.jaw, act.unitMm / unitMm);
  unitMm = act.unitMm;
  return laid;
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
    unitMm = 1;
    jaw.missing = missing;
    const { preview: surface, ...opened } = jaw.opened;
    const preview = surface && drawable(surface);
    return preview ? transfer({ ...opened, preview }, buffers(preview)) : opened;
  },

  /** The case's scan, to be looked at beside this one. */
  async firstView(url: string): Promise<JawView> {
    const made = drawableJaw((await firstOf(url)).scan);
    return transfer(made.view, made.buffers);
  },

  asPlan: async (url: string): Promise<FromWaxUp> => need().asPlan(await firstOf(url)),

  /** Lays the jaw in another way; what was picked out by hand goes with how it lay. @throws Refusal */
  async lay(act: Lay): Promise<LaidView> {
    return shown(await laidBy(act));
  },

  pick(act: Pick): PickedView {
    const { picking } = need();
    if (act.do === 'renumber') return picking.renumber(act.from, act.to);
    if (act.do === 'add') return picking.add(act.vertex, act.tooth);
    if (act.do === 'pull') return picking.pull(act.tooth, act.from, act.to);
    return picking.paint(act.vertices, act.radiusMm, act.tooth);
  },

  /** Takes the last pick back; nothing where the jaw lies as it was laid. */
  undoPick: (): PickedView | undefined => need().picking.undo(),

  /**
   * Does again, on a scan that was just opened or is worked on, all that was done to it; the first of it lays the jaw.
   * @throws Refusal
   */
  async again(acts: readonly Act[]): Promise<LaidView> {
    let laid: Laid | undefined;
    for (const act of acts) {
      if (isLay(act)) laid = await laidBy(act);
      else service.pick(act);
    }
    if (!laid) throw new Refusal('scan-not-laid', 'The scan does not lie in the mouth yet.');
    return shown(laid);
  },

  finish(): WorkingCopy {
    const made = need().finish();
    return transfer(made, [made.bytes.buffer as ArrayBuffer]);
  },
};

export type RawJawService = typeof service;
expose(service);
