import {
  ask,
  CaseEngine,
  type CutChoice,
  type DesignChoice,
  enamelNormAt,
  type Fdi,
  type FinishByHand,
  type Jaw,
  type LaterState,
  type Mouth,
  type PlanChange,
  type QueryInput,
  type QueryName,
  type QueryOutput,
  Refusal,
  readScan,
  ScannedJaw,
  TARGET_PLACES,
} from '@radiant/core';
import { expose, transfer } from 'comlink';
import { buffers, drawable, drawableJaw } from './drawable.js';
import { fetched } from './fetched.js';
import type { ArchView, JawView, PlannedView, PreparedToothView, TargetView } from './views.js';
import './wire.js';

// The case's engine in a thread of its own. Nothing is worked out here that the engine does not answer.

let engine = new CaseEngine();

/** The last scan of each jaw: one that is opened again, in this case or the next, is not read and measured again. */
const last = new Map<Jaw, { readonly bytes: Uint8Array; readonly jaw: ScannedJaw }>();

const same = (a: Uint8Array, b: Uint8Array) => a.length === b.length && a.every((v, i) => v === b[i]);

function scanned(bytes: Uint8Array, jaw: Jaw): ScannedJaw {
  const before = last.get(jaw);
  if (before && same(before.bytes, bytes)) return before.jaw;
  const scan = readScan(bytes, []);
  if (scan.jaw !== jaw)
    throw new Refusal('scan-without-teeth', `This scan is of the ${scan.jaw} jaw, not of the ${jaw} one.`, scan.jaw);
  const own = new ScannedJaw(scan);
  last.set(jaw, { bytes, jaw: own });
  return own;
}

async function take(url: string, jaw: Jaw): Promise<ReturnType<typeof drawableJaw>> {
  const own = scanned(await fetched(url), jaw);
  engine.take(own);
  return drawableJaw(own.scan);
}

const service = {
  /** Begins with another case. */
  begin(): void {
    engine = new CaseEngine();
  },

  /** Fetches the upper scan and measures its teeth. @throws Refusal */
  async loadUpper(url: string): Promise<ArchView> {
    const made = await take(url, 'upper');
    return transfer({ ...made.view, existing: ask(engine, 'existing', 'upper') }, made.buffers);
  },

  /** Fetches the lower scan; its teeth are measured when they are asked for. @throws Refusal */
  async loadLower(url: string): Promise<JawView> {
    const made = await take(url, 'lower');
    return transfer(made.view, made.buffers);
  },

  /** Fetches a scan of teeth that were cut, of the same jaw as one that is there. @throws Refusal */
  async loadLater(url: string, jaw: Jaw, state: LaterState): Promise<void> {
    const scan = readScan(await fetched(url), []);
    if (scan.jaw !== jaw)
      throw new Refusal('scan-without-teeth', `This scan is of the ${scan.jaw} jaw, not of the ${jaw} one.`, scan.jaw);
    engine.takeLater(scan, state);
  },

  dropLater(jaw: Jaw, state: LaterState): void {
    engine.dropLater(jaw, state);
  },

  change(change: PlanChange): void {
    engine.change(change);
  },

  /** A planned crown for drawing. @throws Refusal of `CaseEngine.crown` */
  planned(tooth: Fdi, quick: boolean): PlannedView {
    const own = ask(engine, 'difference', tooth, quick);
    const mesh = drawable(own.mesh);
    const differenceMm = Float32Array.from(own.differenceMm);
    const { mostAddedMm, mostRemovedMm, volume } = own;
    return transfer({ tooth, mesh, differenceMm, mostAddedMm, mostRemovedMm, ...(volume && { volume }) }, [
      ...buffers(mesh),
      differenceMm.buffer as ArrayBuffer,
    ]);
  },

  /** A target preparation for drawing. @throws Refusal of `CaseEngine.crown` */
  target(tooth: Fdi, choice: DesignChoice, mouth: Mouth): TargetView {
    const { surface, told, ...own } = ask(engine, 'target', tooth, choice, mouth);
    const [before, prepared] = [drawable(own.before), drawable(own.mesh)];
    const facial = TARGET_PLACES.indexOf('facial');
    const norm = (end: 'from' | 'to') =>
      Float32Array.from(surface.toothShare, (share, i) =>
        surface.place[i] === facial ? enamelNormAt(share, mouth)[end] : Number.NaN,
      );
    return {
      tooth,
      before,
      prepared,
      removedMm: Float32Array.from(surface.removedMm),
      alignMm: Float32Array.from(surface.alignMm),
      enamelMm: [norm('from'), norm('to')],
      finishLine: Float32Array.from(own.finishLine.flatMap((p) => [...p])),
      margin: surface.margin,
      told,
      notes: surface.notes,
    };
  },

  /** A prepared tooth for drawing. @throws Refusal of `preparedView` */
  prepared(tooth: Fdi, choice: CutChoice, mouth: Mouth, lines: readonly FinishByHand[]): PreparedToothView {
    const own = ask(engine, 'preparedView', tooth, choice, mouth, lines);
    const mesh = drawable(own.mesh);
    const [shortMm, roomMm] = [Float32Array.from(own.shortMm), Float32Array.from(own.roomMm)];
    return transfer({ ...own, mesh, shortMm, roomMm }, [
      ...buffers(mesh),
      shortMm.buffer as ArrayBuffer,
      roomMm.buffer as ArrayBuffer,
    ]);
  },

  /** Any other question. @throws Refusal of the question */
  ask<N extends QueryName>(name: N, input: QueryInput<N>): QueryOutput<N> {
    return ask(engine, name, ...input);
  },
};

export type CaseService = typeof service;
expose(service);
