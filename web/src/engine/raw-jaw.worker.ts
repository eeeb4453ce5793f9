import {
  type Cells,
  cellsOf,
  type Fdi,
  type FirstScan,
  type FromWaxUp,
  firstScan,
  type Jaw,
  type Laid,
  type Mesh,
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

/** A coarse copy of a jaw about as it lies, to be looked at while the work on it goes on. */
export interface GlimpseView {
  readonly jaw: Jaw;
  readonly mesh: DrawableMesh;
}

/** The jaw as it lies, for looking at, its teeth told apart. */
export interface LaidView {
  readonly mesh: DrawableMesh;
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
  lying = laid.mesh;
  const picked = need().picking.view();
  const { on, ...rest } = laid;
  const view: LaidView = {
    ...rest,
    mesh,
    picked,
    ...(on && { on: { ...on, offMm: new Float32Array(on.offMm) } }),
  };
  return transfer(view, [...buffers(mesh), picked.tooth.buffer as ArrayBuffer]);
}

/** The jaw as it was shown last. */
let lying: Mesh | undefined;
/** The jaw as it was laid before anybody asked, while nothing else was done to it. */
let ahead: { readonly jaw: Jaw; readonly laid: Laid } | undefined;

/** What the file's unit was taken for so far, mm: told twice it must not count twice. */
let unitMm = 1;

async function laidBy(act: Lay): Promise<Laid> {
  const own = need();
  const made = ahead;
  ahead = undefined;
  if (act.do === 'layBy') return own.layBy(act.places);
  if (act.do === 'layByBite') return own.layByBite(act.jaw, act.other);
  if (act.do === 'layOn') return own.layOn(act.jaw, await firstOf(act.url), act.places);
  if (act.do === 'layByHand') return own.layByHand(await firstOf(act.url), act.hand);
  if (made && made.jaw === act.jaw && act.unitMm === unitMm) return made.laid;
  const laid = own.lay(act.jaw, act.unitMm / unitMm);
  unitMm = act.unitMm;
  return laid;
}

const service = {
  /** Begins with another jaw. */
  begin(): void {
    jaw = undefined;
    lying = undefined;
    ahead = undefined;
    missing = new Set();
  },

  /** Tells which teeth the case's record calls missing: their numbers are passed over. */
  know(teeth: readonly Fdi[]): void {
    missing = new Set(teeth);
    ahead = undefined;
    if (jaw) jaw.missing = missing;
  },

  /**
   * Reads and mends a scan, from its address or the file itself.
   * @param seen is shown it as soon as it can be @throws Refusal
   */
  async open(from: string | File, told: Progress, seen: (glimpse: GlimpseView) => void, mend = true): Promise<Opened> {
    const bytes =
      typeof from === 'string'
        ? await fetched(from, (share) => told('Fetching', share))
        : new Uint8Array(await from.arrayBuffer());
    told('Reading', 0);
    ahead = undefined;
    jaw = new RawJaw(bytes, told, mend, (glimpse) => {
      const mesh = drawable(glimpse.mesh);
      seen(transfer({ jaw: glimpse.jaw, mesh }, buffers(mesh)));
    });
    unitMm = 1;
    jaw.missing = missing;
    return jaw.opened;
  },

  /** Lays a jaw in millimetres as it looks, so that it lies when somebody asks for that. What can't be is said then. */
  ahead(): void {
    const own = need();
    try {
      ahead = { jaw: own.opened.jaw, laid: own.lay(own.opened.jaw, 1) };
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
    }
  },

  /** Triangles of the jaw as it lies by their place, for what lies under the pointer. @throws Refusal */
  cells(): Cells {
    if (!lying) throw new Refusal('scan-not-laid', 'The scan does not lie in the mouth yet.');
    // As it is drawn, so that what is drawn is met.
    const cells = cellsOf({ positions: new Float32Array(lying.positions), triangles: lying.triangles });
    return transfer(cells, [cells.faces.buffer as ArrayBuffer]);
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
    ahead = undefined;
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
