import { Worker } from 'node:worker_threads';
import type { ContourPlan, Jaw } from '@radiant/core';
import { ProblemException } from '../common/problem.filter.js';

/** What the thread is given. */
export interface ModelOrder {
  /** Of the jaw of which the model is made. */
  readonly scan: Uint8Array;
  readonly jaw: Jaw;
  readonly plan: ContourPlan;
  readonly title: string;
}

export type ModelResult = { readonly stl: Uint8Array; readonly volumeMm3: number } | { readonly sentence: string };

/**
 * The plan joined with the untouched arch into one closed solid, binary STL, mm. Takes some seconds in a thread of its own.
 * @throws ProblemException 422 with the sentence why it can't be made
 */
export async function mockUpModel(order: ModelOrder): Promise<Uint8Array> {
  const thread = new Worker(new URL('./thread.js', import.meta.url), { workerData: order });
  const result = await new Promise<ModelResult>((resolve, reject) => {
    thread.once('message', resolve);
    thread.once('error', reject);
    thread.once('exit', () => reject(new Error('the model’s thread ended without a word')));
  });
  await thread.terminate();
  if ('sentence' in result) throw new ProblemException(422, 'Not possible', result.sentence);
  return result.stl;
}
