import type { ToothMeasure } from '../smile/measures.js';
import { type FrontKind, LENGTH_UNWORN, RATIO_UNWORN, WIDTH } from '../teeth/norms.js';
import { type Fdi, kindOf, opposite, UPPER_SIX } from '../teeth/notation.js';
import { COMMON_PRACTICE, DERIVED, type Figure, MEASURED, type WorkingInput } from '../working/working.js';

/** The schools by which targets are set; the first is the default: it needs no tooth that is already right. */
export const SCHOOLS = [
  {
    id: 'ratio',
    name: 'width to length',
    reason: 'Lengths from the edge level, widths from the ratio of unworn teeth, shared out over the space there is.',
    cost: 'Moves every tooth towards the mean; small characterful irregularities go.',
  },
  {
    id: 'reference',
    name: 'reference tooth',
    reason: 'The tooth that is right sets length and width; the others follow it, each in the proportion of its kind.',
    cost: 'Carries over the faults of the reference tooth.',
  },
] as const;

export type SchoolId = (typeof SCHOOLS)[number]['id'];

export interface ProposalChoice {
  readonly school: SchoolId;
  readonly referenceTooth: Fdi;
  /** Central edges below (+) where the lower of them stands today, mm. */
  readonly edgeMm: number;
}

export interface ToothTarget {
  readonly tooth: Fdi;
  readonly length: Figure;
  readonly width: Figure;
  /** Width over length, %. */
  readonly ratio: Figure;
}

export interface Proposal {
  readonly targets: readonly ToothTarget[];
  /** Room from canine to canine along the arch, mm. */
  readonly space: Figure;
  /** What could not be kept, and by how much. Sentences; `{11}` stands for a tooth number. */
  readonly notes: readonly string[];
}

/** Lateral edges above those of the centrals, mm. Common practice, no source. */
export const LATERAL_EDGE_UP_MM = 0.5;

/** A ratio further than this from its norm is told, percentage points. Common practice, no source. */
const RATIO_BAND = 5;

type Measured = ToothMeasure & Required<Pick<ToothMeasure, 'width' | 'length' | 'edgeLevel' | 'zenithLevel'>>;

const isMeasured = (m: ToothMeasure): m is Measured => !!(m.width && m.length && m.edgeLevel && m.zenithLevel);

/**
 * Targets for the six upper front teeth by the chosen school.
 * The gum line is kept: length comes at the edge. Widths always fill the space from canine to canine, left and right alike.
 * @param gaps sum of the gaps between the six teeth along the arch, mm (0 where teeth touch)
 * @returns undefined until all six teeth are measured
 */
export function propose(measures: readonly ToothMeasure[], choice: ProposalChoice, gaps: Figure): Proposal | undefined {
  const by = new Map<Fdi, Measured>();
  for (const m of measures) if (isMeasured(m)) by.set(m.tooth, m);
  if (!UPPER_SIX.every((t) => by.has(t))) return undefined;
  const get = (t: Fdi) => by.get(t) as Measured;
  const space = spaceFigure(UPPER_SIX.map(get), gaps);
  const lengths = new Map(
    UPPER_SIX.map((t) => [
      t,
      choice.school === 'ratio' ? lengthFromEdge(get(t), choice.edgeMm) : lengthFromReference(get(choice.referenceTooth), t, choice.edgeMm),
    ]),
  );
  const wished = new Map(UPPER_SIX.map((t) => [t, choice.school === 'ratio' ? widthFromRatio(t, lengths) : widthFromReference(get(choice.referenceTooth), t)]));
  const held = choice.school === 'reference' ? [choice.referenceTooth, opposite(choice.referenceTooth)] : [];
  const heldSum = sum(held.map((t) => wished.get(t) as number));
  const factor = (space.value - heldSum) / sum(UPPER_SIX.filter((t) => !held.includes(t)).map((t) => wished.get(t) as number));
  const targets = UPPER_SIX.map((tooth): ToothTarget => {
    const wish = wished.get(tooth) as number;
    const length = lengths.get(tooth) as Figure;
    const width = sharedWidth(wish, held.includes(tooth) ? 1 : factor, space);
    return { tooth, length, width, ratio: ratioOf(width, length) };
  });
  return { targets, space, notes: notesOn(targets, factor, space) };
}

const sum = (v: readonly number[]) => v.reduce((a, b) => a + b, 0);
const kind = (t: Fdi) => kindOf(t) as FrontKind;
const round = (v: number) => Math.round(v * 100) / 100;

function spaceFigure(teeth: readonly Measured[], gaps: Figure): Figure {
  return {
    value: sum(teeth.map((m) => m.width.value)) + gaps.value,
    pm: Math.hypot(...teeth.map((m) => m.width.pm), gaps.pm),
    unit: 'mm',
    working: {
      formula: 'space = sum of the six crown widths + gaps between them',
      inputs: [
        ...teeth.map((m): WorkingInput => ({ name: `width of ${m.tooth}`, value: round(m.width.value), unit: 'mm', source: MEASURED })),
        { name: 'gaps', value: round(gaps.value), unit: 'mm', source: MEASURED },
      ],
    },
  };
}

function lengthFromEdge(m: Measured, edgeMm: number): Figure {
  const up = kind(m.tooth) === 'lateral' ? LATERAL_EDGE_UP_MM : 0;
  // What the photograph foreshortens of this tooth's length is put back in the same share.
  const share = m.length.value / (m.zenithLevel.value - m.edgeLevel.value);
  return {
    value: (m.zenithLevel.value + edgeMm - up) * share,
    pm: Math.hypot(m.zenithLevel.pm, m.length.pm / 2),
    unit: 'mm',
    working: {
      formula: 'length = zenith level + edge set down − edge of this kind above the centrals’',
      inputs: [
        { name: 'zenith over the lower central edge', value: round(m.zenithLevel.value), unit: 'mm', source: MEASURED },
        { name: 'edge set down', value: edgeMm, unit: 'mm', source: { mark: 'house', text: 'set in this plan' } },
        { name: 'edge above the centrals’', value: up, unit: 'mm', source: COMMON_PRACTICE },
      ],
      note: 'The gum line is kept; length comes at the edge.',
    },
  };
}

function lengthFromReference(reference: Measured, tooth: Fdi, edgeMm: number): Figure {
  const from = LENGTH_UNWORN[kind(reference.tooth)];
  const to = LENGTH_UNWORN[kind(tooth)];
  const share = to.value / from.value;
  return {
    value: (reference.length.value + edgeMm) * share,
    pm: reference.length.pm * share,
    unit: 'mm',
    working: {
      formula: 'length = (length of the reference tooth + edge set down) × norm of this kind ÷ norm of the reference’s kind',
      inputs: [
        { name: `length of ${reference.tooth}`, value: round(reference.length.value), unit: 'mm', source: MEASURED },
        { name: 'edge set down', value: edgeMm, unit: 'mm', source: { mark: 'house', text: 'set in this plan' } },
        { name: 'norms', value: `${to.value} ÷ ${from.value}`, unit: 'mm', source: to.source },
      ],
    },
  };
}

function widthFromRatio(tooth: Fdi, lengths: ReadonlyMap<Fdi, Figure>): number {
  const pair = ((lengths.get(tooth) as Figure).value + (lengths.get(opposite(tooth)) as Figure).value) / 2;
  return (pair * RATIO_UNWORN[kind(tooth)].value) / 100;
}

function widthFromReference(reference: Measured, tooth: Fdi): number {
  return (reference.width.value * WIDTH[kind(tooth)].value) / WIDTH[kind(reference.tooth)].value;
}

function sharedWidth(wish: number, factor: number, space: Figure): Figure {
  return {
    value: wish * factor,
    pm: (wish * factor * space.pm) / space.value,
    unit: 'mm',
    working: {
      formula: 'width = wished width × (space ÷ sum of wished widths)',
      inputs: [
        { name: 'wished width', value: round(wish), unit: 'mm', source: DERIVED },
        { name: 'share of the space', value: round(factor * 1000) / 1000, unit: '', source: DERIVED },
      ],
    },
  };
}

function ratioOf(width: Figure, length: Figure): Figure {
  return {
    value: (100 * width.value) / length.value,
    pm: ((100 * width.value) / length.value) * Math.hypot(width.pm / width.value, length.pm / length.value),
    unit: '%',
    working: {
      formula: 'width ÷ length',
      inputs: [
        { name: 'target width', value: round(width.value), unit: 'mm', source: DERIVED },
        { name: 'target length', value: round(length.value), unit: 'mm', source: DERIVED },
      ],
    },
  };
}

function notesOn(targets: readonly ToothTarget[], factor: number, space: Figure): string[] {
  const notes: string[] = [];
  const off = (factor - 1) * 100;
  if (Math.abs(off) >= 1) {
    notes.push(
      off < 0
        ? `The wished widths are ${(space.value / factor - space.value).toFixed(1)} mm more than the space of ${space.value.toFixed(1)} mm; those not held give way by ${Math.abs(off).toFixed(0)} %.`
        : `The wished widths leave ${(space.value - space.value / factor).toFixed(1)} mm of the space of ${space.value.toFixed(1)} mm; those not held take it up by ${off.toFixed(0)} %.`,
    );
  }
  for (const t of targets) {
    const norm = RATIO_UNWORN[kind(t.tooth)];
    const d = t.ratio.value - norm.value;
    if (Math.abs(d) > RATIO_BAND) {
      notes.push(
        `{${t.tooth}} comes to ${t.ratio.value.toFixed(0)} %, ${Math.abs(d).toFixed(0)} points ${d > 0 ? 'above' : 'below'} the norm of ${norm.value} %.`,
      );
    }
  }
  return notes;
}

/**
 * The recurring front-view ratio: widths of central, lateral and canine as seen from the front when each is k times the one
 * before it, for W mm from canine to canine. central = W ÷ (2 (1 + k + k²)) (Ward 2001, from memory).
 */
export function recurringWidths(frontMm: number, k: number): { central: number; lateral: number; canine: number } {
  const central = frontMm / (2 * (1 + k + k * k));
  return { central, lateral: k * central, canine: k * k * central };
}
