import type { StepDone, StepTimer, TreatSection } from '@radiant/contract';
import { answerAt } from '@radiant/contract/chair';
import type { GateId, Step, VisitKind } from '@radiant/core';

/** What every entry of the record says: at which visit, and who says so. */
interface Entry {
  readonly visit: VisitKind;
  readonly round: number;
  readonly by: string;
}

/** What one does at the chair; each writes what was done into the record. */
export interface ChairActs {
  readonly begin: () => void;
  readonly end: () => void;
  readonly finish: (step: Step, more?: { leftOut?: string; note?: string }) => void;
  /** Takes back the last step that was done. */
  readonly back: () => void;
  readonly start: (step: Step, seconds: number, label: string) => void;
  readonly stop: (id: string) => void;
  readonly answer: (step: Step, gate: GateId, met: boolean, saidBy: string, because?: string) => void;
  readonly refused: (gate: GateId) => boolean;
  readonly put: (change: (t: TreatSection, entry: Entry, at: string) => Partial<TreatSection>) => void;
}

interface On {
  readonly data: TreatSection;
  readonly set: (next: TreatSection) => void;
  readonly entry: Entry;
  readonly steps: readonly Step[];
  readonly done: ReadonlyMap<string, StepDone>;
  /** On how many teeth this visit works; nothing while steps are left: what ends early says nothing of its kind. */
  readonly teeth?: number;
  /** Names teeth as they are named here. */
  readonly sentence: (s: string) => string;
  /** A moment as ISO writes it. */
  readonly now: () => string;
}

export function actsOn({ data, set, entry, steps, done, teeth, sentence, now }: On): ChairActs {
  const { visit, round } = entry;
  const isHere = (e: { visit: string; round: number }) => e.visit === visit && e.round === round;
  const put: ChairActs['put'] = (change) => set({ ...data, ...change(data, entry, now()) });
  const doneNow = (step: Step, at: string): StepDone => ({ ...entry, step: step.id, at, did: sentence(step.does) });
  return {
    put,
    begin: () => put((t, e, at) => ({ runs: [...t.runs, { ...e, begunAt: at }] })),
    end: () =>
      put((t, _, at) => ({
        runs: t.runs.map((r) =>
          isHere(r) && !r.endedAt ? { ...r, endedAt: later(r.begunAt, at), ...(teeth !== undefined && { teeth }) } : r,
        ),
        timers: t.timers.map((x) => (isHere(x) && !x.stoppedAt ? stopped(x, at) : x)),
      })),
    finish: (step, { leftOut, note } = {}) =>
      put((t, _, at) => ({
        done: [...t.done, { ...doneNow(step, at), ...(leftOut && { leftOut }), ...(note && { note }) }],
      })),
    back: () => {
      const last = [...steps].reverse().find((s) => done.has(s.id));
      if (last) put((t) => ({ done: t.done.filter((d) => !(isHere(d) && d.step === last.id)) }));
    },
    start: (step, seconds, label) =>
      put((t, e, at) => ({
        timers: [
          ...t.timers,
          {
            ...e,
            id: crypto.randomUUID(),
            step: step.id,
            label: sentence(label).slice(0, 120),
            seconds,
            startedAt: at,
          },
        ],
      })),
    stop: (id) => put((t, _, at) => ({ timers: t.timers.map((x) => (x.id === id ? stopped(x, at) : x)) })),
    answer: (step, gate, met, saidBy, because) =>
      put((t, e, at) => ({
        answers: [...t.answers, { ...e, gate, met, saidBy, at, ...(because && { because }) }],
        ...((met || because) && { done: [...t.done, doneNow(step, at)] }),
      })),
    refused: (gate) => answerAt(data, { visit, round }, gate)?.met === false,
  };
}

/** Nothing ends before it began, whatever the clocks of two devices say. */
const later = (from: string, to: string): string => (Date.parse(to) < Date.parse(from) ? from : to);

const stopped = (t: StepTimer, at: string): StepTimer => ({ ...t, stoppedAt: later(t.startedAt, at) });

/** What a timer of a step is called: what is done, up to the first stop in it. */
export const timerLabel = (does: string): string => (does.split(/[.;:]/)[0] ?? does).trim();
