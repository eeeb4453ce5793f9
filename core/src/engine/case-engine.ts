import { meshToArch } from '../contour/arch.js';
import { crown } from '../contour/crown.js';
import { type ExistingArch, existingArch } from '../contour/fit.js';
import {
  type ContourPlan,
  type CrownMaker,
  type PlannedTooth,
  plannedTooth,
  type ToothPlan,
  widthsToMidline,
} from '../contour/plan.js';
import type { SegmentedScan } from '../contour/scan.js';
import { Sculptor } from '../contour/sculpt.js';
import { Refusal } from '../errors.js';
import { buildTree, type Tree } from '../geometry/tree/build.js';
import { type SeenField, seenField } from '../prep/seen.js';
import { type Fdi, type Jaw, jawOf, PLANNABLE } from '../teeth/notation.js';
import { Bite } from './bite.js';

/** What of a plan has changed: teeth that are new or other than before, and teeth that are no longer in it. */
export interface PlanChange {
  readonly set: readonly (readonly [Fdi, ToothPlan])[];
  readonly gone: readonly Fdi[];
}

/** The difference of two plans, told by the identity of each tooth's record; nothing where there is none. */
export function planChange(before: ContourPlan, after: ContourPlan): PlanChange | undefined {
  const set = PLANNABLE.flatMap((t) => {
    const own = after[t];
    return own && own !== before[t] ? [[t, own] as const] : [];
  });
  const gone = PLANNABLE.filter((t) => before[t] && !after[t]);
  return set.length > 0 || gone.length > 0 ? { set, gone } : undefined;
}

/** A jaw's scan and its teeth, measured when they are first asked for. Cases that rest on one scan may share it. */
export class ScannedJaw {
  private measured: ExistingArch | Refusal | undefined;

  constructor(readonly scan: SegmentedScan) {}

  /** @throws Refusal `scan-without-teeth` where its teeth can't be measured */
  arch(): ExistingArch {
    this.measured ??= measured(this.scan);
    if (this.measured instanceof Refusal) throw this.measured;
    return this.measured;
  }
}

/** In which states later scans of a jaw are taken beside the first. */
export const LATER_STATES = ['prepared', 'provisional'] as const;
export type LaterState = (typeof LATER_STATES)[number];

/** A later scan of a jaw; its teeth in the arch's own frame, each made ready when it is first asked for. */
export class LaterScan {
  private readonly fields = new Map<Fdi, SeenField>();
  private gum: Tree | undefined;

  /** @param nth of all later ones: what was worked out of another is not of this one */
  constructor(
    readonly scan: SegmentedScan,
    readonly nth: number,
  ) {}

  /** A tooth that it has; undefined where it does not. */
  tooth(tooth: Fdi): SeenField | undefined {
    const known = this.fields.get(tooth);
    if (known) return known;
    const mesh = this.scan.teeth.get(tooth);
    if (!mesh) return undefined;
    const own = seenField(meshToArch(this.scan.jaw, mesh), this.scan.made?.get(tooth));
    this.fields.set(tooth, own);
    return own;
  }

  /** What of it was picked as no tooth, to be measured against; nothing where there is none. */
  rest(): Tree | undefined {
    if (this.scan.rest.triangles.length === 0) return undefined;
    this.gum ??= buildTree(meshToArch(this.scan.jaw, this.scan.rest));
    return this.gum;
  }
}

/** A crown that was made, and what it was made from. */
interface Made {
  readonly own: ToothPlan;
  readonly widths: string;
  readonly planned: PlannedTooth;
}

/**
 * A case as a living thing: holds its scans, measured once, and its plan, taken by difference; makes each crown once
 * per change and remembers what was asked of it. The same in a browser's worker, in a thread of the server and in
 * tests.
 */
export class CaseEngine {
  private readonly jaws = new Map<Jaw, ScannedJaw>();
  private plan: ContourPlan = {};
  private readonly made = new Map<Fdi, Made>();
  private readonly makers = new Map<Fdi, CrownMaker>();
  /** Answers about one crown live as long as that crown. */
  private ofCrown = new WeakMap<PlannedTooth, Map<string, unknown>>();
  private mouth: Bite | undefined;
  private readonly later = new Map<`${LaterState} ${Jaw}`, LaterScan>();
  private laterScans = 0;
  private row: { readonly key: string; readonly crowns: ReadonlyMap<Fdi, PlannedTooth> } | undefined;
  private changes = 0;

  /** Takes the scan of a jaw, in the place of the one that was there. */
  take(scan: SegmentedScan | ScannedJaw): void {
    const own = scan instanceof ScannedJaw ? scan : new ScannedJaw(scan);
    this.jaws.set(own.scan.jaw, own);
    this.made.clear();
    this.mouth = undefined;
    this.changes++;
  }

  /** Takes a later scan of the same jaw, in the place of the one that was there in its state. */
  takeLater(scan: SegmentedScan, state: LaterState = 'prepared'): void {
    this.later.set(`${state} ${scan.jaw}`, new LaterScan(scan, ++this.laterScans));
  }

  /** Lets go of a later scan. */
  dropLater(jaw: Jaw, state: LaterState): void {
    this.later.delete(`${state} ${jaw}`);
  }

  /** The scan of a jaw with its provisionals in place, where there is one. */
  provisionalScan(jaw: Jaw): LaterScan | undefined {
    return this.later.get(`provisional ${jaw}`);
  }

  /** The scan of a jaw after it was cut. @throws Refusal `scan-missing` */
  laterScan(jaw: Jaw): LaterScan {
    const own = this.later.get(`prepared ${jaw}`);
    if (!own) throw new Refusal('scan-missing', `There is no scan of the prepared ${jaw} teeth.`, jaw);
    return own;
  }

  /** Takes a change of the plan. What stands in it as before keeps all that was made of it. */
  change({ set, gone }: PlanChange): void {
    const next: Partial<Record<Fdi, ToothPlan>> = { ...this.plan };
    for (const t of gone) delete next[t];
    for (const [t, own] of set) if (!next[t] || JSON.stringify(next[t]) !== JSON.stringify(own)) next[t] = own;
    this.plan = next;
    this.changes++;
  }

  /** Takes a whole plan. */
  setPlan(plan: ContourPlan): void {
    const change = planChange(this.plan, plan);
    if (change) this.change(change);
  }

  get contour(): ContourPlan {
    return this.plan;
  }

  has(jaw: Jaw): boolean {
    return this.jaws.has(jaw);
  }

  /** @throws Refusal `scan-missing` */
  scan(jaw: Jaw): SegmentedScan {
    return this.scanned(jaw).scan;
  }

  private scanned(jaw: Jaw): ScannedJaw {
    const own = this.jaws.get(jaw);
    if (!own) throw new Refusal('scan-missing', `There is no scan of the ${jaw} jaw.`, jaw);
    return own;
  }

  /**
   * The arch of a jaw as it is. @throws Refusal `scan-missing`; `scan-without-teeth` where its teeth can't be measured
   */
  arch(jaw: Jaw): ExistingArch {
    return this.scanned(jaw).arch();
  }

  /** Whether a jaw is there and its teeth are measured. */
  isMeasured(jaw: Jaw): boolean {
    if (!this.has(jaw)) return false;
    try {
      return this.arch(jaw).teeth.size > 0;
    } catch (error) {
      if (error instanceof Refusal) return false;
      throw error;
    }
  }

  /** @throws as `arch` */
  archOf(tooth: Fdi): ExistingArch {
    return this.arch(jawOf(tooth));
  }

  /** A planned crown in its place. @throws Refusal of `arch`; `tooth-missing` where plan or scan lack it */
  crown(tooth: Fdi): PlannedTooth {
    const arch = this.archOf(tooth);
    const own = this.plan[tooth];
    const widths = widthsToMidline(this.plan, tooth);
    const before = this.made.get(tooth);
    if (own && before?.own === own && before.widths === widths) return before.planned;
    const planned = plannedTooth(arch, this.plan, tooth, this.makerOf(tooth));
    this.made.set(tooth, { own: own as ToothPlan, widths, planned });
    return planned;
  }

  /** The planned teeth that stand in their jaw's scan, in the order of PLANNABLE. */
  teeth(jaw?: Jaw): readonly Fdi[] {
    return PLANNABLE.filter((t) => {
      const own = jawOf(t);
      return this.plan[t] && (!jaw || own === jaw) && this.isMeasured(own) && this.arch(own).teeth.has(t);
    });
  }

  /** Planned teeth that their jaw's scan, where it is there, does not have: no crown can stand there. */
  without(): readonly Fdi[] {
    return PLANNABLE.filter((t) => this.plan[t] && this.isMeasured(jawOf(t)) && !this.archOf(t).teeth.has(t));
  }

  /** All crowns that can stand; the same map again while none of them changes. */
  crowns(): ReadonlyMap<Fdi, PlannedTooth> {
    const key = String(this.changes);
    if (this.row?.key !== key) {
      const crowns = new Map(this.teeth().map((t) => [t, this.crown(t)] as const));
      const before = this.row?.crowns;
      const same = before && before.size === crowns.size && [...crowns].every(([t, c]) => before.get(t) === c);
      this.row = { key, crowns: same ? before : crowns };
    }
    return this.row.crowns;
  }

  /** How the two rows bite; undefined while a jaw is missing. @throws as `arch` */
  bite(): Bite | undefined {
    if (!this.has('upper') || !this.has('lower')) return undefined;
    this.mouth ??= new Bite(this.arch('upper'), this.scan('lower'));
    return this.mouth;
  }

  /** What is worked out of one crown, once for as long as the crown stays as it is. @throws as `crown` */
  once<T>(tooth: Fdi, question: string, work: (planned: PlannedTooth, arch: ExistingArch) => T): T {
    const planned = this.crown(tooth);
    const known = this.ofCrown.get(planned) ?? new Map<string, unknown>();
    this.ofCrown.set(planned, known);
    if (!known.has(question)) known.set(question, work(planned, this.archOf(tooth)));
    return known.get(question) as T;
  }

  private makerOf(tooth: Fdi): CrownMaker {
    const known = this.makers.get(tooth);
    if (known) return known;
    let last: { readonly size: string; readonly made: ReturnType<typeof crown> } | undefined;
    const maker: CrownMaker = {
      crown: (of, size) => {
        const key = JSON.stringify(size);
        if (last?.size !== key) last = { size: key, made: crown(of, size) };
        return last.made;
      },
      sculpt: new Sculptor().sculpt,
    };
    this.makers.set(tooth, maker);
    return maker;
  }
}

function measured(scan: SegmentedScan): ExistingArch | Refusal {
  try {
    return existingArch(scan);
  } catch (error) {
    if (error instanceof Refusal) return error;
    throw error;
  }
}
