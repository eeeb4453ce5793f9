import type { Fdi } from '../teeth/notation.js';
import type { Source } from '../working/working.js';
import type { Beware, MouthNow } from './piece.js';
import { inRow } from './seat-order.js';
import type { GateId } from './words.js';

/** One thing to do at the chair. */
export interface Step {
  /** Stays the same while the plan around it changes: rule and teeth. */
  readonly id: string;
  readonly rule: string;
  /** Under which heading it stands. */
  readonly phase: string;
  /** What to do, as one says it; teeth stand in braces. */
  readonly does: string;
  readonly teeth: readonly Fdi[];
  /** Times to keep, one after the other, seconds. */
  readonly times?: readonly number[];
  /** A range that the time lies in, seconds, where it is none to keep to the second. */
  readonly within?: readonly [least: number, most: number];
  /** What is in hand. */
  readonly hand: readonly string[];
  readonly why: string;
  readonly source: Source;
  readonly gate?: GateId;
  /** What could harm, for this patient. */
  readonly beware?: string;
}

/** A rule: when a step is done, and everything about it. */
export interface Rule<F> {
  readonly id: string;
  /** Always, where left out. */
  readonly when?: (f: F) => boolean;
  readonly does: string | ((f: F) => string);
  readonly times?: readonly number[] | ((f: F) => readonly number[]);
  readonly within?: readonly [least: number, most: number];
  readonly hand: readonly string[] | ((f: F) => readonly string[]);
  readonly why: string;
  readonly source: Source;
  readonly gate?: GateId;
  readonly beware?: (f: F) => string | undefined;
}

const said = <F, V>(v: V | ((f: F) => V), f: F): V => (typeof v === 'function' ? (v as (f: F) => V)(f) : v);

/** The steps that rules make of what is known, in the order of the rules. */
export function compose<F>(phase: string, rules: readonly Rule<F>[], f: F, teeth: readonly Fdi[] = []): Step[] {
  return rules
    .filter((r) => r.when?.(f) ?? true)
    .map((r) => {
      const times = r.times && said(r.times, f);
      const beware = r.beware?.(f);
      return {
        id: teeth.length > 0 ? `${r.id}:${teeth.join('-')}` : r.id,
        rule: r.id,
        phase,
        does: said(r.does, f),
        teeth,
        ...(times && { times }),
        ...(r.within && { within: r.within }),
        hand: said(r.hand, f),
        why: r.why,
        source: r.source,
        ...(r.gate && { gate: r.gate }),
        ...(beware && { beware }),
      };
    });
}

/** Teeth as a sentence names them, in the order of the row. */
export const named = (teeth: readonly Fdi[]): string =>
  inRow(teeth)
    .map((t) => `{${t}}`)
    .join(', ');

/** A sentence where a caution is set. */
export const ifSet =
  <F extends { readonly mouth: MouthNow }>(b: Beware, sentence: string) =>
  ({ mouth }: F): string | undefined =>
    mouth.beware.has(b) ? sentence : undefined;
