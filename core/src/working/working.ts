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
  /** What `pm` is made of, where it is known: what figures have in common cancels in their difference. */
  readonly errors?: Errors;
}

/**
 * Independent causes of error by name, each with what 1.96 of its standard deviations do to the figure, signed, in the
 * figure's unit. `together` makes the figure's `pm` of them.
 */
export type Errors = Readonly<Record<string, number>>;

export const MEASURED: Source = { mark: 'measured', text: 'measured in this case' };
export const DERIVED: Source = { mark: 'derived', text: 'follows from the other figures' };
export const COMMON_PRACTICE: Source = { mark: 'common practice', text: 'common practice, no published source' };

/** A published source; the words "from memory" are part of what is shown. */
export function published(text: string): Source {
  return { mark: 'published', text: `${text}, from memory` };
}

/** A source as it is shown: its mark, and what stands behind it. */
export const sourceWords = ({ mark, text }: Source): string => (text.startsWith(mark) ? text : `${mark}: ${text}`);

/** A standard's requirement. */
export function standard(text: string): Source {
  return { mark: 'standard', text };
}

type Known = Pick<Figure, 'value' | 'pm' | 'errors'>;

/**
 * The errors of what follows from several figures, to first order: causes that they share act on all of them at once,
 * all others are independent (law of propagation, JCGM 100:2008, 5.2).
 * @param slopes what each figure's change does to the result
 */
export function propagatedErrors(figures: readonly Known[], slopes: readonly number[]): Errors {
  const out: Record<string, number> = {};
  figures.forEach((f, i) => {
    const slope = slopes[i] as number;
    // A figure that does not say what its error is made of has one of its own.
    const own = f.errors ?? { [`own ${i}`]: f.pm };
    for (const cause in own) out[cause] = (out[cause] ?? 0) + slope * (own[cause] as number);
  });
  return out;
}

/** How the name of a cause begins whose values are spread evenly between two ends, and not about a middle. */
export const EVEN = '~';

/**
 * The half-width of the 95 % interval that independent causes make together: the root of their squares, and less where
 * evenly spread ones stand over the rest, which never go beyond their ends. The share was fitted to sums of an even and
 * a normal error, within 0.005 (see the test of the same name).
 */
export function together(errors: Errors): number {
  let [squares, fourths] = [0, 0];
  for (const cause in errors) {
    const square = (errors[cause] as number) ** 2;
    squares += square;
    if (cause[0] === EVEN) fourths += square * square;
  }
  const even = squares > 0 ? fourths / squares ** 2 : 0;
  return Math.sqrt(squares) * (1 - 0.08 * even - 0.08 * even ** 3);
}

/** How far a figure is moved to see what that does, as a share of its ± and at least this, in its unit. */
const STEP = { share: 0.01, least: 1e-6 } as const;

/** Figures that follow from others all at once, by a key, with the errors that these give them together; in mm. */
export function derivedEach<K>(
  figures: readonly Known[],
  keys: readonly K[],
  of: (values: readonly number[]) => ReadonlyMap<K, number>,
): ReadonlyMap<K, Figure> {
  const values = figures.map((f) => f.value);
  const still = of(values);
  const moved = figures.map((f, i) => {
    const step = Math.max(STEP.least, STEP.share * f.pm);
    return { step, at: of(values.map((v, k) => (k === i ? v + step : v))) };
  });
  return new Map(
    keys.map((key) => {
      const value = still.get(key) as number;
      const slopes = moved.map(({ step, at }) => ((at.get(key) as number) - value) / step);
      const errors = propagatedErrors(figures, slopes);
      return [key, { value, pm: together(errors), unit: 'mm', working: { formula: '', inputs: [] }, errors }];
    }),
  );
}

/** A figure that follows from others, with the error that they give it together. */
export function derived(
  figures: readonly Known[],
  unit: Figure['unit'],
  working: Working,
  of: (values: readonly number[]) => number,
): Figure {
  const own = derivedEach(figures, [0], (values) => new Map([[0, of(values)]]));
  return { ...(own.get(0) as Figure), unit, working };
}

/** Whether two figures differ by more than their errors allow; what they have in common does not count. */
export function differs(a: Known, b: Known): boolean {
  return Math.abs(a.value - b.value) > together(propagatedErrors([a, b], [1, -1]));
}
