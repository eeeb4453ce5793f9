import { useCallback, useMemo } from 'react';
import { useCase } from '../../../data/case-context.js';
import { useDrafts } from '../../../data/drafts-context.js';
import type { ScanWork } from '../../../engine/own-scan-acts.js';

/** What was done to a scan by hand, kept in this browser, readable by this person alone, until it is handed over. */
export interface KeptWork {
  /** @param fileId of a scan */
  readonly load: (fileId: string) => Promise<ScanWork | undefined>;
  readonly keep: (work: ScanWork) => void;
  readonly drop: () => Promise<void>;
}

/** @param fileId of the scan, once it is on record. A browser that can't keep anything goes on without. */
export function useKeptWork(fileId: string | undefined): KeptWork {
  const drafts = useDrafts();
  const { detail } = useCase();
  const { id } = detail;
  const load = useCallback(
    async (of: string) => (await drafts?.work(id, of).catch(() => undefined)) as ScanWork | undefined,
    [drafts, id],
  );
  const keep = useCallback(
    (work: ScanWork) => void (fileId && drafts?.keepWork(id, fileId, work).catch(() => undefined)),
    [drafts, id, fileId],
  );
  const drop = useCallback(
    async () => void (fileId && (await drafts?.dropWork(id, fileId).catch(() => undefined))),
    [drafts, id, fileId],
  );
  return useMemo(() => ({ load, keep, drop }), [load, keep, drop]);
}
