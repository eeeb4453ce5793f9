import {
  type Parts,
  type Problem,
  type SectionData,
  type SectionName,
  type SectionState,
  same,
  sectionOf,
} from '@radiant/contract';
import { AwayError, api, ProblemError } from './api.js';
import type { Draft } from './drafts.js';
import { type Clash, chosen, merge } from './merge.js';

export type SaveStatus = 'saved' | 'waiting' | 'saving' | 'away' | 'conflict' | 'refused' | 'signed-out';

export interface SectionView<N extends SectionName> {
  readonly data: SectionData[N];
  /** Version at the server that the shown content is, or began from. */
  readonly version: number;
  readonly by: string | null;
  readonly at: string | null;
  readonly status: SaveStatus;
  /** The section as another left it, and where both have changed the same, while the person has not chosen. */
  readonly conflict?: Conflict<N>;
  /** Whose change stands beside one's own since the two were put together. */
  readonly joined?: string;
  /** Why it could not be sent, where the server has said so. */
  readonly away?: string;
  /** The browser could not keep the edit: it is in this page alone until the server has it. */
  readonly unkept: boolean;
  /** Why the server refused, while the edit is kept. */
  readonly refusal?: Problem;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  /** The earlier state that is shown in the place of the content; nothing can be changed meanwhile. */
  readonly looked?: SectionState<N>;
}

export interface Conflict<N extends SectionName> {
  readonly theirs: SectionState<N>;
  readonly clashes: readonly Clash[];
}

/** Where edits wait in the browser; `Drafts` of the person who is signed in. */
export interface DraftKeeper {
  load(caseId: string, section: SectionName): Promise<Draft | undefined>;
  save(caseId: string, section: SectionName, draft: Draft): Promise<void>;
  clear(caseId: string, section: SectionName): Promise<void>;
}

const SAVE_AFTER_MS = 500;
const RETRY_MS = 2000;
const HISTORY = 200;

/**
 * One section of a case on this page: what the server has, the person's edit on top, undo and redo, and the loop that
 * saves. An edit is in the browser's storage from the moment it is made until the server has it.
 */
export class SectionStore<N extends SectionName> {
  private base: SectionState<N>;
  private readonly parts: Parts;
  private draft: SectionData[N] | undefined;
  private past: SectionData[N][] = [];
  private future: SectionData[N][] = [];
  private group: string | undefined;
  private status: SaveStatus = 'saved';
  private conflict: Conflict<N> | undefined;
  private away: string | undefined;
  private unkept = false;
  private joined: string | undefined;
  private ended = false;
  private looked: SectionState<N> | undefined;
  /** What is on its way to the server, or was last. */
  private sending: Promise<void> = Promise.resolve();
  /** Keeping and clearing happen one after the other, in the order in which they were asked for. */
  private keeping: Promise<void> = Promise.resolve();
  private refusal: Problem | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private listeners = new Set<() => void>();
  private view: SectionView<N>;

  constructor(
    private readonly caseId: string,
    initial: SectionState<N>,
    private readonly drafts: DraftKeeper | undefined,
  ) {
    this.base = initial;
    this.parts = sectionOf(initial.name).parts;
    this.view = this.makeView();
    void drafts
      ?.load(caseId, initial.name)
      .then((draft) => {
        if (!draft || this.draft !== undefined || this.ended) return;
        // An older program may have left it, in the form that the section had then.
        const { upgraded } = sectionOf(this.base.name);
        this.draft = upgraded(draft.data as object) as SectionData[N];
        const newest = this.base;
        // Older drafts don't say what they began from: then every difference is a choice.
        if (draft.baseVersion !== newest.version)
          this.base = {
            ...newest,
            version: draft.baseVersion,
            data: upgraded((draft.base ?? {}) as object) as SectionData[N],
          };
        // What the page was opened with may be older than what the edit began from: that is no news of another.
        if (draft.baseVersion < newest.version) this.meet(newest);
        else {
          this.status = 'waiting';
          this.schedule(0);
        }
        this.emit();
      })
      .catch(() => undefined);
  }

  /** Ends it: nothing is sent any more. What was not sent waits in the browser for the person it belongs to. */
  end(): void {
    this.ended = true;
    clearTimeout(this.timer);
  }

  /**
   * Ends it, and sends what still waits, once.
   * @param told hears what the server has, as far as this page knows: at once, and again when it has taken the edit
   */
  async leave(told: (state: SectionState<N>) => void): Promise<void> {
    const known = this.base;
    if (this.status === 'waiting') this.save();
    this.end();
    told(known);
    await this.sending;
    if (this.base !== known) told(this.base);
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): SectionView<N> => this.view;

  /**
   * Changes the section. Changes in a row with the same group (one slider drag) are one step for undo.
   */
  set(next: SectionData[N], group?: string): void {
    if (this.looked || same(next, this.data)) return;
    if (!group || group !== this.group) {
      this.past = [...this.past.slice(-HISTORY), this.data];
      this.future = [];
    }
    this.group = group;
    this.joined = undefined;
    this.put(next);
  }

  /** Brings something that follows from the last change into it: no step of its own for undo. */
  amend(next: SectionData[N]): void {
    if (!this.looked && !same(next, this.data)) this.put(next);
  }

  /** Ends the current group, so that the next change is a step of its own. */
  endGroup(): void {
    this.group = undefined;
  }

  undo(): void {
    const before = this.looked ? undefined : this.past.pop();
    if (!before) return;
    this.future.push(this.data);
    this.group = undefined;
    this.put(before);
  }

  redo(): void {
    const next = this.looked ? undefined : this.future.pop();
    if (!next) return;
    this.past.push(this.data);
    this.group = undefined;
    this.put(next);
  }

  /** Shows an earlier state in the place of the content, or the content again. Nothing of it is sent. */
  look(at: SectionState<N> | undefined): void {
    this.looked = at;
    this.emit();
  }

  /** Goes back to the state that is looked at: a change like any other, which undo takes back. */
  goBack(): void {
    const { looked } = this;
    if (!looked) return;
    this.looked = undefined;
    this.group = undefined;
    this.set(looked.data);
    this.emit();
  }

  /** News from the server. Without an edit it is shown at once; with one, saving will meet it. */
  serverHas(state: SectionState<N>): void {
    if (state.version <= this.base.version || this.status === 'saving') return;
    if (this.draft === undefined) {
      this.base = state;
      this.emit();
    } else this.meet(state);
  }

  /** The person's choice at each clash; everything else is put together by itself. */
  resolve(choose: (clash: number) => 'mine' | 'theirs'): void {
    if (!this.conflict || this.draft === undefined) return;
    const { theirs } = this.conflict;
    const next = chosen(this.parts, this.base.data, this.draft, theirs.data, choose);
    this.past.push(this.draft);
    this.future = [];
    this.conflict = undefined;
    this.settle(theirs, next);
    this.emit();
  }

  /** Tries again now, after signing in or when the connection is back. */
  retry(): void {
    if (this.draft !== undefined && !this.conflict && this.status !== 'refused') this.schedule(0);
  }

  private get data(): SectionData[N] {
    return this.draft ?? this.base.data;
  }

  private put(next: SectionData[N]): void {
    this.draft = next;
    this.refusal = undefined;
    this.keep();
    if (this.conflict) this.meet(this.conflict.theirs);
    else {
      if (this.status !== 'saving') this.status = 'waiting';
      this.schedule(SAVE_AFTER_MS);
    }
    this.emit();
  }

  private keep(): void {
    const draft = { baseVersion: this.base.version, base: this.base.data, data: this.draft };
    this.after(async () => {
      if (!this.drafts) throw new Error('no store');
      await this.drafts.save(this.caseId, this.base.name, draft);
    });
  }

  private after(work: () => Promise<void>): void {
    this.keeping = this.keeping.then(work).then(
      () => this.tellKept(true),
      () => this.tellKept(false),
    );
  }

  private tellKept(kept: boolean): void {
    const unkept = !kept && this.draft !== undefined;
    if (unkept === this.unkept) return;
    this.unkept = unkept;
    this.emit();
  }

  private drop(): void {
    this.draft = undefined;
    this.status = 'saved';
    this.unkept = false;
    this.after(async () => this.drafts?.clear(this.caseId, this.base.name));
  }

  private schedule(ms: number): void {
    clearTimeout(this.timer);
    if (!this.ended) this.timer = setTimeout(() => this.save(), ms);
  }

  private save(): void {
    if (this.draft === undefined || this.conflict || this.status === 'saving' || this.ended) return;
    this.sending = this.send(this.draft);
  }

  private async send(sent: SectionData[N]): Promise<void> {
    this.status = 'saving';
    this.emit();
    try {
      const state = await api.patch<SectionState<N>>(`/cases/${this.caseId}/sections/${this.base.name}`, {
        version: this.base.version,
        data: sent,
      });
      this.base = state;
      this.away = undefined;
      if (this.draft === sent) this.drop();
      else {
        this.status = 'waiting';
        this.keep();
        this.schedule(SAVE_AFTER_MS);
      }
    } catch (error) {
      this.failed(error);
    }
    this.emit();
  }

  private failed(error: unknown): void {
    this.status = 'waiting';
    if (error instanceof AwayError) {
      this.status = 'away';
      this.away = error.said;
      this.schedule(RETRY_MS);
      return;
    }
    if (!(error instanceof ProblemError)) throw error;
    const { problem } = error;
    if (problem.status === 409 && problem.current) this.meet(problem.current as SectionState<N>);
    else if (problem.status === 401) this.status = 'signed-out';
    else {
      this.status = 'refused';
      this.refusal = problem;
    }
  }

  /** Another has changed the section under an edit: the two are put together, and only what clashes is asked. */
  private meet(theirs: SectionState<N>): void {
    if (this.draft === undefined) return;
    const { merged, clashes } = merge(this.parts, this.base.data, this.draft, theirs.data);
    if (clashes.length === 0) this.settle(theirs, merged);
    else {
      clearTimeout(this.timer);
      this.conflict = { theirs, clashes };
      this.status = 'conflict';
    }
    this.emit();
  }

  /** Goes on from another's content with one's own edit on it, or with none where nothing of it is left. */
  private settle(theirs: SectionState<N>, next: SectionData[N]): void {
    this.base = theirs;
    this.joined = theirs.by ?? undefined;
    if (same(next, theirs.data)) this.drop();
    else {
      this.draft = next;
      this.status = 'waiting';
      this.keep();
      this.schedule(0);
    }
  }

  private makeView(): SectionView<N> {
    return {
      data: this.looked?.data ?? this.data,
      ...(this.looked && { looked: this.looked }),
      version: this.base.version,
      by: this.base.by,
      at: this.base.at,
      status: this.status,
      ...(this.conflict && { conflict: this.conflict }),
      ...(this.away && this.status === 'away' && { away: this.away }),
      ...(this.joined && { joined: this.joined }),
      unkept: this.unkept,
      ...(this.refusal && { refusal: this.refusal }),
      canUndo: !this.looked && this.past.length > 0,
      canRedo: !this.looked && this.future.length > 0,
    };
  }

  private emit(): void {
    this.view = this.makeView();
    for (const l of this.listeners) l();
  }
}
