import { GATES, VISITS } from '@radiant/core';
import { type Held, heldVisits } from './chair.js';
import { LOOKED_AT, type TreatSection } from './sections/treat.js';

/** One thing that happened at the chair. Teeth stand in braces. */
export interface RecordLine {
  readonly at: string;
  readonly by: string;
  readonly kind: 'step' | 'left out' | 'gate' | 'not met' | 'time' | 'material' | 'tried';
  readonly words: string;
  readonly note?: string;
}

/** A visit as it was held. */
export interface RecordVisit extends Held {
  readonly title: string;
  /** How long it took, once it is over. */
  readonly minutes?: number;
  readonly lines: readonly RecordLine[];
}

const ORDINALS = ['', '', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth'];
const seconds = (ms: number) => `${Math.round(ms / 1000)} s`;

/** Everything that was done, visit by visit, each in the order in which it happened. */
export function treatRecord(t: TreatSection): RecordVisit[] {
  return heldVisits(t).map((held) => {
    const of = <T extends { visit: string; round: number }>(all: readonly T[]) =>
      all.filter((e) => e.visit === held.visit && e.round === held.round);
    const lines: RecordLine[] = [
      ...of(t.done).map(
        (d): RecordLine => ({
          at: d.at,
          by: d.by,
          kind: d.leftOut ? 'left out' : 'step',
          words: d.did,
          ...((d.leftOut || d.note) && { note: [d.leftOut, d.note].filter(Boolean).join(' · ') }),
        }),
      ),
      ...of(t.answers).map(
        (a): RecordLine => ({
          at: a.at,
          by: a.by,
          kind: a.met ? 'gate' : 'not met',
          words: `${GATES[a.gate]}: ${a.met ? 'yes' : 'no'}, says ${a.saidBy}`,
          ...(a.because && { note: `goes on because ${a.because}` }),
        }),
      ),
      ...of(t.timers).map((x): RecordLine => {
        const kept = x.stoppedAt ? Date.parse(x.stoppedAt) - Date.parse(x.startedAt) : undefined;
        return {
          at: x.startedAt,
          by: x.by,
          kind: 'time',
          words: `${x.label}: ${x.seconds} s asked for, ${kept === undefined ? 'run out' : `stopped after ${seconds(kept)}`}`,
        };
      }),
      ...of(t.used).map(
        (m): RecordLine => ({
          at: m.at,
          by: m.by,
          kind: 'material',
          words: [m.name, m.lot && `lot ${m.lot}`, m.expiry && `use by ${m.expiry}`].filter(Boolean).join(', '),
        }),
      ),
      ...of(t.trials).map(
        (x): RecordLine => ({
          at: x.at,
          by: x.by,
          kind: 'tried',
          words: `${x.teeth.map((n) => `{${n}}`).join(', ')} ${x.teeth.length > 1 ? 'together' : 'alone'}: ${x.home ? 'home' : 'not home'}`,
        }),
      ),
      ...of(t.looks).map(
        (x): RecordLine => ({
          at: x.at,
          by: x.by,
          kind: 'tried',
          words: `{${x.tooth}}, ${LOOKED_AT[x.look]}: ${x.yes ? 'yes' : 'no'}`,
        }),
      ),
    ];
    return {
      ...held,
      title: `${VISITS[held.visit]}${held.round > 1 ? `, the ${ORDINALS[held.round]} time` : ''}`,
      ...(held.endedAt && { minutes: Math.round((Date.parse(held.endedAt) - Date.parse(held.begunAt)) / 60_000) }),
      lines: lines.sort((a, b) => Date.parse(a.at) - Date.parse(b.at)),
    };
  });
}
