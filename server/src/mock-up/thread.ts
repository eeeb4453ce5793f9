import { parentPort, workerData } from 'node:worker_threads';
import { existingArch, type Mesh, meshToArch, plannedTooth, Refusal, readScan, rowOf, writeStlBinary } from '@radiant/core';
import type { ModelOrder, ModelResult } from './mock-up.js';
import { joinedModel } from './solid.js';

const { scan, jaw, plan, title } = workerData as ModelOrder;

async function make(): Promise<ModelResult> {
  try {
    const read = readScan(scan, []);
    const arch = existingArch(read);
    const planned: Mesh[] = rowOf(jaw)
      .filter((t) => plan[t] && arch.teeth.has(t))
      .map((t) => plannedTooth(arch, plan, t).mesh);
    // The plan lies over the untouched teeth, as a mock-up does: nothing is cut for it.
    // It is made in the arch's own frame, in which the foot is where the roots are, and goes out as it was scanned.
    const there = [...read.teeth.values()].map((t) => meshToArch(jaw, t));
    const { mesh, volumeMm3 } = await joinedModel([...there, ...planned], meshToArch(jaw, read.rest));
    return { stl: writeStlBinary(meshToArch(jaw, mesh), undefined, title), volumeMm3 };
  } catch (error) {
    return { sentence: error instanceof Refusal || error instanceof Error ? error.message : 'The model can’t be made.' };
  }
}

void make().then((result) => parentPort?.postMessage(result));
