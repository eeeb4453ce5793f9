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
  /** Why it is not kept. */
  readonly refused?: string;
  readonly onRecord: Promise<CaseFile>;
}

/** What whoever put a file in tells of it. */
export interface Early {
  /** It has come to be this file of the case. */
  readonly keep: (made: CaseFile) => void;
  /** It can't be kept. @param sentence why, for people */
  readonly refuse: (sentence: string) => void;
  /** It is worked on no more here. */
  readonly drop: () => void;
}

let coming: Coming | undefined;
let reading: Reading | undefined;
let chosen = 0;
const listeners = new Set<() => void>();

function become(next: Coming | undefined): void {
  coming = next;
  for (const told of listeners) told();
}

function letGo(): void {
  reading?.end();
  reading = undefined;
  become(undefined);
}

/**
 * Reads a file that was chosen just now; what was chosen before it is let go.
 * @param shown is called once there is something to be seen of it
 */
export function readEarly(caseId: string, file: File, shown: () => void): Early {
  letGo();
  const key = `${COMING} ${++chosen}`;
  const own = startReading(file, true);
  let [keep, refuse]: [(made: CaseFile) => void, (reason: Refusal) => void] = [() => undefined, () => undefined];
  const onRecord = new Promise<CaseFile>((resolve, reject) => {
    [keep, refuse] = [resolve, reject];
  });
  // Whoever waits for it hears of a failure; others read it in what is coming.
  onRecord.catch(() => undefined);
  reading = own;
  become({ caseId, key, file, onRecord });
  // Another file may have been chosen since.
  const isMine = () => coming?.key === key;
  const show = () => isMine() && shown();
  own.follow(() => undefined, show);
  own.opened.then(show, () => undefined);
  return {
    keep: (made) => {
      keep(made);
      if (coming && isMine()) become({ ...coming, kept: made });
    },
    refuse: (sentence) => {
      refuse(new Refusal('scan-not-kept', sentence));
      if (coming && isMine()) become({ ...coming, refused: sentence });
    },
    drop: () => {
      refuse(new Refusal('scan-not-kept', 'The file was let go.'));
      if (isMine()) letGo();
    },
  };
}

/** Hands the early reading of a file over, once. @param key of its bench */
export function takeEarly(key: string): Reading | undefined {
  if (coming?.key !== key) return undefined;
  const own = reading;
  reading = undefined;
  return own;
}

/** What is on its way to a case's record, or came to it last. */
export function useComing(caseId: string): Coming | undefined {
  const own = useSyncExternalStore(
    (told) => {
      listeners.add(told);
      return () => listeners.delete(told);
    },
    () => coming,
  );
  return own?.caseId === caseId ? own : undefined;
}
