import type { Problem, SectionData, SectionName, SectionState } from '@radiant/contract';
import { AwayError, api, ProblemError } from './api.js';
import { clearDraft, loadDraft, saveDraft } from './drafts.js';

export type SaveStatus = 'saved' | 'waiting' | 'saving' | 'away' | 'conflict' | 'refused' | 'signed-out';

export interface SectionView<N extends SectionName> {
  readonly data: SectionData[N];
  /** Version at the server that the shown content is, or began from. */
  readonly version: number;
  readonly by: string | null;
  readonly at: string | null;
  readonly status: SaveStatus;
  /** The section as another left it, while the person has not chosen. */
  readonly conflict?: SectionState<N>;
  /** Why the server refused, while the edit is kept. */
  readonly refusal?: Problem;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
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
  private draft: SectionData[N] | undefined;
  private past: SectionData[N][] = [];
  private future: SectionData[N][] = [];
  private group: string | undefined;
  private status: SaveStatus = 'saved';
  private conflict: SectionState<N> | undefined;
  private refusal: Problem | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private listeners = new Set<() => void>();
  private view: SectionView<N>;

  constructor(
    private readonly caseId: string,
    initial: SectionState<N>,
  ) {
    this.base = initial;
    this.view = this.makeView();
    void loadDraft(caseId, initial.name).then((draft) => {
      if (!draft || this.draft !== undefined) return;
      this.draft = draft.data as SectionData[N];
      if (draft.baseVersion !== this.base.version) this.meet(this.base);
      else this.schedule(0);
      this.emit();
    });
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
    if (same(next, this.data)) return;
    if (!group || group !== this.group) {
      this.past = [...this.past.slice(-HISTORY), this.data];
      this.future = [];
    }
    this.group = group;
    this.put(next);
  }

  /** Ends the current group, so that the next change is a step of its own. */
  endGroup(): void {
    this.group = undefined;
  }

  undo(): void {
    const before = this.past.pop();
    if (!before) return;
    this.future.push(this.data);
    this.group = undefined;
    this.put(before);
  }

  redo(): void {
    const next = this.future.pop();
    if (!next) return;
    this.past.push(this.data);
    this.group = undefined;
    this.put(next);
  }

  /** News from the server. Without an edit it is shown at once; with one, saving will meet it. */
  serverHas(state: SectionState<N>): void {
    if (state.version <= this.base.version || this.status === 'saving') return;
    if (this.draft === undefined) {
      this.base = state;
      this.emit();
    } else this.meet(state);
  }

  /** The person's choice between two versions: their own, the other's, or one put together from both. */
  resolve(choice: 'mine' | 'theirs' | { merged: SectionData[N] }): void {
    if (!this.conflict) return;
    const other = this.conflict;
    this.conflict = undefined;
    this.base = other;
    if (choice === 'theirs') {
      if (this.draft) this.past.push(this.draft);
      this.drop();
    } else {
      if (choice !== 'mine') {
        if (this.draft) this.past.push(this.draft);
        this.draft = choice.merged;
      }
      this.keep();
      this.schedule(0);
    }
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
    if (!this.conflict) {
      if (this.status !== 'saving') this.status = 'waiting';
      this.schedule(SAVE_AFTER_MS);
    }
    this.emit();
  }

  private keep(): void {
    saveDraft(this.caseId, this.base.name, { baseVersion: this.base.version, data: this.draft });
  }

  private drop(): void {
    this.draft = undefined;
    this.status = 'saved';
    clearDraft(this.caseId, this.base.name);
  }

  private schedule(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.save(), ms);
  }

  private async save(): Promise<void> {
    if (this.draft === undefined || this.conflict || this.status === 'saving') return;
    const sent = this.draft;
    this.status = 'saving';
    this.emit();
    try {
      const state = await api.patch<SectionState<N>>(`/cases/${this.caseId}/sections/${this.base.name}`, { version: this.base.version, data: sent });
      this.base = state;
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

  /** Another has changed the section under an edit. The same content is no conflict. */
  private meet(other: SectionState<N>): void {
    if (this.draft !== undefined && same(this.draft, other.data)) {
      this.base = other;
      this.drop();
    } else {
      clearTimeout(this.timer);
      this.conflict = other;
      this.status = 'conflict';
    }
    this.emit();
  }

  private makeView(): SectionView<N> {
    return {
      data: this.data,
      version: this.base.version,
      by: this.base.by,
      at: this.base.at,
      status: this.status,
      ...(this.conflict && { conflict: this.conflict }),
      ...(this.refusal && { refusal: this.refusal }),
      canUndo: this.past.length > 0,
      canRedo: this.future.length > 0,
    };
  }

  private emit(): void {
    this.view = this.makeView();
    for (const l of this.listeners) l();
  }
}

/** Whether two section contents say the same, whatever the order of their fields and absent against null. */
export function same(a: unknown, b: unknown): boolean {
  return stable(a) === stable(b);
}

function stable(v: unknown): string {
  return JSON.stringify(v, (_, x: unknown) =>
    x !== null && typeof x === 'object' && !Array.isArray(x)
      ? Object.fromEntries(
          Object.entries(x)
            .filter(([, y]) => y !== null && y !== undefined)
            .sort(([p], [q]) => (p < q ? -1 : 1)),
        )
      : x,
  );
}
