import { createContext, type ReactNode, useContext, useEffect, useState, useSyncExternalStore } from 'react';
import { AwayError, api, sentenceOf } from './api.js';

/** A file that the server makes. */
export interface Job {
  readonly id: string;
  readonly caseId: string;
  /** As the file is called. */
  readonly name: string;
  readonly state: 'making' | 'done' | 'refused' | 'off';
  /** What is being done, and which share of all is done; nothing while nobody has said. */
  readonly what?: string;
  readonly share?: number;
  /** Why it was refused. */
  readonly sentence?: string;
  /** Where the made file lies, to be saved again. */
  readonly url?: string;
}

/** The server is asked so often how far it is, ms. */
const ASK_MS = 700;

/** It is told at every so many bytes how much has come. */
const TOLD_BYTES = 2e6;

/** What is being made goes on while other pages are looked at; a made file is saved as soon as it is there. */
export class Jobs {
  private all: readonly Job[] = [];
  private readonly ends = new Map<string, AbortController>();
  private readonly listeners = new Set<() => void>();

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): readonly Job[] => this.all;

  get areMaking(): boolean {
    return this.all.some((j) => j.state === 'making');
  }

  /** @param href of the file, with or without a query */
  async start(caseId: string, href: string, name: string, save: (url: string, name: string) => void): Promise<void> {
    const id = crypto.randomUUID();
    const end = new AbortController();
    this.ends.set(id, end);
    this.set([...this.all, { id, caseId, name, state: 'making' }]);
    const timer = setInterval(() => void this.ask(id), ASK_MS);
    try {
      const response = await fetch(`${href}${href.includes('?') ? '&' : '?'}job=${id}`, { signal: end.signal }).catch(
        (error: unknown) => {
          throw error instanceof DOMException ? error : new AwayError();
        },
      );
      if (!response.ok)
        throw new Error(
          ((await response.json().catch(() => ({}))) as { detail?: string }).detail ?? 'The server refused this.',
        );
      const url = URL.createObjectURL(await this.received(id, response));
      save(url, name);
      this.change(id, { state: 'done', url });
    } catch (error) {
      if (error instanceof DOMException) this.change(id, { state: 'off' });
      else this.change(id, { state: 'refused', sentence: sentenceOf(error) });
    } finally {
      clearInterval(timer);
      this.ends.delete(id);
    }
  }

  callOff(id: string): void {
    this.ends.get(id)?.abort();
  }

  /** Takes what has ended off the list. */
  dismiss(id: string): void {
    const job = this.all.find((j) => j.id === id);
    if (job?.url) URL.revokeObjectURL(job.url);
    this.set(this.all.filter((j) => j.id !== id));
  }

  end(): void {
    for (const j of this.all) {
      this.callOff(j.id);
      this.dismiss(j.id);
    }
  }

  private async ask(id: string): Promise<void> {
    const said = await api.get<{ what: string; share: number }>(`/cases/making/${id}`).catch(() => undefined);
    if (said && this.all.find((j) => j.id === id)?.state === 'making') this.change(id, said);
  }

  /** What comes, counted on its way where it is large. */
  private async received(id: string, response: Response): Promise<Blob> {
    const reader = response.body?.getReader();
    if (!reader) return response.blob();
    const parts: BlobPart[] = [];
    let bytes = 0;
    let told = 0;
    for (;;) {
      const { done, value } = await reader.read();
      if (done) break;
      parts.push(value);
      bytes += value.byteLength;
      if (bytes - told < TOLD_BYTES) continue;
      told = bytes;
      const all = Number(response.headers.get('content-length') ?? 0);
      this.change(id, { what: `Receiving, ${(bytes / 1e6).toFixed(0)} MB`, ...(all > 0 && { share: bytes / all }) });
    }
    return new Blob(parts, { type: response.headers.get('content-type') ?? '' });
  }

  private change(id: string, to: Partial<Job>): void {
    this.set(this.all.map((j) => (j.id === id ? { ...j, ...to } : j)));
  }

  private set(next: readonly Job[]): void {
    this.all = next;
    for (const l of this.listeners) l();
  }
}

const JobsContext = createContext<Jobs | undefined>(undefined);

/** Holds what is being made for the person; it ends when they sign out. */
export function JobsProvider({ children }: { children: ReactNode }) {
  const [jobs] = useState(() => new Jobs());
  useEffect(() => {
    const ask = (e: BeforeUnloadEvent) => {
      if (jobs.areMaking) e.preventDefault();
    };
    window.addEventListener('beforeunload', ask);
    return () => {
      window.removeEventListener('beforeunload', ask);
      jobs.end();
    };
  }, [jobs]);
  return <JobsContext.Provider value={jobs}>{children}</JobsContext.Provider>;
}

/** What is being made of a case, and those who make it. */
export function useJobs(caseId: string): { readonly jobs: Jobs; readonly own: readonly Job[] } {
  const jobs = useContext(JobsContext);
  if (!jobs) throw new Error('This belongs to somebody who is signed in.');
  const all = useSyncExternalStore(jobs.subscribe, jobs.snapshot);
  return { jobs, own: all.filter((j) => j.caseId === caseId) };
}
