import { createContext, type ReactNode, useContext, useEffect, useState, useSyncExternalStore } from 'react';
import { useSWRConfig } from 'swr';
import { isMoving, type QueueItem, UploadQueue } from './upload-queue.js';

/** The queues of a person's cases: what is on its way goes on while other pages are looked at. */
class Uploads {
  private readonly queues = new Map<string, UploadQueue>();

  constructor(private readonly delivered: (caseId: string) => void) {}

  of(caseId: string): UploadQueue {
    const known = this.queues.get(caseId) ?? new UploadQueue(caseId, () => this.delivered(caseId));
    this.queues.set(caseId, known);
    return known;
  }

  get areMoving(): boolean {
    return [...this.queues.values()].some((q) => isMoving(q.snapshot()));
  }

  callOff(): void {
    for (const q of this.queues.values()) q.callOff();
  }
}

const UploadsContext = createContext<Uploads | undefined>(undefined);

/** Holds what the person sends; it ends when they sign out. The browser asks before a page is closed over it. */
export function UploadsProvider({ children }: { children: ReactNode }) {
  const { mutate } = useSWRConfig();
  const [uploads] = useState(() => new Uploads((caseId) => void mutate(`/cases/${caseId}`)));
  useEffect(() => {
    const ask = (e: BeforeUnloadEvent) => {
      if (uploads.areMoving) e.preventDefault();
    };
    window.addEventListener('beforeunload', ask);
    return () => {
      window.removeEventListener('beforeunload', ask);
      uploads.callOff();
    };
  }, [uploads]);
  return <UploadsContext.Provider value={uploads}>{children}</UploadsContext.Provider>;
}

/** A case's queue and what is in it. */
export function useUploads(caseId: string): { readonly queue: UploadQueue; readonly items: readonly QueueItem[] } {
  const uploads = useContext(UploadsContext);
  if (!uploads) throw new Error('This belongs to somebody who is signed in.');
  const queue = uploads.of(caseId);
  return { queue, items: useSyncExternalStore(queue.subscribe, queue.snapshot) };
}
