import { parentPort, workerData } from 'node:worker_threads';
import { existingArch, type Mesh, plannedTooth, Refusal, readScan, UPPER_TEN, writeStlBinary } from '@radiant/core';
import type { ModelOrder, ModelResult } from './mock-up.js';
import { joinedModel } from './solid.js';

const { scan, plan, title } = workerData as ModelOrder;

async function make(): Promise<ModelResult> {
  try {
    const read = readScan(scan);
    const arch = existingArch(read);
    const planned: Mesh[] = UPPER_TEN.filter((t) => plan[t] && arch.teeth.has(t)).map((t) => plannedTooth(arch, plan, t).mesh);
    // The plan lies over the untouched teeth, as a mock-up does: nothing is cut for it.
    const { mesh, volumeMm3 } = await joinedModel([...read.teeth.values(), ...planned], read.rest);
    return { stl: writeStlBinary(mesh, undefined, title), volumeMm3 };
  } catch (error) {
    return { sentence: error instanceof Refusal || error instanceof Error ? error.message : 'The model can’t be made.' };
  }
}

void make().then((result) => parentPort?.postMessage(result));
