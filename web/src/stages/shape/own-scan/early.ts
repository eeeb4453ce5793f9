import type { CaseFile } from '@radiant/contract';
import { Refusal } from '@radiant/core';
import { useSyncExternalStore } from 'react';
import { type Reading, startReading } from './reading.js';

/** The bench of a scan that is on its way to the case's record is asked for by this in the place of a file's id. */
export const COMING = 'coming';

/** A file that is being put in: read and shown while it is on its way to the server. */
export interface Coming {
  readonly caseId: string;
  /** Of its bench, the same before and after it is on record. */
  readonly key: string;
  readonly file: File;
  /** What it came to be in the case's record. */
  readonly kept?: CaseFile;
  readonly onRecord: Promise<CaseFile>;
}

interface Early {
  coming: Coming;
  reading: Reading | undefined;
  readonly keep: (made: CaseFile) => void;
  readonly refuse: (reason: Refusal) => void;
}

let early: Early | undefined;
const listeners = new Set<() => void>();
const tell = () => {
  for (const l of listeners) l();
};

/**
 * Reads a file that was chosen just now; what was chosen before it is let go.
 * @param shown is called once there is something to be seen of it
 */
export function readEarly(caseId: string, file: File, shown: () => void): void {
  dropEarly();
  const reading = startReading(file, true);
  let [keep, refuse]: [(made: CaseFile) => void, (reason: Refusal) => void] = [() => undefined, () => undefined];
  const onRecord = new Promise<CaseFile>((resolve, reject) => {
    [keep, refuse] = [resolve, reject];
  });
  // Whoever waits for it hears of a failure; where nobody does, whoever chose the file says it.
  onRecord.catch(() => undefined);
  const own: Early = {
    coming: { caseId, key: crypto.randomUUID(), file, onRecord },
    reading,
    keep,
    refuse,
  };
  early = own;
  const show = () => early === own && shown();
  reading.follow(() => undefined, show);
  reading.opened.then(show, () => undefined);
  tell();
}

/** What was chosen has come to be this file of the case. */
export function keepEarly(made: CaseFile): void {
  if (!early) return;
  early.coming = { ...early.coming, kept: made };
  early.keep(made);
  tell();
}

/** What was chosen can't be kept: its bench says why. @param sentence for people */
export function refuseEarly(sentence: string): void {
  early?.refuse(new Refusal('scan-not-kept', sentence));
}

/** What was chosen is worked on no more. */
export function dropEarly(): void {
  early?.reading?.end();
  early?.refuse(new Refusal('scan-not-kept', 'Another file was chosen.'));
  early = undefined;
  tell();
}

/** Hands the early reading of a file over, once. @param key of its bench */
export function takeEarly(key: string): Reading | undefined {
  if (early?.coming.key !== key) return undefined;
  const { reading } = early;
  early.reading = undefined;
  return reading;
}

/** What is on its way to a case's record, or came to it last. */
export function useComing(caseId: string): Coming | undefined {
  const coming = useSyncExternalStore(
    (told) => {
      listeners.add(told);
      return () => listeners.delete(told);
    },
    () => early?.coming,
  );
  return coming?.caseId === caseId ? coming : undefined;
}
