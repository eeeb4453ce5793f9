import {
  type ContourPlan,
  type CutChoice,
  type DesignChoice,
  type Fdi,
  type FinishByHand,
  type Jaw,
  type LaterState,
  type Mouth,
  type PlanChange,
  planChange,
  type QueryInput,
  type QueryName,
  type QueryOutput,
} from '@radiant/core';
import type { CaseService } from './case.worker.js';
import { type Thread, Threads } from './kept-thread.js';
import type { ArchView, JawView, PlannedView, PreparedToothView, TargetView } from './views.js';
import { Work } from './work.js';

/** Threads with the engine of a case in them; the one that is kept knows the scans that it measured. */
const threads = new Threads<CaseService>(
  () => new Worker(new URL('./case.worker.ts', import.meta.url), { type: 'module' }),
  (remote) => remote.begin(),
);

/** What was loaded from an address: the same promise again while it is the same one, a new try after a failure. */
class Loaded<V> {
  private url: string | undefined;
  private view: Promise<V> | undefined;

  constructor(private readonly load: (url: string) => Promise<V>) {}

  from(url: string): Promise<V> {
    if (this.view && this.url === url) return this.view;
    const view = this.load(url);
    this.url = url;
    this.view = view;
    view.catch(() => {
      if (this.view === view) this.view = undefined;
    });
    return view;
  }
}

/**
 * A case's engine as the page talks to it. The plan goes over by difference: each question names the plan that it is
 * asked of.
 */
export class CaseClient {
  private readonly work: Work;
  private readonly remote: Thread<CaseService>['remote'];
  private sent: ContourPlan = {};
  private readonly upper = new Loaded<ArchView>((url) => this.work.answer(() => this.remote.loadUpper(url)));
  private readonly lower = new Loaded<JawView>((url) => this.work.answer(() => this.remote.loadLower(url)));

  private readonly later = new Map<string, Loaded<void>>();

  constructor(private readonly thread = threads.take()) {
    this.work = new Work(thread.worker);
    this.remote = thread.remote;
  }

  get isLost(): boolean {
    return this.work.isLost;
  }

  /** Rejects with WorkLost once it is gone. */
  get lost(): Promise<never> {
    return this.work.lost;
  }

  loadUpper(url: string): Promise<ArchView> {
    return this.upper.from(url);
  }

  loadLower(url: string): Promise<JawView> {
    return this.lower.from(url);
  }

  /** A later scan of a jaw in one of its states; the next one is fetched and read again. */
  loadLater(url: string, jaw: Jaw, state: LaterState): Promise<void> {
    const key = `${jaw} ${state}`;
    const own =
      this.later.get(key) ??
      new Loaded<void>((from) => this.work.answer(() => this.remote.loadLater(from, jaw, state)));
    this.later.set(key, own);
    return own.from(url);
  }

  /** Lets go of a later scan, where one was loaded. */
  async dropLater(jaw: Jaw, state: LaterState): Promise<void> {
    if (this.later.delete(`${jaw} ${state}`)) await this.work.answer(() => this.remote.dropLater(jaw, state));
  }

  /** A planned crown for drawing. */
  planned(plan: ContourPlan, tooth: Fdi, quick: boolean): Promise<PlannedView> {
    this.sync(plan);
    return this.work.answer(() => this.remote.planned(tooth, quick) as Promise<PlannedView>);
  }

  /** A target preparation for drawing. */
  target(plan: ContourPlan, tooth: Fdi, choice: DesignChoice, mouth: Mouth): Promise<TargetView> {
    this.sync(plan);
    return this.work.answer(() => this.remote.target(tooth, choice, mouth) as Promise<TargetView>);
  }

  /** A prepared tooth for drawing. */
  prepared(
    plan: ContourPlan,
    tooth: Fdi,
    choice: CutChoice,
    mouth: Mouth,
    lines: readonly FinishByHand[],
  ): Promise<PreparedToothView> {
    this.sync(plan);
    return this.work.answer(() => this.remote.prepared(tooth, choice, mouth, lines) as Promise<PreparedToothView>);
  }

  /**
   * Asks a question of the case with this plan, or one that no plan has a say in. Rejects with a Refusal, WorkLost, or
   * what nobody foresaw.
   */
  ask<N extends QueryName>(
    plan: ContourPlan | undefined,
    name: N,
    ...input: QueryInput<N>
  ): Promise<Awaited<QueryOutput<N>>> {
    if (plan) this.sync(plan);
    const asked = this.remote.ask as unknown as (name: N, input: QueryInput<N>) => Promise<Awaited<QueryOutput<N>>>;
    return this.work.answer(() => asked(name, input));
  }

  /** Nothing more is asked of it. Its thread is kept a while for the next case, unless it is still at work. */
  end(): void {
    if (!this.work.isIdle) this.work.end();
    else {
      this.work.release();
      threads.keep(this.thread);
    }
  }

  /** What comes after it in the worker's line is asked of this plan. */
  private sync(plan: ContourPlan): void {
    const change: PlanChange | undefined = planChange(this.sent, plan);
    if (!change) return;
    this.sent = plan;
    this.work.answer(() => this.remote.change(change)).catch(() => undefined);
  }
}
