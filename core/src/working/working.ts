/** Where a figure comes from. `house` is a practice's own preference. */
export type Mark = 'standard' | 'published' | 'common practice' | 'house' | 'measured' | 'derived';

/** A citation: authors, year and journal, typed from memory of the publication unless it is a standard. */
export interface Source {
  readonly mark: Mark;
  readonly text: string;
}

/** One input of a working, as it entered the formula. */
export interface WorkingInput {
  readonly name: string;
  readonly value: number | string;
  readonly unit: string;
  readonly source: Source;
}

/** How a figure was made: the answer to "how?". */
export interface Working {
  readonly formula: string;
  readonly inputs: readonly WorkingInput[];
  readonly note?: string;
}

/**
 * A figure with its error and its working.
 * `pm` is the half-width of the interval that holds the truth about 95 times in 100, in the same unit; 0 for figures
 * that were set and not measured.
 */
export interface Figure {
  readonly value: number;
  readonly pm: number;
  readonly unit: 'mm' | '%' | '°' | 'mm³' | 'mm/px';
  readonly working: Working;
}

export const MEASURED: Source = { mark: 'measured', text: 'measured in this case' };
export const DERIVED: Source = { mark: 'derived', text: 'follows from the other figures' };
export const COMMON_PRACTICE: Source = { mark: 'common practice', text: 'common practice, no published source' };

/** A published source; the words "from memory" are part of what is shown. */
export function published(text: string): Source {
  return { mark: 'published', text: `${text}, from memory` };
}

/** Whether two figures differ by more than their errors allow: |a − b| > √(pm_a² + pm_b²). */
export function differs(a: { value: number; pm: number }, b: { value: number; pm: number }): boolean {
  return Math.abs(a.value - b.value) > Math.hypot(a.pm, b.pm);
}
