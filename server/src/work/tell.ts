import type { MessagePort } from 'node:worker_threads';

/** Says what is being done, and which share of all is done. */
export type Tell = (what: string, share: number) => void;

/** Tells it on a line to the thread that asked; nowhere where nobody listens. */
export const tellOn =
  (line: MessagePort | undefined): Tell =>
  (what, share) =>
    line?.postMessage({ what, share });
